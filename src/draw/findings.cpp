// Findings: a numbered sign where each one is, and its text in the key below the map.

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

bool Taken::is_free(const Box& box) const {
    for (int bx = static_cast<int>(box.x / bucket); bx <= static_cast<int>((box.x + box.width) / bucket); ++bx)
        for (int by = static_cast<int>(box.y / bucket); by <= static_cast<int>((box.y + box.height) / bucket); ++by)
            if (const auto found = boxes_.find({bx, by}); found != boxes_.end())
                for (const Box& other : found->second)
                    if (other.meets(box)) return false;
    return true;
}

void Taken::take(const Box& box) {
    for (int bx = static_cast<int>(box.x / bucket); bx <= static_cast<int>((box.x + box.width) / bucket); ++bx)
        for (int by = static_cast<int>(box.y / bucket); by <= static_cast<int>((box.y + box.height) / bucket); ++by)
            boxes_[{bx, by}].push_back(box);
}

namespace {

constexpr double sign = 24;   // px that a sign is wide and high

const std::string& ink_of(const Inks& inks, Severity severity) {
    return severity == Severity::error ? inks.error : severity == Severity::warning ? inks.warning : inks.note;
}

// Returns a place beside what is there already, further and further to the right, then a row down; nothing if all is
// full.
std::optional<Box> free_place(const Taken& taken, Box box) {
    const double x = box.x;
    for (int row = 0; row < 4; ++row, box.y += sign + 2)
        for (int column = 0; column < 4; ++column) {
            box.x = x + column * (sign + 2);
            if (taken.is_free(box)) return box;
        }
    return std::nullopt;
}

}   // namespace

std::optional<Point> place_of(const Map& map, const Finding& finding) {
    const ObjectId object = map.find_object(finding.object);
    if (object != ObjectId::none) return map.object(object).position;
    if (!finding.cell && finding.cells.empty()) return std::nullopt;
    const Cell cell = finding.cell ? *finding.cell : finding.cells.front();
    const Bounds box = map.cell_box(map.data_cell(cell));
    return Point{(box.least.x + box.most.x) / 2, (box.least.y + box.most.y) / 2};
}

StoreyId storey_of(const World& world, const Map& map, const Finding& finding) {
    if (!finding.storey.empty()) return world.find_storey(finding.storey);
    const std::vector<StoreyId> storeys = ground::storeys_of(map);
    return storeys.size() == 1 ? storeys.front() : StoreyId::none;
}

namespace {

// Returns the text of a mark: its findings' numbers, or how many more there are.
std::string text_of(const Mark& mark) {
    constexpr std::size_t most = 3;
    std::string text;
    for (std::size_t i = 0; i < std::min(most, mark.findings.size()); ++i)
        text += fmt::format("{}{}", i == 0 ? "" : ", ", mark.findings[i] + 1);
    return mark.findings.size() > most ? text + fmt::format(" +{}", mark.findings.size() - most) : text;
}

double width_of(const std::string& text) { return text.size() > 3 ? text_width(text, 12) + 12 : sign; }

// Places a mark beside what is there already. Findings outside are marked at the picture's edge.
void place_mark(MapPicture& picture, Mark mark, Taken& taken) {
    const Box& frame = picture.frame;
    const double wide = width_of(text_of(mark));
    const Box box{
        std::clamp(mark.x, frame.x + wide / 2, std::max(frame.x + wide / 2, frame.x + frame.width - wide / 2)) -
            wide / 2,
        std::clamp(mark.y, frame.y + sign / 2, frame.y + frame.height - sign / 2) - sign / 2, wide, sign};
    if (mark.findings.front() >= most_findings_told) {   // not in the list: a dot
        mark.x = box.x + wide / 2, mark.y = box.y + sign / 2;
        picture.marks.push_back(std::move(mark));
        return;
    }
    const auto free = free_place(taken, box);
    if (!free) picture.marks_left_out += mark.findings.size();
    if (!free) return;
    taken.take(*free);
    mark.x = free->x + wide / 2, mark.y = free->y + sign / 2 + 2;
    picture.marks.push_back(std::move(mark));
}

}   // namespace

