// A pack's tree to drafts, and those to a world.

#include <fmt/format.h>

#include <filesystem>

#include "pack_internal.hpp"

namespace dryground {

namespace files {

namespace {

std::vector<NoteDraft> read_notes(const Node& list) {
    std::vector<NoteDraft> result;
    for (const Node& item : list.items()) result.push_back({item.at("name").name(), item.at("note").text()});
    return result;
}

BodyDraft read_body(const Node& node) {
    BodyDraft body;
    body.form = node.area();
    body.place = node.where();
    return body;
}

MoverDraft read_mover(const Node& node) {
    MoverDraft mover;
    mover.name = node.at("name").name();
    mover.body = read_body(node.at("body"));
    mover.stopped_by = node.at("stopped_by").names();
    mover.meets = node.at("meets").names();
    mover.needs = node.at("needs").names();
    mover.climbs = node.at("climbs").names();
    mover.moves = node.at("moves").name();
    mover.jump_px = node.at("jump_px").number_or_none();
    mover.leap_px = node.at("leap_px").number_or_none();
    mover.drop_px = node.at("drop_px").number_or_none();
    mover.kerb_px = node.at("kerb_px").number_or_none();
    mover.slope_degrees = node.at("slope_degrees").number_or_none();
    for (const Node& feeler : node.at("feelers").items())
        mover.feelers.push_back({feeler.at("name").name(), read_body(feeler.at("area")), feeler.at("senses").names()});
    mover.picture = read_packed_picture(node.at("picture"));
    return mover;
}

KindDraft read_kind(const Node& node) {
    KindDraft kind;
    kind.name = node.at("name").name();
    kind.role = node.at("role").name();
    kind.mover = node.at("mover").name_or_none();
    kind.motion = node.at("motion").name();
    kind.path = node.at("path").name_or_none();
    kind.tags = node.at("tags").texts();
    kind.stands = node.at("stands").name();
    if (Regions area = node.at("area").area(); !area.empty()) {
        kind.area.emplace();
        kind.area->form = std::move(area);
    }
    kind.picture = read_packed_picture(node.at("picture"));
    kind.fields = read_packed_fields(node.at("fields"));
    return kind;
}

void read_settings(const Node& root, WorldDraft& draft) {
    for (const auto& [name, most] : root.at("limits").entries())
        draft.limits.emplace_back(Name(name, most.where()),
                                  Located<std::int64_t>(most.whole(INT64_MIN, INT64_MAX), most.where()));
    const Node merging = root.at("merging");
    draft.merging.within_px = merging.at("within_px").number();
    draft.merging.most_vertices = merging.at("most_vertices").integer();
    draft.merging.chunk_cells = merging.at("chunk_cells").integer();
    draft.merging.least_edge_px = merging.at("least_edge_px").number();
    draft.merging.forms.clear();
    for (const Node& form : merging.at("forms").items()) {
        draft.merging.forms.push_back(form.text());
        const auto known = form_names();
        if (std::find(known.begin(), known.end(), draft.merging.forms.back()) == known.end())
            form.wrong("a form of merged geometry");
    }
    for (const auto& [rule, severity] : root.at("check").entries())
        draft.severities.emplace_back(Name(rule, severity.where()), severity.name());
}

}   // namespace

std::vector<FieldDraft> read_packed_fields(const Node& node) {
    std::vector<FieldDraft> fields;
    for (const auto& [name, inner] : node.entries()) {
        FieldDraft field;
        field.name = Name(name, inner.where());
        for (const auto& [key, value] : inner.entries()) {
            if (key == "type") field.type = value.name();
            if (key == "min") field.least = value.number();
            if (key == "max") field.most = value.number();
            if (key == "of") field.of = value.names();
            if (key == "note") field.note = value.text();
            if (key == "optional") field.optional = value.yes_no();
        }
        const SaidProperties values = inner.properties();
        if (const auto found = values.find("default"); found != values.end()) field.standard = found->second;
        fields.push_back(std::move(field));
    }
    return fields;
}

std::optional<Colour> read_packed_colour(const Node& node) {
    if (node.is_null()) return std::nullopt;
    const auto colour = colour_from(node.text());
    if (!colour) node.wrong("a colour like #7a5c3a");
    return colour;
}

std::optional<Surface> read_packed_surface(const Node& node) {
    if (node.is_null()) return std::nullopt;
    Surface surface;
    for (const auto& [key, value] : node.entries()) {
        if (key == "friction") surface.friction = value.number();
        if (key == "restitution") surface.restitution = value.number();
    }
    return surface;
}

std::optional<Picture> read_packed_picture(const Node& node) {
    if (node.is_null()) return std::nullopt;
    Picture picture;
    picture.file = node.at("file").text();
    picture.x = node.at("at").place()[0], picture.y = node.at("at").place()[1];
    picture.width = node.at("size").pair()[0], picture.height = node.at("size").pair()[1];
    return picture;
}

WorldDraft read_packed_world(const Node& root) {
    WorldDraft draft;
    draft.title = root.at("world").text();
    draft.per_metre = root.at("per_metre").number();
    draft.player = root.at("player").name_or_none();
    draft.start = root.at("start").name_or_none();
    draft.goal_objects = root.at("goals").at("objects").names();
    draft.goal_facts = root.at("goals").at("facts").names();
    for (const Node& barrier : root.at("barriers").items())
        draft.barriers.push_back(
            {barrier.at("name").name(), barrier.at("note").text(), read_packed_colour(barrier.at("colour"))});
    draft.flags = read_notes(root.at("flags"));
    for (const Node& storey : root.at("storeys").items())
        draft.storeys.push_back(
            {storey.at("name").name(), storey.at("base_px").number(), storey.at("height_px").number()});
    for (const Node& mover : root.at("movers").items()) draft.movers.push_back(read_mover(mover));
    draft.facts = read_notes(root.at("facts"));
    draft.events = read_notes(root.at("events"));
    draft.map_fields = read_packed_fields(root.at("map_fields"));
    draft.layer_fields = read_packed_fields(root.at("layer_fields"));
    for (const Node& kind : root.at("kinds").items()) draft.kinds.push_back(read_kind(kind));
    read_settings(root, draft);
    return draft;
}

namespace {

Finding refused(Rule rule, const std::string& file, std::vector<std::string> arguments) {
    Finding finding;
    finding.rule = rule;
    finding.place.file = file;
    finding.arguments = std::move(arguments);
    return finding;
}

}   // namespace

}   // namespace files

Result<Pack> read_pack(std::string_view bytes, const std::string& file) {
    using namespace files;
    Report report;
    const Result<Json> tree = parse_pack(bytes);
    if (!tree) {
        report.add(refused(Rule::syntax, file, {tree.fault()}));
        return Failure{{}, std::move(report)};
    }
    const auto format = tree->find("format");
    if (format == tree->end() || *format != "dryground/pack/1") {
        const bool said = format != tree->end() && format->is_string();
        report.add(
            refused(Rule::format_version, file, {said ? format->get<std::string>() : "nothing", "dryground/pack/1"}));
        return Failure{{}, std::move(report)};
    }
    const Node root(&*tree, "", report);
    WorldBuilder builder;
    builder.world(read_packed_world(root));
    for (const Node& set : root.at("tilesets").items()) builder.tileset(read_packed_tileset(set));
    for (const Node& map : root.at("maps").items()) builder.map(read_packed_map(map));
    std::string hash = root.at("hash").text();
    for (Finding finding : report.findings()) builder.note(std::move(finding));
    const Result<World> built = builder.build();
    if (!built) return built.failure();
    return {Pack(*built, std::move(hash)), built.report()};
}

Result<Pack> load_pack(const std::string& path, const FileReader& reader) {
    const Result<std::string> file = reader(path);
    const std::string name = std::filesystem::path(path).filename().generic_string();
    if (file) return read_pack(*file, name);
    Report report;
    report.add(files::refused(Rule::file_missing, name, {path, file.fault()}));
    return Failure{{}, std::move(report)};
}

}   // namespace dryground
