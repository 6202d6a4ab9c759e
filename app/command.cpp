// What the commands of the command line share: see command.hpp.

#include "command.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cerrno>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <map>

#include "dryground/text.hpp"
#include "progress.hpp"

namespace app {

namespace dg = dryground;

void say(std::string_view text) { say_bytes(dg::visible(text)); }
void say_bytes(std::string_view bytes) { std::fwrite(bytes.data(), 1, bytes.size(), stderr); }

void print(std::string_view text) { print_bytes(dg::visible(text)); }
void print_bytes(std::string_view bytes) {
    const bool good = std::fwrite(bytes.data(), 1, bytes.size(), stdout) == bytes.size() && std::fflush(stdout) == 0;
    if (!good) stop(misuse, fmt::format("cannot write to standard output: {}", std::strerror(errno)));
}

void stop(Exit code, std::string_view why) {
    say(fmt::format("dryground: {}\n", why));
    throw Stop{code};
}

void write_result(const std::string& out, std::string_view bytes) {
    if (out.empty()) {
        print_bytes(bytes);
        return;
    }
    if (const auto written = dg::write_file(out, bytes); !written)
        stop(misuse, fmt::format("cannot write '{}': {}", out, written.fault()));
}

dg::Report all_findings(const Opened& opened) {
    dg::Report report = opened.warnings;
    report.add(dg::check(opened.world,
                         {.pictures = dg::pictures_of(opened.folder / "world"), .progress = progress_of("checking")}));
    return report;
}

std::string coloured(const dg::Report& report) {
    if (::isatty(STDOUT_FILENO) == 0 || std::getenv("NO_COLOR") != nullptr) return dg::text(report);
    std::string all = dg::text(report);
    for (const auto& [word, code] :
         {std::pair{": error: ", "31"}, std::pair{": warning: ", "35"}, std::pair{": note: ", "36"}})
        for (std::size_t at = all.find(word); at != std::string::npos; at = all.find(word, at + 1)) {
            const std::string painted = fmt::format(": \033[1;{}m{}\033[0m", code, std::string_view(word).substr(2));
            all.replace(at, std::string_view(word).size(), painted);
            at += painted.size();
        }
    return all;
}

void WorldArguments::add_to(CLI::App& command, bool with_maps) {
    command.add_option("FILE", file, "A world, a map or a tile set")->required()->type_name("");
    if (with_maps) command.add_option("--map", maps, "Only these maps (default: all)")->type_name("NAME");
}

dg::Result<dg::FoundWorld> WorldArguments::find() const {
    dg::Result<dg::FoundWorld> found = dg::find_world(file);
    if (!found.fault().empty()) stop(misuse, fmt::format("cannot open '{}': {}", file, found.fault()));
    return found;
}

dg::FoundWorld WorldArguments::find_or_stop(std::string_view not_done) const {
    dg::Result<dg::FoundWorld> found = find();
    if (found) return *std::move(found);
    say(dg::text(found.report()));
    stop(findings, fmt::format("'{}' cannot be read; {}", file, not_done));
}

std::vector<double> numbers_in(const std::string& text, const std::string& what) {
    std::vector<double> numbers;
    for (std::size_t begin = 0; begin <= text.size();) {
        const std::size_t end = std::min(text.find(',', begin), text.size());
        double number = 0;
        const auto [last, error] = std::from_chars(text.data() + begin, text.data() + end, number);
        if (error != std::errc() || last != text.data() + end || !std::isfinite(number))
            stop(misuse, fmt::format("'{}' is not {}", text, what));
        numbers.push_back(number);
        begin = end + 1;
    }
    return numbers;
}

std::vector<int> wholes_in(const std::string& text, std::size_t count, const std::string& what) {
    const std::vector<double> numbers = numbers_in(text, what);
    std::vector<int> result;
    for (const double number : numbers)
        if (std::abs(number) <= 1e9 && number == std::floor(number)) result.push_back(static_cast<int>(number));
    if (result.size() != count || numbers.size() != count) stop(misuse, fmt::format("'{}' is not {}", text, what));
    return result;
}

std::filesystem::path path_for(const std::filesystem::path& out, const std::string& map, bool several) {
    if (!several) return out;
    std::filesystem::path path = out;
    return path.replace_filename(fmt::format("{}-{}{}", out.stem().string(), map, out.extension().string()));
}

void add_format(CLI::App& command, std::string& format, const std::string& out, std::vector<std::string> formats,
                const std::string& help) {
    command.add_option("--format", format, fmt::format("{} (default: as --out ends, else {})", help, formats.front()))
        ->check(one_of(formats))
        ->type_name("FORMAT");
    command.parse_complete_callback([&format, &out, formats] {
        if (!format.empty()) return;
        std::string ending = std::filesystem::path(out).extension().string();
        if (!ending.empty()) ending.erase(0, 1);
        std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
        format = std::find(formats.begin(), formats.end(), ending) != formats.end() ? ending : formats.front();
    });
}

CLI::Validator one_of(const std::vector<std::string>& words) {
    return CLI::Validator(
        [words](std::string& text) {
            if (std::find(words.begin(), words.end(), text) != words.end()) return std::string();
            const auto nearest = dg::nearest_name(text, words);
            return nearest ? fmt::format("'{}' is unknown, did you mean '{}'? There are {}", text, *nearest,
                                         fmt::join(words, ", "))
                           : fmt::format("'{}' is unknown; there are {}", text, fmt::join(words, ", "));
        },
        fmt::format("{{{}}}", fmt::join(words, ",")));
}

CLI::Validator numbers_from(double least, double most) {
    return CLI::Validator(
        [least, most](std::string& text) {
            double number = 0;
            const bool is_number = CLI::detail::lexical_cast(text, number) && std::isfinite(number);
            return is_number && number >= least && number <= most
                       ? std::string()
                       : fmt::format("'{}' is not a number from {} to {}", text, least, most);
        },
        fmt::format("FLOAT in [{} - {}]", least, most));
}

void stop_without_map(const std::string& name, const std::vector<std::string>& names) {
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse, fmt::format("the world has no map '{}'{}", name,
                             nearest ? fmt::format("; did you mean '{}'?", *nearest)
                                     : fmt::format("; it has {}", fmt::join(names, ", "))));
}

