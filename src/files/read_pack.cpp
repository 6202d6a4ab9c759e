// A pack's bytes to a world.

#include <fmt/format.h>

#include <filesystem>

#include "pack_internal.hpp"

namespace dryground {

namespace files {

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
    read_packed(root, builder);
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
