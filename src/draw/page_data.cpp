// What a page knows, as JSON: for each map its layers, objects and findings, and what depends on facts
// (page_states.cpp); for the world the pictures. Long lists of numbers are base64 of little-endian integers.

#include <algorithm>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "art_internal.hpp"
#include "dryground/probe.hpp"
#include "page_internal.hpp"
#include "page_numbers_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

Json px(Point p) { return {to_px(p.x), to_px(p.y)}; }
Json box(const Bounds& b) { return {to_px(b.least.x), to_px(b.least.y), to_px(b.most.x), to_px(b.most.y)}; }

// Returns JSON in a form that may stand inside a script element, which some texts would end or turn around.
std::string in_script(const Json& json) {
    const std::string text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
    std::string safe;
    safe.reserve(text.size());
    for (const char c : text)
        if (c == '<')
            safe += "\\u003c";
        else
            safe += c;
    return safe;
}

class WorldData {
public:
    WorldData(const World& world, const ArtSource& source, const Report& report, const DrawOptions& options)
        : world_(world),
          report_(report),
          options_(options),
          art_(world, source, 1, options.palette == Palette::grey),
          walk_(world, options) {}

    // Writes it as it may stand in a script. Each map is converted to text before the next one is handled, which takes
    // a tenth of the memory.
    std::string all(std::span<const std::string> maps) {
        std::string text = "{\"maps\":[";
        std::size_t done = 0;
        for (const std::string& name : maps) {
            if (text.back() != '[') text += ',';
            text += in_script(map_data(world_.map(name), maps.size()));
            if (options_.progress) options_.progress(++done, maps.size());
        }
        return text + "]," + in_script(of_world()).substr(1);
    }

private:
    Json of_world() {
        Json json{{"world", world_.title()}};
        json["tiles"] = std::move(tiles_);
        json["pictures"] = std::move(pictures_);
        const Inks inks = inks_of(options_.palette);
        json["inks"] = {{"text", inks.text},          {"soft", inks.soft},       {"paper", inks.paper},
                        {"ground", inks.ground},      {"edge", inks.edge},       {"side", inks.side},
                        {"error", inks.error},        {"warning", inks.warning}, {"note", inks.note},
                        {"roles", inks.roles},        {"reach", inks.reach},     {"lines", inks.lines},
                        {"sign_text", inks.sign_text}};
        json["facts"] = Json::array();
        json["storeys"] = Json::array();
        for (const Storey& storey : world_.storeys()) json["storeys"].push_back({storey.name, storey.base_px});
        for (const NamedThing& fact : world_.facts()) json["facts"].push_back({fact.name, fact.note});
        json["holds"] = options_.merging.facts;
        json["movers"] = Json::array();
        for (const Mover& mover : world_.movers()) json["movers"].push_back(mover.name);
        json["storey"] = options_.storeys.size() == 1 ? Json(options_.storeys[0]) : Json();   // looked at first
        json["show"] = Json::array();
        for (const Thing thing : options_.show) json["show"].push_back(thing_names()[static_cast<std::size_t>(thing)]);
        json["general"] = Json::array();   // findings about no particular map
        for (const Finding& finding : report_.findings())
            if (finding.map.empty()) json["general"].push_back(finding_data(finding, nullptr));
        return json;
    }

    Json finding_data(const Finding& finding, const Map* map) const {
        Json json{
            {"severity", name_of(finding.severity)},
            {"message", message(finding)},
            {"rule", rule_text(finding.rule).name},
            {"place", text(finding.place)},
            {"hint",
             !finding.hint ? "" : finding.hint->text + (finding.hint->set.empty() ? "" : ": " + finding.hint->set)}};
        if (map == nullptr) return json;
        if (const auto at = place_of(*map, finding)) json["at"] = px(*at);
        json["storey"] = storey_of(world_, *map, finding);
        if (!finding.layer.empty()) json["layer"] = finding.layer;
        if (!finding.outline.empty()) json["outline"] = finding.outline;
        return json;
    }

    // Returns the number of a picture; -1 without one.
    int picture(const std::string& key, cairo_surface_t* surface) {
        if (surface == nullptr) return -1;
        const auto [known, is_new] = picture_numbers_.try_emplace(key, static_cast<int>(pictures_.size()));
        if (is_new) pictures_.push_back(data_address(png_of(surface)));
        return known->second;
    }

