// Idea. The finding of an unknown name or key knows its place and the nearest one; the text there is replaced when the
// file is read again. Cost: that of reading the world once more.

#include "as_meant.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <tuple>

namespace app {

namespace dg = dryground;

namespace {

struct Correction {
    int line, column;   // in characters, from 1
    std::string written, meant;
};

std::optional<Correction> correction_of(const dg::Finding& finding) {
    // The arguments of these rules: what sort of thing, and its name; the key, and what it is no key of.
    const bool is_name = finding.rule == dg::Rule::unknown_name, is_key = finding.rule == dg::Rule::unknown_key;
    if (!(is_name || is_key) || !finding.hint || finding.hint->text != "did you mean" || finding.hint->set.empty() ||
        finding.arguments.size() < 2 || finding.place.line < 1)
        return std::nullopt;
    return Correction{finding.place.line, finding.place.column, finding.arguments[is_name ? 1 : 0], finding.hint->set};
}

// Returns the byte at which a character of a line begins; the text's size beyond its end.
std::size_t byte_at(const std::string& text, int line, int column) {
    std::size_t at = 0;
    for (; line > 1 && at < text.size(); --line) {
        const std::size_t end = text.find('\n', at);
        at = end == std::string::npos ? text.size() : end + 1;
    }
    const auto goes_on = [&] { return at < text.size() && (static_cast<unsigned char>(text[at]) & 0xc0u) == 0x80u; };
    for (; column > 1 && at < text.size() && text[at] != '\n'; --column) {
        ++at;
        while (goes_on()) ++at;
    }
    return at;
}

std::string corrected(std::string text, std::vector<Correction> corrections) {
    std::sort(corrections.begin(), corrections.end(), [](const Correction& a, const Correction& b) {
        return std::tie(a.line, a.column) > std::tie(b.line, b.column);   // from the end on: places before stay
    });
    for (const Correction& one : corrections) {
        const std::size_t from = byte_at(text, one.line, one.column), at = text.find(one.written, from);
        if (at < std::min(text.find('\n', from), text.size())) text.replace(at, one.written.size(), one.meant);
    }
    return text;
}

}   // namespace

std::optional<dg::FileReader> as_meant(const dg::Report& report, const std::string& world_file,
                                       const dg::FileReader& reader) {
    std::map<std::string, std::vector<Correction>> by_file;
    for (const dg::Finding& finding : report.findings())
        if (auto one = correction_of(finding)) by_file[finding.place.file].push_back(std::move(*one));
    if (by_file.empty()) return std::nullopt;
    const std::filesystem::path folder = std::filesystem::path(world_file).parent_path().lexically_normal();
    return [by_file = std::move(by_file), folder, reader](const std::string& path) {
        dg::Result<std::string> file = reader(path);
        const std::filesystem::path normal = std::filesystem::path(path).lexically_normal();
        const auto found = by_file.find((folder.empty() ? normal : normal.lexically_relative(folder)).generic_string());
        return file && found != by_file.end() ? dg::Result<std::string>(corrected(*file, found->second)) : file;
    };
}

dg::Report told_as_meant(const dg::Report& report) {
    dg::Report told;
    for (dg::Finding finding : report.findings()) {
        if (const auto one = correction_of(finding))
            finding.details.push_back(fmt::format("the other rules are run as if it were '{}'", one->meant));
        else if (finding.severity == dg::Severity::error)
            continue;
        told.add(std::move(finding));
    }
    told.add_waived(report.counts().waived);
    return told;
}

}   // namespace app
