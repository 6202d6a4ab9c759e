#include <stdexcept>

#include "mistake_rows.hpp"

namespace mistakes {

namespace {

Mistake made(const Files& demo, const Row& row) {
    const std::string& text = demo.at(row.file);
    const std::size_t at = text.find(row.from);
    if (at == std::string::npos) throw std::runtime_error(fmt::format("'{}' is not in {}", row.from, row.file));
    Mistake mistake{row.sort,
                    fmt::format("{}: {} -> {}", row.file, row.from, row.to),
                    replaced(demo, row.file, at, row.from.size(), row.to),
                    row.rules,
                    {}};
    const auto lines_with = [&](const std::string& file, const std::string& words) {
        const std::string& now = mistake.files.at(file);
        for (std::size_t found = now.find(words); found != std::string::npos; found = now.find(words, found + 1)) {
            const int line = line_column(now, found).line;
            mistake.spots.push_back({file, line, line});
        }
    };
    for (const std::string& told : row.told_at) {
        const std::size_t bar = told.find(".toml|");
        bar == std::string::npos ? lines_with(row.file, told)
                                 : lines_with(told.substr(0, bar + 5), told.substr(bar + 6));
    }
    if (row.told_at.empty()) {
        const std::string& now = mistake.files.at(row.file);
        mistake.spots.push_back({row.file, line_column(now, at).line, line_column(now, at + row.to.size()).line});
    }
    return mistake;
}

// Each object of the demo written down twice: with its name, and without.
std::vector<Mistake> twice(const Files& demo) {
    std::vector<Mistake> all;
    for (const char* file : {slipway, pump_house}) {
        const std::string& text = demo.at(file);
        for (std::size_t at = text.find("  { name = "); at != std::string::npos;
             at = text.find("  { name = ", at + 1)) {
            const std::size_t end = text.find('\n', at) + 1, kind = text.find("kind = ", at);
            const std::string line = text.substr(at, end - at), unnamed = "  { " + text.substr(kind, end - kind);
            const int number = line_column(text, at).line;
            const std::vector<Spot> spots{{file, number, number + 1}};
            all.push_back({"an object copied with its name",
                           fmt::format("{}:{}", file, number),
                           replaced(demo, file, end, 0, line),
                           {Rule::duplicate_name},
                           spots});
            all.push_back({"an object twice in a place",
                           fmt::format("{}:{}", file, number),
                           replaced(demo, file, end, 0, unnamed),
                           {Rule::objects_stacked},
                           spots});
        }
    }
    return all;
}

// A character of punctuation gone, and bytes that are no text.
std::vector<Mistake> torn(const Files& demo) {
    std::vector<Mistake> all;
    for (const char* file : {world, marsh, station, slipway, pump_house}) {
        const std::string& text = demo.at(file);
        for (const char* sign : {"\"\n", "]\n", " }\n", " = "}) {
            const std::size_t at = text.find(sign, text.find('\n', text.size() / 5));
            if (at == std::string::npos) continue;
            const int line = line_column(text, at).line;
            all.push_back({"a sign left out",
                           fmt::format("{}:{}: {}", file, line, sign[0] == ' ' ? sign[1] : sign[0]),
                           replaced(demo, file, sign[0] == ' ' ? at + 1 : at, 1, ""),
                           {Rule::syntax, Rule::duplicate_name},
                           {{file, line, line + 1}}});
        }
        all.push_back(
            {"not UTF-8",
             file,
             replaced(demo, file, text.find("# ") == std::string::npos ? 0 : text.find("# "), 0, "#\xE9t\xE9\n"),
             {Rule::bad_text},
             {{file, 1, 1000}}});
    }
    return all;
}

// Mistakes in files that are no TOML.
std::vector<Mistake> in_other_files(const Files& demo) {
    const char* csv = "maps/slipway_fence.csv";
    const char* png = "maps/slipway_grass.png";
    const char* svg = "maps/slipway_rocks.svg";
    const auto part = [&](const char* file, const char* words) { return demo.at(file).find(words); };
    const std::string& fence = demo.at(csv);
    const std::size_t second = fence.find('\n') + 1;
    return {
        {"a name misspelt in a CSV",
         csv,
         replaced(demo, csv, second, 4, "wrad"),
         {Rule::unknown_name, Rule::legend_missing},
         {{csv, 2, 2, 1, 5}}},
        {"a field too few in a CSV", csv, replaced(demo, csv, second, 5, ""), {Rule::row_length}, {{csv, 2, 2}}},
        {"a row gone from a CSV",
         csv,
         replaced(demo, csv, 0, second, ""),
         {Rule::grid_size},
         {{csv, 1, 100}, {slipway, 1, 200}}},
        {"a field broken in a CSV",
         csv,
         replaced(demo, csv, second, 4, "\"ward"),
         {Rule::syntax, Rule::row_length},
         {{csv, 2, 3}}},
        {"a torn picture",
         png,
         replaced(demo, png, 40, 12, ""),
         {Rule::bad_picture},
         {{slipway, 1, 200}, {png, 0, 0}, {png, 1, 1}}},
        {"a drawing outside the map",
         svg,
         replaced(demo, svg, part(svg, "rotate(20 78 153)"), 17, "translate(900 0)"),
         {Rule::object_outside, Rule::out_of_range},
         {{svg, 6, 6}}},
        {"a drawing that is not XML",
         svg,
         replaced(demo, svg, part(svg, "</g>"), 4, ""),
         {Rule::syntax, Rule::bad_picture},
         {{svg, 1, 20}}},
        {"a drawing's name twice",
         svg,
         replaced(demo, svg, part(svg, "wreck"), 5, "groyne"),
         {Rule::duplicate_name},
         {{svg, 5, 6}}},
        {"a drawn box without size",
         svg,
         replaced(demo, svg, part(svg, "width=\"20\""), 10, "width=\"0\""),
         {Rule::shape_empty, Rule::out_of_range},
         {{svg, 6, 6}}},
    };
}

}   // namespace

std::vector<Mistake> mistakes_of_meaning(const Files& demo) {
    std::vector<Mistake> all;
    for (const auto& rows : {of_shapes(), of_art_and_grids(), of_rows(), of_objects(), of_links_and_facts()})
        for (const Row& row : rows) all.push_back(made(demo, row));
    for (const auto& more : {twice(demo), torn(demo), in_other_files(demo)})
        all.insert(all.end(), more.begin(), more.end());
    return all;
}

}   // namespace mistakes
