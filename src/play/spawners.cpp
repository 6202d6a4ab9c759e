// The objects that a game has to make, and the bodies that it has to remove, as facts change.
//
// Cost: each call looks at the map's objects once.

#include "dryground/spawners.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

namespace dryground {

const Mover* Spawned::mover() const { return kind().mover == MoverId::none ? nullptr : &world_.mover(kind().mover); }

bool Spawned::is_tagged(std::string_view tag) const {
    const auto in = [&](const std::vector<std::string>& tags) {
        return std::find(tags.begin(), tags.end(), tag) != tags.end();
    };
    return in(tags_) || in(kind().tags);
}

PointPx Spawned::middle_px() const {
    return placed_ == nullptr ? at_ : PointPx{to_px(placed_->middle.x), to_px(placed_->middle.y)};
}
std::array<double, 2> Spawned::middle_m() const {
    const PointPx middle = middle_px();
    return {middle.x / world_.per_metre(), -middle.y / world_.per_metre()};
}
std::array<double, 2> Spawned::size_px() const {
    if (placed_ == nullptr) return {0, 0};
    return {to_px(placed_->size.x), to_px(placed_->size.y)};
}
std::array<double, 2> Spawned::size_m() const {
    const auto [width, height] = size_px();
    return {width / world_.per_metre(), height / world_.per_metre()};
}
double Spawned::turn_degrees() const { return placed_ == nullptr ? 0 : placed_->turn; }
const Regions& Spawned::area() const {
    static const Regions none;
    return placed_ == nullptr ? none : placed_->area;
}
const Ring& Spawned::line() const {
    static const Ring none;
    return placed_ == nullptr ? none : placed_->line;
}

const Value& Spawned::value(std::string_view field) const {
    const auto found = props_.find(std::string(field));
    if (found != props_.end()) return found->second;
    std::vector<std::string> names;
    for (const auto& [name, value] : props_) names.push_back(name);
    const auto nearest = nearest_name(field, names);
    throw std::out_of_range(fmt::format("dryground::Spawned: a {} has no property '{}'; it has {}", kind().name, field,
                                        nearest         ? *nearest
                                        : names.empty() ? "none"
                                                        : fmt::format("{}", fmt::join(names, ", "))));
}

namespace {

[[noreturn]] void wrong_type(const Kind& kind, std::string_view field, const char* wanted) {
    const auto found = kind.fields.find(std::string(field));
    throw std::invalid_argument(
        fmt::format("dryground::Spawned: property '{}' of a {} is no {}{}", field, kind.name, wanted,
                    found == kind.fields.end() ? "" : fmt::format(" but of type {}", name_of(found->second.type))));
}

}   // namespace

bool Spawned::yes_no(std::string_view field) const {
    if (const auto* is = std::get_if<bool>(&value(field).is)) return *is;
    wrong_type(kind(), field, "yes or no");
}
std::int64_t Spawned::whole(std::string_view field) const {
    if (const auto* is = std::get_if<std::int64_t>(&value(field).is)) return *is;
    wrong_type(kind(), field, "whole number");
}
double Spawned::number(std::string_view field) const {
    const Value& said = value(field);
    if (const auto* is = std::get_if<double>(&said.is)) return *is;
    if (const auto* is = std::get_if<std::int64_t>(&said.is)) return static_cast<double>(*is);
    wrong_type(kind(), field, "number");
}
const std::string& Spawned::text(std::string_view field) const {
    if (const auto* is = std::get_if<std::string>(&value(field).is)) return *is;
    wrong_type(kind(), field, "text");
}
PointPx Spawned::place(std::string_view field) const {
    if (const auto* is = std::get_if<std::array<double, 2>>(&value(field).is)) return {(*is)[0], (*is)[1]};
    wrong_type(kind(), field, "place");
}

std::string text(const SpawnReport& report) {
    std::string all;
    for (const auto& [kind, count] : report.missing)
        all += fmt::format("no function for kind '{}': {} not made\n", kind, count);
    for (const auto& [kind, count] : report.refused) all += fmt::format("kind '{}': {} refused\n", kind, count);
    for (const std::string& name : report.surplus)
        all += fmt::format("a function for '{}', which the world does not have\n", name);
    return all;
}

Spawners& Spawners::on(std::string kind, Make make) {
    by_kind_[std::move(kind)] = std::move(make);
    return *this;
}
Spawners& Spawners::on_tagged(std::string tag, Make make) {
    by_tag_[std::move(tag)] = std::move(make);
    return *this;
}

const Spawners::Make* Spawners::maker(const Kind& kind, const std::vector<std::string>& tags) const {
    if (const auto found = by_kind_.find(kind.name); found != by_kind_.end()) return &found->second;
    for (const auto* list : {&tags, &kind.tags})
        for (const std::string& tag : *list)
            if (const auto found = by_tag_.find(tag); found != by_tag_.end()) return &found->second;
    return nullptr;
}

SpawnReport Spawners::spawn(const Play& play) const {
    SpawnReport report;
    const World& world = play.world();
    const Map& map = play.map();
    for (std::size_t o = 0; o < map.objects.size(); ++o) {
        const Object& object = map.objects[o];
        if (!play.is_there(id_of<ObjectId>(o))) continue;
        const Kind& kind = world.kind(object.kind);
        const Make* make = maker(kind, object.tags);
        if (make == nullptr) {
            // Kinds that every world has are places rather than things.
            const bool is_place = kind.name == name_of(kind.role);
            if ((object.role == Role::spawn || object.role == Role::entity) && !is_place) ++report.missing[kind.name];
            continue;
        }
        const Spawned spawned(world, object.kind, object.name, {to_px(object.position.x), to_px(object.position.y)},
                              object.storey, object.props, object.tags, id_of<ObjectId>(o), &object);
        ++((*make)(spawned) ? report.made : report.refused)[kind.name];
    }
    for (const auto& one : by_kind_)
        if (std::none_of(world.kinds().begin(), world.kinds().end(),
                         [&](const Kind& kind) { return kind.name == one.first; }))
            report.surplus.push_back(one.first);
    for (const auto& one : by_tag_) {
        const std::string& tag = one.first;
        const auto has = [&](const std::vector<std::string>& tags) {
            return std::find(tags.begin(), tags.end(), tag) != tags.end();
        };
        const bool of_kind =
            std::any_of(world.kinds().begin(), world.kinds().end(), [&](const Kind& kind) { return has(kind.tags); });
        const bool of_object = std::any_of(world.maps().begin(), world.maps().end(), [&](const Map& other) {
            return std::any_of(other.objects.begin(), other.objects.end(),
                               [&](const Object& object) { return has(object.tags); });
        });
        if (!of_kind && !of_object) report.surplus.push_back(tag);
    }
    return report;
}

bool Spawners::make(const Play& play, std::string_view kind_name, PointPx at, const Properties& props,
                    StoreyId storey) const {
    const World& world = play.world();
    const KindId id = world.find_kind(kind_name);
    if (id == KindId::none)
        throw std::out_of_range(fmt::format("dryground::Spawners::make: the world has no kind '{}'", kind_name));
    const Kind& kind = world.kind(id);
    Properties all;
    for (const auto& [name, field] : kind.fields)
        if (field.standard) all[name] = *field.standard;
    for (const auto& [name, value] : props) {
        if (kind.fields.count(name) == 0)
            throw std::out_of_range(
                fmt::format("dryground::Spawners::make: a {} has no property '{}'", kind_name, name));
        all[name] = value;
    }
    const std::vector<std::string> none;
    const Make* make = maker(kind, none);
    return make != nullptr && (*make)(Spawned(world, id, "", at, storey, all, none, ObjectId::none));
}

Events& Events::on(std::string event, Run run) {
    runs_[std::move(event)] = std::move(run);
    return *this;
}
bool Events::run(const World& world, const Firing& firing) const {
    if (firing.event == EventId::none) return true;
    const auto found = runs_.find(world.events().at(index(firing.event)).name);
    if (found == runs_.end()) return false;
    found->second(firing);
    return true;
}
bool Events::run(const World& world, EventId event) const {
    Firing firing;
    firing.event = event;
    return run(world, firing);
}
std::vector<std::string> Events::missing(const World& world) const {
    std::vector<std::string> names;
    for (const NamedThing& event : world.events())
        if (runs_.count(event.name) == 0) names.push_back(event.name);
    return names;
}
std::vector<std::string> Events::surplus(const World& world) const {
    std::vector<std::string> names;
    for (const auto& one : runs_)
        if (std::none_of(world.events().begin(), world.events().end(),
                         [&](const NamedThing& event) { return event.name == one.first; }))
            names.push_back(one.first);
    return names;
}

}   // namespace dryground
