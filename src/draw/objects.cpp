// Objects: what they cover, where they stand, their names; each role has a mark of its own.

#include <algorithm>

#include "page_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr std::array<const char*, 5> role_colours{"#1f5f8b", "#8a5a00", "#5b2a86", "#5a3d2b", "#2e6b34"};

// spawn: a flag; trigger: a diamond; link: an arrow; solid: a square; entity: a circle.
std::string mark_path(Role role, double x, double y) {
    switch (role) {
        case Role::spawn:
            return fmt::format("M{0} {1}v-14l9 4l-9 4", x, y);
        case Role::trigger:
            return fmt::format("M{0} {2}l6 6l-6 6l-6 -6z", x, y, y - 6);
        case Role::link:
            return fmt::format("M{} {}h7v-4l7 6l-7 6v-4h-7z", x - 7, y - 2);
        case Role::solid:
            return fmt::format("M{} {}h8v8h-8z", x - 4, y - 4);
        case Role::entity:
            break;
    }
    return fmt::format("M{} {}a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z", x - 5, y);
}

const Mover* mover_of(const Page& page, const Object& object) {
    const Kind& kind = page.world.kinds()[static_cast<std::size_t>(object.kind)];
    int mover = kind.mover;
    if (object.role == Role::spawn && mover == page.world.player() && page.map.player >= 0) mover = page.map.player;
    return mover >= 0 ? &page.world.movers()[static_cast<std::size_t>(mover)] : nullptr;
}

void draw_name(Page& page, const Object& object) {
    std::string text = object.name.empty()
                           ? fmt::format("({})", page.world.kinds()[static_cast<std::size_t>(object.kind)].name)
                           : object.name;
    if (object.role == Role::link && !object.link.to.empty()) text += " → " + object.link.to;
    double reach = 8, at_y = page.y(object.position.y);
    const Mover* mover = mover_of(page, object);
    if (!object.area.empty() || mover != nullptr) {
        const Bounds box = *bounds(object.area.empty() ? moved(mover->body, object.position) : object.area);
        at_y = (page.y(box.least.y) + page.y(box.most.y)) / 2;
        reach = (page.y(box.most.y) - page.y(box.least.y)) / 2 + (object.area.empty() ? 4 : 2);
    }
    page.label_near(page.x(object.position.x), at_y, reach, text, !object.name.empty() || object.role == Role::link);
}

}   // namespace

void draw_objects(Page& page) {
    for (const Object& object : page.map.objects) {
        const char* colour = role_colours[static_cast<std::size_t>(object.role)];
        if (!object.area.empty())
            page.put(
                "<path d=\"{}\" fill=\"{}\" fill-opacity=\"0.16\" stroke=\"{}\" stroke-width=\"1.5\" "
                "stroke-dasharray=\"5 3\"/>\n",
                page.path(object.area), colour, colour);
        if (const Mover* mover = mover_of(page, object))
            page.put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"1.2\"/>\n",
                     page.path(moved(mover->body, object.position)), colour);
        page.put("<path d=\"{}\" fill=\"{}\" stroke=\"#fffdf5\" stroke-width=\"1\"/>\n",
                 mark_path(object.role, page.x(object.position.x), page.y(object.position.y)), colour);
    }
    // Names last, over everything; those that somebody gave first.
    for (const bool named : {true, false})
        for (const Object& object : page.map.objects)
            if (object.name.empty() != named) draw_name(page, object);
}

void draw_mark(Page& page, double x, double y, int number, Severity severity) {
    const bool is_error = severity == Severity::error;
    // An error is a pointed sign, a warning a square, a note a circle.
    if (is_error)
        page.put("<path d=\"M{} {}l14 24h-28z\" fill=\"#b3261e\" stroke=\"#fffdf5\" stroke-width=\"2\"/>\n", x, y - 16);
    else if (severity == Severity::warning)
        page.put(
            "<rect x=\"{}\" y=\"{}\" width=\"20\" height=\"20\" rx=\"3\" fill=\"#8a5a00\" stroke=\"#fffdf5\" "
            "stroke-width=\"2\"/>\n",
            x - 10, y - 12);
    else
        page.put("<circle cx=\"{}\" cy=\"{}\" r=\"11\" fill=\"#1f5f8b\" stroke=\"#fffdf5\" stroke-width=\"2\"/>\n", x,
                 y - 2);
    page.label(x, y + (is_error ? 6 : 3), fmt::format("{}", number), 12, "middle",
               "fill=\"#ffffff\" font-weight=\"bold\"");
}

void draw_marks(Page& page, const std::vector<Mark>& marks, const std::vector<const Finding*>& findings) {
    for (const Mark& mark : marks)
        draw_mark(page, mark.x, mark.y, mark.number, findings[static_cast<std::size_t>(mark.number - 1)]->severity);
}

}   // namespace dryground::drawing