void place_findings(MapPicture& picture, const Report& report, Taken& taken) {
    std::vector<Mark> marks;
    std::map<std::pair<double, double>, std::size_t> at_place;   // number of the mark there
    for (const Finding& finding : report.findings()) {
        if (finding.map != picture.whole().name) continue;
        const StoreyId storey = storey_of(picture.world, picture.whole(), finding);
        if (storey != StoreyId::none && !is_looked_at(storey, picture.options)) continue;
        const auto place = place_of(picture.whole(), finding);
        const double x = place ? picture.x(*place) : 0,
                     y = place ? picture.y(*place) - picture.raise(std::max(storey, StoreyId::ground)) : 0;
        const bool outside = place && !Box{x, y, 0.1, 0.1}.meets(picture.frame.wider(40));
        if (picture.options.area && (!place || outside)) continue;   // of the shown cells only
        picture.findings.push_back(&finding);
        if (!place) continue;
        const bool is_told = picture.findings.size() <= most_findings_told;
        const auto [known, is_new] = at_place.try_emplace({x, y}, marks.size());
        if (is_new || !is_told) {
            known->second = marks.size();
            marks.push_back({x, y, {}});
        }
        marks[known->second].findings.push_back(picture.findings.size() - 1);
    }
    for (Mark& mark : marks) place_mark(picture, std::move(mark), taken);
}

void draw_sign(Sheet& sheet, const Inks& inks, double x, double y, const std::string& text, Severity severity) {
    // An error is a pointed sign, a warning a square, a note a circle; several at one place are a bar.
    const double wide = width_of(text);
    if (wide > sign)
        sheet.put(
            "<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"20\" rx=\"{}\" fill=\"{}\" stroke=\"{}\" "
            "stroke-width=\"2\"/>\n",
            x - wide / 2 + 2, y - 12, wide - 4,
            severity == Severity::error     ? 0
            : severity == Severity::warning ? 3
                                            : 10,
            ink_of(inks, severity), inks.paper);
    else if (severity == Severity::error)
        sheet.put("<path d=\"M{:.1f} {:.1f}l14 24h-28z\" fill=\"{}\" stroke=\"{}\" stroke-width=\"2\"/>\n", x, y - 16,
                  inks.error, inks.paper);
    else if (severity == Severity::warning)
        sheet.put(
            "<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"20\" height=\"20\" rx=\"3\" fill=\"{}\" stroke=\"{}\" "
            "stroke-width=\"2\"/>\n",
            x - 10, y - 12, inks.warning, inks.paper);
    else
        sheet.put("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"11\" fill=\"{}\" stroke=\"{}\" stroke-width=\"2\"/>\n", x,
                  y - 2, inks.note, inks.paper);
    const bool is_pointed = severity == Severity::error && wide <= sign;
    sheet.text(x, y + (is_pointed ? 6 : 3), text, text.size() == 3 ? 9 : 12, inks.sign_text, "middle",
               "font-weight=\"bold\"");
}

namespace {

// Draws the area that a finding is about, if it is more than a place.
void draw_outline(MapPicture& picture, const Finding& finding) {
    if (finding.outline.empty()) return;
    Ring ring;
    for (const auto& [x, y] : finding.outline) ring.push_back({to_steps(x), to_steps(y)});
    const std::string path = picture.path(ring);
    const std::string& ink = ink_of(picture.inks, finding.severity);
    picture.put("<path d=\"{}\" fill=\"{}\" fill-opacity=\"0.18\" stroke=\"{}\" stroke-width=\"4\"/>\n", path, ink,
                picture.inks.paper);
    picture.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" stroke-dasharray=\"2 4\"/>\n", path,
                ink);
}

}   // namespace

void draw_findings(MapPicture& picture) {
    for (const Finding* finding : picture.findings)
        picture.on_storey(std::max(storey_of(picture.world, picture.whole(), *finding), StoreyId::ground),
                          [&] { draw_outline(picture, *finding); });
    for (const Mark& mark : picture.marks) {
        const std::string text = text_of(mark);
        if (!Box{mark.x - width_of(text), mark.y - sign, 2 * width_of(text), 2 * sign}.meets(picture.window)) continue;
        if (mark.findings.front() >= most_findings_told) {
            picture.put("<circle class=\"dot\" cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"3\" fill=\"{}\" stroke=\"{}\"/>\n",
                        mark.x, mark.y, picture.inks.error, picture.inks.paper);
            continue;
        }
        Severity worst = Severity::note;
        for (const std::size_t finding : mark.findings) worst = std::max(worst, picture.findings[finding]->severity);
        draw_sign(picture, picture.inks, mark.x, mark.y, text, worst);
    }
}

}   // namespace dryground::drawing
