// The whole picture of a map: a heading, the map, a key to what is shown, and the findings in words.

#include "dryground/draw.hpp"

#include <algorithm>

#include "page_internal.hpp"

namespace dryground {

namespace {

using namespace drawing;

struct ShowName {
    const char* name;
    bool Show::*member;
};
constexpr ShowName show_table[] = {{"art", &Show::art},          {"grid", &Show::grid},   {"merged", &Show::merged},
                                   {"pieces", &Show::pieces},    {"flags", &Show::flags}, {"objects", &Show::objects},
                                   {"findings", &Show::findings}};

// The findings of a map, and where each is marked: at its object, its cells, or its cell.
std::vector<const Finding*> findings_of(const Page& page, const Report& report, std::vector<Mark>& marks) {
    std::vector<const Finding*> result;
    for (const Finding& finding : report.findings()) {
        if (finding.map != page.map.name) continue;
        result.push_back(&finding);
        const int number = static_cast<int>(result.size());
        const auto mark_cell = [&](const std::array<int, 2>& cell) {
            const Bounds box = page.map.cell_box(cell[0] - page.map.first_column, cell[1] - page.map.first_row);
            marks.push_back({(page.x(box.least.x) + page.x(box.most.x)) / 2,
                             (page.y(box.least.y) + page.y(box.most.y)) / 2, number});
        };
        if (const int object = finding.object.empty() ? -1 : page.map.find_object(finding.object); object >= 0) {
            const Point at = page.map.objects[static_cast<std::size_t>(object)].position;
            marks.push_back({page.x(at.x), page.y(at.y), number});
        } else if (finding.cell) {
            mark_cell(*finding.cell);
        } else if (!finding.cells.empty()) {
            mark_cell(finding.cells.front());
        }
    }
    const double low = 10;   // what lies outside is marked at the picture's edge
    for (Mark& mark : marks) {
        mark.x = std::clamp(mark.x, low + 8, page.left + page.width() + page.map.cell_width * page.scale);
        mark.y = std::clamp(mark.y, 48.0, page.top + page.height() + page.map.cell_height * page.scale - 4);
    }
    return result;
}

std::string plural(std::size_t n, const char* word) { return fmt::format("{} {}{}", n, word, n == 1 ? "" : "s"); }

std::string figures(const std::string& name, const Group& group, std::size_t vertices) {
    if (group.regions.empty())
        return fmt::format(
            "{}, {}: {}{}", name, group.storey, plural(group.lines.size(), "line"),
            group.one_way == OneWay::none ? "" : fmt::format(", passed going {}", name_of(group.one_way)));
    return fmt::format("{}, {}: {}, {}, {}, {}", name, group.storey, plural(group.regions.size(), "region"),
                       plural(group.chains.size(), "chain"), fmt::format("{} vertices", vertices),
                       plural(group.pieces.size(), "convex piece"));
}

// One line for each group: its hatching and dash, its name, its figures.
double draw_key(Page& page, const Merge& merge, double y) {
    for (std::size_t g = 0; g < merge.groups.size(); ++g, y += 22) {
        const Group& group = merge.groups[g];
        const Look look = look_of(page.world, group, g);
        page.put(
            "<rect x=\"16\" y=\"{}\" width=\"34\" height=\"15\" fill=\"url(#hatch{})\" stroke=\"{}\" "
            "stroke-width=\"2\" stroke-dasharray=\"{}\"/>\n",
            y, g, look.colour, look.dash);
        std::size_t vertices = 0;
        for (const Chain& chain : group.chains) vertices += chain.points.size();
        const std::string name = group.trigger.empty() ? group.barrier : fmt::format("trigger {}", group.trigger);
        page.label(58, y + 12, figures(name, group, vertices), 13);
    }
    return y;
}

double draw_role_key(Page& page, double y) {
    page.label(16, y + 12,
               "marks: flag = spawn, diamond = trigger, arrow = link, square = solid, circle = entity; dashed = area, "
               "thin = body",
               12, "start", "fill=\"#33414a\"");
    return y + 24;
}

double draw_findings(Page& page, const std::vector<const Finding*>& findings, double y) {
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const Finding& finding = *findings[i];
        draw_mark(page, 30, y + 14, static_cast<int>(i) + 1, finding.severity);
        page.label(
            52, y + 12,
            fmt::format("{}: {} [{}]", name_of(finding.severity), message(finding), rule_text(finding.rule).name), 13);
        std::string more = text(finding.place);
        if (finding.hint)
            more += " · " + finding.hint->text + (finding.hint->set.empty() ? "" : ": " + finding.hint->set);
        page.label(52, y + 27, more, 11, "start", "fill=\"#5b6a73\"");
        y += 36;
    }
    return y;
}

}   // namespace

