// Writes a world built in code as files with the same content.

#include <fmt/format.h>

#include <filesystem>

#include "../model/utf8_internal.hpp"
#include "writing_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace {

// Reports what code can express and files cannot.
void report_wordless(const WorldDraft& world, Report& report) {
    const auto wordless = [&](const std::string& what, const char* should_be) {
        Finding finding;
        finding.rule = Rule::out_of_range;
        finding.place.thing = what;
        finding.arguments = {what, "an area of its own making", should_be};
        report.add(std::move(finding));
    };
    const auto is_area = [](const auto& form) { return std::holds_alternative<Regions>(form); };
    for (const MoverDraft& mover : world.movers) {
        bool plain = !is_area(mover.body.form);
        for (const FeelerDraft& feeler : mover.feelers) plain = plain && !is_area(feeler.body.form);
        if (!plain)
            wordless(fmt::format("the body of mover '{}'", mover.name.value),
                     "a box, circle or capsule: files have no other words");
    }
    for (const KindDraft& kind : world.kinds)
        if (kind.area && is_area(kind.area->form) && files::shapes_toml(*kind.area).size() != 1)
            wordless(fmt::format("the area of kind '{}'", kind.name.value), "one polygon: files have no other words");
}

void report_bad_text(const std::vector<NamedBytes>& files, Report& report) {
    for (const NamedBytes& file : files) {
        if (fs::path(file.file).extension() == ".png") continue;
        const std::size_t bad = utf8::first_bad_byte(file.bytes);
        if (bad == std::string_view::npos) continue;
        Finding finding;
        finding.rule = Rule::bad_text;
        finding.place.file = file.file;
        finding.arguments = {fmt::format("byte 0x{:02X}", static_cast<unsigned char>(file.bytes[bad]))};
        report.add(std::move(finding));
    }
}

}   // namespace

Result<std::vector<NamedBytes>> world_files(const WorldBuilder& builder, const std::string& world_name) {
    Report report = builder.build().report();
    report_wordless(builder.world_draft(), report);
    if (report.has(Severity::error)) return Failure{{}, std::move(report)};
    std::vector<NamedBytes> made;
    std::vector<std::string> tilesets, maps;
    for (const TileSetDraft& set : builder.tileset_drafts()) {
        tilesets.push_back(fmt::format("tiles/{}.tiles.toml", set.name.value));
        made.push_back({tilesets.back(), files::tileset_toml(set, "tiles")});
    }
    for (const MapDraft& map : builder.map_drafts()) {
        const std::string name = fmt::format("{}.map.toml", map.name.value);
        maps.push_back("maps/" + name);
        for (NamedBytes& file : files::map_files(map, "maps/", name)) made.push_back(std::move(file));
    }
    made.push_back({world_name, files::world_toml(builder.world_draft(), tilesets, maps)});
    report_bad_text(made, report);
    if (report.has(Severity::error)) return Failure{{}, std::move(report)};
    return {std::move(made), std::move(report)};
}

Result<std::vector<std::string>> save_world(const WorldBuilder& builder, const std::string& world_name) {
    const fs::path world_file = world_name;
    Result<std::vector<NamedBytes>> files = world_files(builder, world_file.filename().generic_string());
    if (!files) return files.failure();
    std::vector<std::string> names;
    for (NamedBytes& file : *files) {
        file.file = (world_file.parent_path() / file.file).generic_string();
        names.push_back(file.file);
    }
    if (const Result<void> written = write_files(*files); !written) return written.failure();
    return {std::move(names), files.report()};
}

}   // namespace dryground
