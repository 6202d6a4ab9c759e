// Makes barriers, flags, storeys, movers, facts, events and kinds.
//
// Names are indexed first, so that things may refer to others declared later.

#include <fmt/format.h>

#include <algorithm>

#include "choose_internal.hpp"
#include "maker_internal.hpp"

namespace dryground {

void WorldMaker::make_vocabulary() {
    for (const BarrierDraft& draft : world_.barriers)
        if (declare(barriers_, draft.name))
            parts_.barriers.push_back({draft.name.value, draft.note, draft.colour, draft.name.place});
    for (const NoteDraft& draft : world_.flags) {
        if (parts_.flags.size() == 64) {
            add(Rule::out_of_range, draft.name.place,
                {"the number of flags", fmt::format("{}", world_.flags.size()), "at most 64"});
            break;
        }
        if (declare(flags_, draft.name)) parts_.flags.push_back({draft.name.value, draft.note, draft.name.place});
    }
    for (const NoteDraft& draft : world_.facts)
        if (declare(facts_, draft.name)) parts_.facts.push_back({draft.name.value, draft.note, draft.name.place});
    for (const NoteDraft& draft : world_.events)
        if (declare(events_, draft.name)) parts_.events.push_back({draft.name.value, draft.note, draft.name.place});
    make_storeys();
    make_movers();
    make_kinds();
    parts_.map_fields = make_fields(world_.map_fields);
    parts_.layer_fields = make_fields(world_.layer_fields);
    make_severities();
    make_limits();
    make_waivers(world_.waive, "");
    look_up(facts_, world_.goal_facts);
}

void WorldMaker::make_storeys() {
    const auto says_ground = [](const StoreyDraft& draft) { return draft.name.value == "ground"; };
    parts_.storeys.push_back(Storey{"ground"});   // exists always, and stands first
    for (const StoreyDraft& draft : world_.storeys)
        if (says_ground(draft)) parts_.storeys[0] = {"ground", draft.base_px, draft.height_px, draft.name.place};
    declare(storeys_, Name("ground"));
    for (const StoreyDraft& draft : world_.storeys)
        if (!says_ground(draft) && declare(storeys_, draft.name))
            parts_.storeys.push_back({draft.name.value, draft.base_px, draft.height_px, draft.name.place});
}

void WorldMaker::make_movers() {
    std::vector<const MoverDraft*> drafts;
    for (const MoverDraft& draft : world_.movers)
        if (declare(movers_, draft.name)) drafts.push_back(&draft);
    for (const MoverDraft* draft : drafts) parts_.movers.push_back(make_mover(*draft));
    for (const MoverId self : ids<MoverId>(parts_.movers))
        for (const MoverId other : std::vector<MoverId>(parts_.movers[index(self)].meets)) {   // it applies to both
            auto& theirs = parts_.movers[index(other)].meets;
            if (!std::binary_search(theirs.begin(), theirs.end(), self))
                theirs.insert(std::upper_bound(theirs.begin(), theirs.end(), self), self);
        }
    if (world_.player) parts_.player = look_up(movers_, *world_.player);
}

Mover WorldMaker::make_mover(const MoverDraft& draft) {
    const Within within(*this, fmt::format("mover '{}'", draft.name.value));
    Mover mover;
    mover.name = draft.name.value;
    mover.place = draft.name.place;
    mover.body = make_body(draft.body);
    mover.stopped_by = look_up(barriers_, draft.stopped_by);
    mover.meets = look_up(movers_, draft.meets);
    mover.needs = flag_set(draft.needs);
    mover.climbs = flag_set(draft.climbs);
    mover.moves = choose<Moves>(draft.moves, "'moves'");
    mover.jump_px = draft.jump_px;
    mover.leap_px = draft.leap_px;
    mover.drop_px = draft.drop_px;
    mover.kerb_px = draft.kerb_px;
    mover.slope_degrees = draft.slope_degrees;
    mover.picture = draft.picture;
    for (const FeelerDraft& feeler : draft.feelers) {
        Names barriers, movers;   // a name may be both
        for (const Name& name : feeler.senses) {
            const bool is_mover = movers_.find(name.value) != MoverId::none;
            if (is_mover) movers.push_back(name);
            if (!is_mover || barriers_.find(name.value) != BarrierId::none) barriers.push_back(name);
        }
        mover.feelers.push_back(
            {feeler.name.value, make_body(feeler.body), look_up(barriers_, barriers), look_up(movers_, movers)});
    }
    return mover;
}

Regions WorldMaker::make_body(const BodyDraft& body) {
    if (const auto* area = std::get_if<Regions>(&body.form)) {
        if (area->size() == 1 && area->front().holes.empty() &&
            twice_area(area->front().outline) == twice_area(convex_hull(area->front().outline)))
            return *area;
        add(Rule::out_of_range, body.place, {"the body", "an area that is not convex", "one convex area"});
        return {};
    }
    double width = 0, height = 0;
    if (const auto* box = std::get_if<BoxPx>(&body.form))
        width = box->width, height = box->height;
    else if (const auto* round = std::get_if<EllipsePx>(&body.form))
        width = 2 * round->radius_x, height = 2 * round->radius_y;
    else
        width = std::get<CapsulePx>(body.form).width, height = std::get<CapsulePx>(body.form).height;
    constexpr double most = 65536;
    if (!(width >= 1.0 / 64 && height >= 1.0 / 64 && width <= most && height <= most && std::abs(body.x) <= most &&
          std::abs(body.y) <= most)) {
        add(Rule::out_of_range, body.place,
            {"the body", fmt::format("{} x {} px at [{}, {}]", width, height, body.x, body.y),
             "from 1/64 to 65536 px wide and high, and as near"});
        return {};
    }
    const Point least{to_steps(body.x - width / 2), to_steps(body.y - height / 2)};
    const Point most_point{to_steps(body.x + width / 2), to_steps(body.y + height / 2)};
    if (std::holds_alternative<BoxPx>(body.form)) return {box_region(least, most_point)};
    return {
        {capsule_ring(least, most_point, parts_.merging.within_px), {}}};   // a circle is a capsule without a middle
}

void WorldMaker::make_kinds() {
    std::vector<std::size_t> first_of_name;
    for (std::size_t i = 0; i < world_.kinds.size(); ++i)
        if (declare(kinds_, world_.kinds[i].name)) first_of_name.push_back(i);
    parts_.kinds.resize(first_of_name.size());
    behaviours_.resize(first_of_name.size());
    kind_states_.assign(world_.kinds.size(), 0);
    for (const std::size_t i : first_of_name) resolve_kind(i);
    add_standard_kinds();
}

void WorldMaker::resolve_kind(std::size_t number) {
    const KindDraft& draft = world_.kinds[number];
    const KindId id = kinds_.find(draft.name.value);
    if (kind_states_[number] != 0) return;
    kind_states_[number] = 1;
    Kind kind;
    if (draft.like) {
        const auto base = std::find_if(world_.kinds.begin(), world_.kinds.end(),
                                       [&](const KindDraft& k) { return k.name.value == draft.like->value; });
        if (base == world_.kinds.end()) {
            look_up(kinds_, *draft.like);
        } else if (const auto at = static_cast<std::size_t>(base - world_.kinds.begin()); kind_states_[at] == 1) {
            add(Rule::like_chain, draft.like->place, {draft.name.value, draft.like->value, draft.name.value},
                Hint{"a kind cannot be like itself, not by a round about way either", ""});
        } else {
            resolve_kind(at);
            const auto base_id = static_cast<std::size_t>(kinds_.find(base->name.value));
            kind = parts_.kinds[base_id];
            behaviours_[static_cast<std::size_t>(id)] = behaviours_[base_id];
        }
    }
    const Within within(*this, fmt::format("kind '{}'", draft.name.value));
    kind.name = draft.name.value;
    kind.note = draft.note;
    kind.place = draft.name.place;
    if (draft.role)
        kind.role = choose<Role>(*draft.role, "'role'");
    else if (!draft.like)
        add(Rule::missing_key, draft.name.place, {fmt::format("kind '{}'", draft.name.value), "role"},
            Hint{"set its role in the game", "role = \"entity\", or spawn, trigger, link, solid"});
    if (draft.mover) kind.mover = look_up(movers_, *draft.mover);
    if (draft.mover) kind.motion = Motion::moving;
    if (draft.motion) kind.motion = choose<Motion>(*draft.motion, "'motion'");
    if (draft.stands) kind.stands = choose<Stands>(*draft.stands, "'stands'");
    if (draft.tags) kind.tags = *draft.tags;
    if (draft.picture) kind.picture = draft.picture;
    if (draft.area) {
        const Curves curves(*this, draft.area->within_px);
        Drawn drawn = draw(draft.area->form, 0, 0, draft.area->place);
        if (drawn.fault == ShapeFault::empty)
            add(Rule::shape_empty, draft.area->place, {"the area", drawn.fault_words});
        if (drawn.fault == ShapeFault::crosses_itself)
            add(Rule::shape_crosses_itself, draft.area->place,
                {"the area", fmt::format("{}", to_px(drawn.fault_at.x)), fmt::format("{}", to_px(drawn.fault_at.y))});
        if (!drawn.line.empty())
            add(Rule::out_of_range, draft.area->place, {"the area", drawn.words, "a shape with an area"});
        kind.area = std::move(drawn.area);
    }
    for (auto& [name, field] : make_fields(draft.fields)) kind.fields[name] = field;
    give_defaults(draft, kind.fields);
    if (draft.path) kind.path = draft.path->value;
    if (draft.path) check_path(*draft.path, kind);
    if (draft.path && kind.role == Role::solid && kind.motion == Motion::fixed)
        add(Rule::unknown_key, draft.path->place, {"path", "a solid that stands still"},
            Hint{"say that it moves", "motion = \"driven\""});
    make_behaviour(draft, behaviours_[static_cast<std::size_t>(id)]);
    parts_.kinds[index(id)] = std::move(kind);
    kind_states_[number] = 2;
}

// Checks that the property along which a kind's objects move holds places.
void WorldMaker::check_path(const Name& path, const Kind& kind) {
    NameIndex index{"property", {}, {}, {}};
    for (const auto& [name, field] : kind.fields) {
        index.ids.emplace(name, static_cast<int>(index.names.size()));
        index.names.push_back(name);
    }
    if (look_up(index, path) < 0) return;
    const Field& field = kind.fields.at(path.value);
    if (field.type == FieldType::list && field.holds == FieldType::place) return;
    add(Rule::out_of_range, path.place,
        {"'path'", fmt::format("'{}', a {}", path.value, name_of(field.type)), "a property that is a list of places"},
        Hint{"declare it", fmt::format("props.{} = {{ type = \"list\", of = \"place\", default = [] }}", path.value)});
}

// Sets new defaults that a kind gives to properties of the kind it is like.
void WorldMaker::give_defaults(const KindDraft& draft, Fields& fields) {
    std::vector<std::string> names;
    for (const auto& [name, field] : fields) names.push_back(name);
    for (const auto& [name, said] : draft.props) {
        const auto found = fields.find(name);
        std::string why;
        if (found == fields.end()) {
            const auto nearest = nearest_name(name, names);
            add(Rule::kind_field, said.place,
                {name, fmt::format(" of kind '{}'", draft.name.value), "it is not declared"},
                nearest ? Hint{"did you mean", *nearest}
                        : Hint{"declare it", fmt::format("props.{} = {{ type = \"…\" }}", name)});
        } else if (auto fitting = fit(found->second, found->second.type, said, why)) {
            found->second.standard = std::move(fitting);
        } else {
            add(Rule::kind_field, said.place, {name, fmt::format(" of kind '{}'", draft.name.value), why});
        }
    }
}

void WorldMaker::make_behaviour(const KindDraft& draft, Behaviour& into) {
    const auto ids = [&]<IsId Id>(const IdIndex<Id>& index, const std::optional<Names>& said,
                                  std::optional<std::vector<Id>>& to) {
        if (said) to = look_up(index, *said);
    };
    const auto id = [&]<IsId Id>(const IdIndex<Id>& index, const std::optional<Name>& said, std::optional<Id>& to) {
        if (said) to = look_up(index, *said);
    };
    if (draft.fires) into.fires = make_fires(*draft.fires);
    id(barriers_, draft.barrier, into.barrier);
    id(events_, draft.runs, into.runs);
    id(events_, draft.arrival_runs, into.arrival_runs);
    ids(movers_, draft.by, into.by);
    ids(facts_, draft.gives, into.gives);
    ids(facts_, draft.needs, into.needs);
    ids(facts_, draft.when, into.when);
    ids(facts_, draft.unless, into.unless);
    if (draft.surface) into.surface = draft.surface;
    if (draft.once) into.once = draft.once;
    if (draft.every_s) into.every_s = draft.every_s;
}

void WorldMaker::add_standard_kinds() {
    for (const Role role : {Role::spawn, Role::trigger, Role::link, Role::solid, Role::entity}) {
        const std::string name(name_of(role));
        if (kinds_.find(name) != KindId::none) continue;
        declare(kinds_, Name(name));
        Kind kind;
        kind.name = name;
        kind.role = role;
        if (role == Role::spawn) {
            kind.mover = parts_.player;
            kind.motion = Motion::moving;
        }
        parts_.kinds.push_back(std::move(kind));
    }
    behaviours_.resize(parts_.kinds.size());
}

void WorldMaker::make_limits() {
    const std::span<const std::string_view> names = limit_names();
    NameIndex index{"limit", {names.begin(), names.end()}, {}, {}};
    for (std::size_t i = 0; i < names.size(); ++i) index.ids.emplace(names[i], static_cast<int>(i));
    for (const auto& [name, most] : world_.limits) {
        if (look_up(index, name) < 0) continue;
        if (most.value < 0)
            add(Rule::out_of_range, most.place,
                {fmt::format("limit '{}'", name.value), fmt::format("{}", most.value), "0 or more"});
        parts_.limits[name.value] = most.value;
        parts_.places_of_limits[name.value] = most.place;
    }
}

void WorldMaker::make_waivers(const Waivers& drafts, const std::string& about, const std::string& layer,
                              const std::string& object) {
    for (const WaiverDraft& draft : drafts) {
        const RuleText* rule = find_rule(draft.rule.value);
        if (rule == nullptr) {
            NameIndex index{"rule", {}, {}, {}};
            for (const RuleText& one : all_rules()) index.names.emplace_back(one.name);
            add_unknown(index, draft.rule);
            continue;
        }
        if (draft.why.empty())
            add(Rule::missing_key, draft.place, {"a waiver", "why"}, Hint{"give the reason", "why = \"…\""});
        if (rule->rule <= Rule::like_chain)
            add(Rule::out_of_range, draft.rule.place,
                {"a waiver", fmt::format("of '{}'", rule->name), "of a check: what cannot be read cannot be meant so"});
        parts_.waivers.push_back({rule->rule, draft.why, about, map_name_, layer, object, draft.cells, draft.place});
    }
}

void WorldMaker::make_severities() {
    std::vector<std::string> names;
    for (const RuleText& rule : all_rules()) names.emplace_back(rule.name);
    for (const auto& [rule_name, severity_name] : world_.severities) {
        const RuleText* rule = find_rule(rule_name.value);
        if (rule == nullptr) {
            const auto nearest = nearest_name(rule_name.value, names);
            add(Rule::unknown_name, rule_name.place, {"rule", rule_name.value},
                nearest ? std::optional(Hint{"did you mean", *nearest}) : std::nullopt);
            continue;
        }
        const Severity severity = choose<Severity>(severity_name, fmt::format("the severity of '{}'", rule_name.value));
        parts_.severities[rule->rule] = severity;
    }
}

}   // namespace dryground