    // Returns what a number of the palette puts on the ground in a layer, relative to the top left corner of the box
    // around its cell.
    Json parts_of(const Map& map, const Layer& layer, const Placed& placed) const {
        const Point corner = map.corner(0, 0), box = map.box_corner(0, 0), shift{corner.x - box.x, corner.y - box.y};
        Json parts = Json::array();
        for (ground::Part& part : ground::parts_of(world_, map, layer, placed, {}).parts) {
            Json one{{"colour", look_of(world_, part.barrier, 1, options_.palette).colour}};
            if (!part.adds) one["carves"] = true;
            if (part.line.empty()) {
                one["rings"] = rings_of(moved(std::move(part.area), shift));
            } else {
                for (Point& p : part.line) p = moved(p, shift);
                std::vector<std::int32_t> line;
                add_ring(line, part.line);
                one["line"] = line;
            }
            parts.push_back(std::move(one));
        }
        return parts;
    }

    // Returns the number of a tile in the page's list.
    int tile(int tileset, int number) {
        const auto [known, is_new] = tile_numbers_.try_emplace({tileset, number}, static_cast<int>(tiles_.size()));
        if (!is_new) return known->second;
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(tileset)];
        const Tile& said = set.tiles[static_cast<std::size_t>(number)];
        const int art = picture(fmt::format("{}:{}", tileset, number), art_.tile(tileset, number));
        Json json{{"name", set.name + "/" + said.name}, {"picture", art}};
        if (const auto image = image_of(set, said); image && (image->x != 0 || image->y != 0))
            json["at"] = {image->x, image->y};
        if (said.band) json["band"] = static_cast<int>(*said.band);
        if (said.unseen) json["unseen"] = true;
        if (said.place.line > 0) json["place"] = text(said.place);
        tiles_.push_back(std::move(json));
        return known->second;
    }

    // By number; null if it puts nothing there.
    Json all_parts_of(const Map& map, const Layer& layer) const {
        Json all = Json::array();
        if (!ground::may_count(layer)) return all;
        std::vector<char> stands(map.palette.size(), 0);
        for (const std::uint32_t number : layer.cells) stands[number] = 1;
        for (std::size_t n = 0; n < stands.size(); ++n) {
            Json parts = stands[n] && map.palette[n].tile >= 0 ? parts_of(map, layer, map.palette[n]) : Json::array();
            all.push_back(parts.empty() ? Json() : std::move(parts));
        }
        return all;
    }

    Json layers_of(const Map& map) const {
        Json layers = Json::array();
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            const Layer& layer = map.layers[l];
            Json json{{"name", layer.name},     {"opacity", layer.opacity * (layer.shown ? 1 : 0.6)},
                      {"storey", layer.storey}, {"band", static_cast<int>(layer.band)},
                      {"order", layer.order},   {"there", is_there(layer, options_.merging.facts)},
                      {"shown", layer.shown},   {"decor", !ground::may_count(layer)}};
            if (const Point shift = ground::shift_of(layer); shift != Point{}) json["offset"] = px(shift);
            if (!layer.rows.empty() && layer.rows.front().line > 0) {   // where its cells are written
                json["file"] = layer.rows.front().file;
                for (const Place& row : layer.rows) json["lines"].push_back(row.line);
            }
            if (!layer.holds_objects)
                json["cells"] = small_numbers(layer.cells), json["parts"] = all_parts_of(map, layer);
            layers.push_back(std::move(json));
        }
        return layers;
    }

    Json objects_of(const Map& map, const Prober& prober) {
        Json objects = Json::array();
        for (std::size_t o = 0; o < map.objects.size(); ++o) {
            const Object& object = map.objects[o];
            const Kind& kind = world_.kind(object.kind);
            Json json{{"name", object.name},
                      {"kind", kind.name},
                      {"role", static_cast<int>(object.role)},
                      {"layer", object.layer},
                      {"storey", object.storey},
                      {"at", px(object.position)},
                      {"there", is_there(map, object, options_.merging.facts)},
                      {"words", prober.object(o)}};
            if (object.place.line > 0) json["place"] = text(object.place);
            const Mover* mover = mover_of(world_, map, object);
            if (!object.area.empty()) json["area"] = rings_of(object.area);
            if (mover != nullptr) json["body"] = rings_of(moved(mover->body, object.position));
            if (!object.line.empty()) {
                std::vector<std::int32_t> line;
                add_ring(line, object.line);
                json["line"] = line;
            }
            for (const PointPx place : path_of(world_, object)) json["path"].push_back({place.x, place.y});
            if (!object.link.to.empty()) json["to"] = object.link.to;
            const auto& own = kind.picture ? kind.picture : mover != nullptr ? mover->picture : std::nullopt;
            if (own) {
                json["picture"] = picture(own->file, art_.picture(own->file));
                json["from"] = {own->x, own->y};
            }
            objects.push_back(std::move(json));
        }
        return objects;
    }

    // Returns where what belongs to a part of a map may be: its cells, and what extends beyond their edges.
    static Bounds around(const Map& part) {
        return detail::grown({part.least(), part.most()}, 2 * to_steps(std::max(part.cell_width, part.cell_height)));
    }
    [[nodiscard]] bool is_near(const Object& object, const Bounds& box) const {
        if (!ground::fills_shape(object)) return true;   // what is all around it is solid
        Ring points = object.line;
        points.push_back(object.position);
        for (const PointPx place : path_of(world_, object)) points.push_back({to_steps(place.x), to_steps(place.y)});
        Bounds own = detail::box_around(points);
        if (const auto area = bounds(object.area)) own = detail::both(own, *area);
        return detail::meet(own, box);
    }
    [[nodiscard]] Map part_of(const Map& whole, const CellArea& area) const {
        Map part = cropped(whole, area);
        std::erase_if(part.objects, [&, box = around(part)](const Object& object) { return !is_near(object, box); });
        return part;
    }
    // Lists all, or those of a part: of places in it, or without a place.
    Json findings_of(const Map& whole, const Map& map) const {
        Json findings = Json::array();
        for (const Finding& finding : report_.findings()) {
            if (finding.map != whole.name) continue;
            const std::optional<Point> at = place_of(whole, finding);
            if (!options_.area || !at || detail::meet({*at, *at}, around(map)))
                findings.push_back(finding_data(finding, &whole));
        }
        return findings;
    }

    Json map_data(const Map& whole, std::size_t maps_on_page) {
        const Map map = options_.area ? part_of(whole, *options_.area) : whole;
        const Prober prober(world_, map, options_.merging.facts);
        Json json{{"name", map.name},
                  {"title", map.title.empty() ? map.name : map.title},
                  {"grid", map.grid == GridSort::isometric ? "isometric" : "square"},
                  {"cell", {map.cell_width, map.cell_height}},
                  {"size", {map.columns, map.rows}},
                  {"first", {map.first_column, map.first_row}},
                  {"box", box({map.least(), map.most()})},
                  {"layers", layers_of(map)},
                  {"palette", Json::array()}};
        for (const Placed& placed : map.palette) {
            if (placed.tile < 0) {
                json["palette"].push_back(Json::array());
                continue;
            }
            const Orientation& o = placed.orientation;
            json["palette"].push_back(
                {tile(placed.tileset, placed.tile), o.flip_x ? 1 : 0, o.flip_y ? 1 : 0, o.turn / 90});
        }
        add_page_states(json, world_, map, options_, maps_on_page);
        walk_.add(json, map);
        json["objects"] = objects_of(map, prober);
        json["findings"] = findings_of(whole, map);
        return json;
    }

    const World& world_;
    const Report& report_;
    const DrawOptions& options_;
    Art art_;
    PageWalk walk_;
    Json tiles_ = Json::array(), pictures_ = Json::array();
    std::map<std::pair<int, int>, int> tile_numbers_;
    std::map<std::string, int> picture_numbers_;
};

}   // namespace

std::string script_text(std::string_view text) { return in_script(Json(std::string(text))); }

std::string page_data(const World& world, std::span<const std::string> maps, const Report& report,
                      const ArtSource& source, const DrawOptions& options) {
    return WorldData(world, source, report, options).all(maps);
}

}   // namespace dryground::drawing
