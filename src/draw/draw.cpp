// The whole picture of a map: a heading, the map, a key to what is shown, and the findings in words.

#include "dryground/draw.hpp"

#include "art_internal.hpp"
#include "draw_map_internal.hpp"

namespace dryground {

namespace drawing {

namespace {

std::string title_of(const Map& map) {
    return map.title.empty() ? map.name : fmt::format("{} ({})", map.title, map.name);
}

std::string subtitle_of(const MapPicture& picture) {
    const Map& map = picture.whole();
    std::string text =
        fmt::format("{} x {} cells of {} x {} px", map.columns, map.rows, map.cell_width, map.cell_height);
    if (const auto& area = picture.options.area)
        text += fmt::format(", of them {} x {} from ({}, {})", area->columns, area->rows, area->column, area->row);
    for (const StoreyId storey : picture.options.storeys)
        text += fmt::format(", storey {}", picture.world.storey(storey).name);
    for (const FactId fact : picture.options.merging.facts)
        text += fmt::format(", with {}", picture.world.fact(fact).name);
    return text + fmt::format(", at scale {:.4g}", picture.scale);
}

void draw_ground(MapPicture& picture) {
    const Box& frame = picture.frame;
    picture.put("<rect x=\"{:g}\" y=\"{:g}\" width=\"{:g}\" height=\"{:g}\" fill=\"{}\"/>\n", frame.x, frame.y,
                frame.width, frame.height, picture.inks.edge);
    const Map& map = picture.whole();
    const Ring all = map.grid == GridSort::isometric ? map.block_ring(0, 0, map.columns, map.rows)
                                                     : box_ring(map.least(), map.most());
    picture.put("<path d=\"{}\" fill=\"{}\" stroke=\"{}\" stroke-opacity=\"0.5\"/>\n", picture.path(all),
                picture.inks.ground, picture.inks.lines);
}

struct Part {
    Thing thing;
    void (*draw)(MapPicture&);
};
// From bottom to top.
constexpr Part parts[] = {
    {Thing::grid, draw_grid},     {Thing::reach, draw_reach},     {Thing::merged, draw_merged},
    {Thing::pieces, draw_pieces}, {Thing::shapes, draw_shapes},   {Thing::sides, draw_sides},
    {Thing::flags, draw_flags},   {Thing::objects, draw_objects}, {Thing::links, draw_links},
    {Thing::walk, draw_walk},
};

void draw_things(MapPicture& picture, Art& art) {
    if (picture.shows(Thing::art)) {
        picture.open(Thing::art);
        draw_art(picture, art);
        picture.close();
    }
    for (const Part& part : parts)
        if (picture.shows(part.thing)) {
            picture.open(part.thing);
            part.draw(picture);
            picture.close();
        }
}

}   // namespace

std::string draw_window(MapPicture& picture, Art& art, const Box& window) {
    picture.look_at(window);
    const Box& frame = picture.frame;
    const bool sees_map = frame.wider(4).meets(window);
    if (picture.options.plain) {
        draw_things(picture, art);
        return picture.document(window, title_of(picture.whole()), picture.inks);
    }
    picture.text(16, 26, title_of(picture.whole()), 18, picture.inks.text, "start", "font-weight=\"bold\"");
    picture.text(picture.page.width - 16, 24, subtitle_of(picture), 12, picture.inks.lines, "end");
    // What lies outside the frame is not drawn over the key below.
    picture.define("<clipPath id=\"view\"><rect x=\"{:g}\" y=\"{:g}\" width=\"{:g}\" height=\"{:g}\"/></clipPath>\n",
                   frame.x - 1, frame.y - 1, frame.width + 2, frame.height + 2);
    if (sees_map) {
        picture.put("<g clip-path=\"url(#view)\">\n");
        draw_ground(picture);
        draw_things(picture, art);
        if (picture.over) picture.over(picture);
        picture.close();
        if (picture.shows(Thing::grid)) draw_cell_numbers(picture);
        draw_labels(picture);
        if (picture.on_top) picture.on_top(picture);
        if (picture.shows(Thing::walk)) draw_walk_numbers(picture);
        if (picture.shows(Thing::findings)) {
            picture.open(Thing::findings);
            draw_findings(picture);
            picture.close();
        }
    }
    if (window.y + window.height > picture.key_top) {
        picture.put("<g id=\"key\">\n");
        draw_key(picture, true);
        picture.close();
    }
    return picture.document(window, title_of(picture.whole()), picture.inks);
}

}   // namespace drawing

std::string draw_svg(const World& world, const Map& map, const Report& report, const ArtSource& source,
                     const DrawOptions& options) {
    drawing::MapPicture picture(world, map, report, options);
    drawing::Art art(world, source, picture.scale, options.palette == Palette::grey);
    return drawing::draw_window(picture, art, picture.page);
}

}   // namespace dryground