std::vector<std::string> WorldArguments::pick_maps(const dg::World& world, const std::string& map_of_file) const {
    std::vector<std::string> names, picked = maps;
    for (const dg::Map& map : world.maps()) names.push_back(map.name);
    if (picked.empty() && !map_of_file.empty()) picked = {map_of_file};
    if (picked.empty()) return names;
    for (const std::string& name : picked)
        if (world.find_map(name) == dg::MapId::none) stop_without_map(name, names);
    return picked;
}

Opened WorldArguments::open(double within_px) const {
    const dg::Result<dg::FoundWorld> found = find();
    const auto refuse = [&](const dg::Report& report) {
        say(dg::text(report));
        stop(findings, fmt::format("'{}' cannot be read; nothing was made", file));
    };
    if (!found) refuse(found.report());
    dg::Result<dg::WorldDrafts> drafts = dg::load_drafts(found->world, counting(found->reader));
    if (!drafts) refuse(drafts.report());
    if (within_px > 0) {
        dg::WorldDraft draft = drafts->builder.world_draft();
        draft.merging.within_px = within_px;
        drafts->builder.world(std::move(draft));
    }
    const dg::Result<dg::World> loaded = drafts->builder.build();
    if (!loaded) refuse(loaded.report());
    for (const dg::Finding& finding : found.report().findings()) say(dg::text(finding));
    return {*loaded,
            loaded.report(),
            std::filesystem::path(found->world).parent_path(),
            drafts->files,
            pick_maps(*loaded, found->map),
            found->tileset};
}

namespace {

// Returns rows of words in columns: the first aligned left, numbers right.
std::string in_columns(const std::vector<std::vector<std::string>>& rows) {
    std::vector<std::size_t> widths;
    for (const auto& row : rows)
        for (std::size_t c = 0; c < row.size(); ++c) {
            if (c == widths.size()) widths.push_back(0);
            widths[c] = std::max(widths[c], row[c].size());
        }
    std::string text;
    for (const auto& row : rows) {
        for (std::size_t c = 0; c < row.size(); ++c)
            text += c == 0 ? fmt::format("{:<{}}", row[c], widths[c]) : fmt::format("  {:>{}}", row[c], widths[c]);
        text += "\n";
    }
    return text;
}

}   // namespace

void say_figures(const dg::World& world, const std::vector<dg::Merge>& merges) {
    if (merges.empty()) return say("the world has no maps\n");
    constexpr std::size_t most_rows = 40;   // of more maps only the sum
    std::vector<std::vector<std::string>> rows{
        {"map", "layers", "tiles", "objects", "shapes in", "regions", "vertices", "pieces out"}};
    std::size_t left_out = 0;
    std::string kinds;
    std::array<std::size_t, 7> sums{};
    std::map<std::string, int> of_all;
    const auto counts_of = [](const std::map<std::string, int>& by_kind) {
        std::vector<std::string> words;
        for (const auto& [kind, count] : by_kind) words.push_back(fmt::format("{} {}", count, kind));
        return fmt::format("{}", fmt::join(words, ", "));
    };
    for (const dg::Merge& merge : merges) {
        std::size_t regions = 0, vertices = 0, pieces = 0;
        for (const dg::Group& group : merge.groups) {
            regions += group.regions.size();
            pieces += group.pieces.size();
            for (const dg::Region& region : group.regions) {
                vertices += region.outline.size();
                for (const dg::Ring& hole : region.holes) vertices += hole.size();
            }
        }
        const std::array figures{merge.stats.layers,
                                 merge.stats.tiles,
                                 merge.stats.objects,
                                 merge.stats.shapes_in,
                                 regions,
                                 vertices,
                                 pieces};
        std::vector<std::string>& row = rows.emplace_back(std::vector{merge.map});
        for (std::size_t i = 0; i < figures.size(); ++i) {
            row.push_back(fmt::format("{}", figures[i]));
            sums[i] += figures[i];
        }
        left_out += merge.stats.shapes_left_out;
        std::map<std::string, int> by_kind;
        for (const dg::Object& object : world.map(merge.map).objects)
            ++by_kind[world.kind(object.kind).name], ++of_all[world.kind(object.kind).name];
        if (!by_kind.empty()) kinds += fmt::format("objects of {}: {}\n", merge.map, counts_of(by_kind));
    }
    if (merges.size() > most_rows) {
        rows = {rows.front(), {fmt::format("all {}", merges.size())}};
        for (const std::size_t sum : sums) rows.back().push_back(fmt::format("{}", sum));
        kinds = of_all.empty() ? "" : fmt::format("objects: {}\n", counts_of(of_all));
    }
    say(in_columns(rows) + kinds);
    if (left_out > 0)
        say(fmt::format("{} shapes have an error and were left out: `dryground check` lists them\n", left_out));
}

}   // namespace app