std::vector<std::string> show_names() {
    std::vector<std::string> names;
    for (const ShowName& row : show_table) names.emplace_back(row.name);
    return names;
}

std::optional<Show> show_from(const std::vector<std::string>& names, std::string& unknown) {
    Show show{false, false, false, false, false, false, false};
    for (const std::string& name : names) {
        const auto row = std::find_if(std::begin(show_table), std::end(show_table),
                                      [&](const ShowName& r) { return r.name == name; });
        if (row == std::end(show_table)) {
            unknown = name;
            return std::nullopt;
        }
        show.*(row->member) = true;
    }
    return show;
}

std::string draw_svg(const World& world, const Map& map, const Report& report, const ArtSource& art,
                     const DrawOptions& options) {
    Page page(world, map, options);
    const double rim_x = map.cell_width * page.scale, rim_y = map.cell_height * page.scale;
    page.label(16, 26, map.title.empty() ? map.name : fmt::format("{} ({})", map.title, map.name), 18, "start",
               "font-weight=\"bold\"");
    page.label(page.left + page.width() + rim_x, 22,
               fmt::format("{} x {} cells of {} x {} px, shown {} times", map.columns, map.rows, map.cell_width,
                           map.cell_height, page.scale),
               12, "end", "fill=\"#33414a\"");
    page.put("<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" fill=\"#dfe6e8\"/>\n", page.left - rim_x,
             page.top - rim_y, page.width() + 2 * rim_x, page.height() + 2 * rim_y);
    page.put(
        "<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" fill=\"#eef4f5\" stroke=\"#33414a\" "
        "stroke-opacity=\"0.5\"/>\n",
        page.left, page.top, page.width(), page.height());
    // What lies far outside is not drawn over the key below.
    fmt::format_to(std::back_inserter(page.defs),
                   "<clipPath id=\"view\"><rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\"/></clipPath>\n",
                   page.left - rim_x - 2, page.top - rim_y - 2, page.width() + 2 * rim_x + 4,
                   page.height() + 2 * rim_y + 4);
    page.put("<g clip-path=\"url(#view)\">\n");
    if (page.show.art) draw_art(page, art);
    if (page.show.grid) draw_grid(page);
    const Merge merged = merge(world, map);
    if (page.show.merged) draw_merged(page, merged);
    if (page.show.objects) draw_objects(page);
    page.put("</g>\n");
    if (page.show.grid) draw_cell_numbers(page);
    if (page.show.flags) draw_flags(page);
    double y = page.top + page.height() + rim_y + 14;
    if (page.show.merged) y = draw_key(page, merged, y);
    if (page.show.objects) y = draw_role_key(page, y);
    if (page.show.findings) {
        std::vector<Mark> marks;
        const std::vector<const Finding*> found = findings_of(page, report, marks);
        draw_marks(page, marks, found);
        y = draw_findings(page, found, y + 4);
    }
    const double width = std::max(page.left + page.width() + rim_x + 16, 640.0), height = y + 12;
    return fmt::format(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
        "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"{0}\" "
        "height=\"{1}\" viewBox=\"0 0 {0} {1}\" font-family=\"DejaVu Sans, sans-serif\" fill=\"#10243a\">\n"
        "<title>{2}</title>\n<defs>\n{3}</defs>\n<rect width=\"{0}\" height=\"{1}\" fill=\"#fffdf5\"/>\n{4}</svg>\n",
        width, height, escaped(map.title.empty() ? map.name : map.title), page.defs, page.body);
}

}   // namespace dryground
