// What a page knows, as JSON: of each map its cells, what is said of each stack of tiles that stands in one, ground in
// chunks, objects and findings; of the world the pictures. Long lists of numbers are base64 of little-endian integers.

#include <algorithm>

#include "art_internal.hpp"
#include "dryground/probe.hpp"
#include "page_internal.hpp"
#include "page_numbers_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

Json px(Point p) { return {to_px(p.x), to_px(p.y)}; }
Json box(const Bounds& b) { return {to_px(b.least.x), to_px(b.least.y), to_px(b.most.x), to_px(b.most.y)}; }

class WorldData {
public:
    WorldData(const World& world, const ArtSource& source, const Report& report, const DrawOptions& options)
        : world_(world), report_(report), options_(options), art_(world, source, 1, options.palette == Palette::grey) {}

    std::string all(std::span<const std::string> maps) {
        Json json{{"world", world_.title()}, {"maps", Json::array()}};
        for (const std::string& name : maps) json["maps"].push_back(map_data(world_.map(name)));
        json["tiles"] = std::move(tiles_);
        json["pictures"] = std::move(pictures_);
        const Inks inks = inks_of(options_.palette);
        json["inks"] = {{"text", inks.text},          {"soft", inks.soft},       {"paper", inks.paper},
                        {"ground", inks.ground},      {"rim", inks.rim},         {"side", inks.side},
                        {"error", inks.error},        {"warning", inks.warning}, {"note", inks.note},
                        {"roles", inks.roles},        {"reach", inks.reach},     {"lines", inks.lines},
                        {"sign_text", inks.sign_text}};
        json["show"] = Json::array();
        for (const Thing thing : options_.show) json["show"].push_back(thing_names()[static_cast<std::size_t>(thing)]);
        json["general"] = Json::array();   // findings about no map
        for (const Finding& finding : report_.findings())
            if (finding.map.empty()) json["general"].push_back(finding_data(finding, nullptr));
        std::string text = json.dump(-1, ' ', false, Json::error_handler_t::replace);
        std::string safe;   // it stands inside a script element, which some texts would end or turn around
        safe.reserve(text.size());
        for (const char c : text)
            if (c == '<')
                safe += "\\u003c";
            else
                safe += c;
        return safe;
    }

private:
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
        return json;
    }

    // The number of a picture; -1 where there is none.
    int picture(const std::string& key, cairo_surface_t* surface) {
        if (surface == nullptr) return -1;
        const auto [known, is_new] = picture_numbers_.try_emplace(key, static_cast<int>(pictures_.size()));
        if (is_new) pictures_.push_back(data_address(png_of(surface)));
        return known->second;
    }

    Json shapes_of(const Tile& tile) const {
        Json shapes = Json::array();
        for (const Shape& shape : tile.shapes) {
            const bool senses = !shape.trigger.empty();
            Json one{{"colour", look_of(world_, senses ? -1 : shape.barrier, 1, options_.palette).colour}};
            if (shape.whole_cell) one["cell"] = true;
            if (!shape.line.empty()) {
                std::vector<std::int32_t> line;
                add_ring(line, shape.line);
                one["line"] = line;
            } else {
                one["rings"] = rings_of(shape.area);
            }
            shapes.push_back(std::move(one));
        }
        for (const Carve& carve : tile.carves)
            shapes.push_back({{"colour", look_of(world_, carve.barrier, 1, options_.palette).colour},
                              {"cell", carve.shape.whole_cell},
                              {"carves", true},
                              {"rings", rings_of(carve.shape.area)}});
        return shapes;
    }

    // The number of a tile in the page's list.
    int tile(int tileset, int number) {
        const auto [known, is_new] = tile_numbers_.try_emplace({tileset, number}, static_cast<int>(tiles_.size()));
        if (!is_new) return known->second;
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(tileset)];
        const Tile& said = set.tiles[static_cast<std::size_t>(number)];
        const int art = picture(fmt::format("{}:{}", tileset, number), art_.tile(tileset, number));
        Json json{{"name", set.name + "/" + said.name}, {"picture", art}};
        if (said.picture) json["at"] = {said.picture->x, said.picture->y};
        if (said.unseen) json["unseen"] = true;
        if (!said.shapes.empty() || !said.carves.empty()) json["shapes"] = shapes_of(said);
        tiles_.push_back(std::move(json));
        return known->second;
    }

    Json layers_of(const Map& map) const {
        Json layers = Json::array();
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            const Layer& layer = map.layers[l];
            Json json{{"name", layer.name},
                      {"opacity", layer.opacity * (layer.storey > 0 ? 0.55 : 1) * (layer.shown ? 1 : 0.6)},
                      {"there", is_there(layer, options_.merging.facts)},
                      {"shown", layer.shown},
                      {"decor", layer.decor}};
            if (layer.offset != Point{}) json["offset"] = px(layer.offset);
            if (!layer.holds_objects) json["cells"] = small_numbers(layer.cells);
            layers.push_back(std::move(json));
        }
        return layers;
    }

    // Cells with the same tiles in all layers say the same.
    void add_stacks(Json& json, const Map& map, const Prober& prober) const {
        std::vector<const Layer*> layers;
        for (const Layer& layer : map.layers)
            if (!layer.holds_objects) layers.push_back(&layer);
        std::map<std::vector<std::uint32_t>, std::uint32_t> known;
        std::vector<std::uint32_t> stacks;
        Json words = Json::array();
        const std::vector<std::string> letters = letters_of_flags(world_);
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c) {
                std::vector<std::uint32_t> stack;
                for (const Layer* layer : layers) stack.push_back(map.number(*layer, c, r));
                const auto [at, is_new] = known.try_emplace(std::move(stack), static_cast<std::uint32_t>(known.size()));
                stacks.push_back(at->second);
                if (!is_new) continue;
                const std::array<int, 2> cell{map.first_column + c, map.first_row + r};
                Json one{{"tiles", prober.tiles_of(cell)}, {"flags", prober.flags_of(cell)}};
                const Passability say = passability(world_, map, c, r, 0, options_.merging.facts);
                if (say.flags_layer >= 0) {
                    std::string text;
                    for (std::size_t f = 0; f < letters.size(); ++f)
                        if ((say.flags >> f & 1) != 0) text += letters[f];
                    one["letters"] = text.empty() ? "–" : text;
                }
                if (say.sides_layer >= 0) {
                    one["sides"] = Json::array();
                    for (const Passage passage : say.sides.of) one["sides"].push_back(name_of(passage));
                }
                words.push_back(std::move(one));
            }
        json["stacks"] = small_numbers(stacks);
        json["words"] = std::move(words);
    }

    Json objects_of(const Map& map, const Prober& prober) {
        Json objects = Json::array();
        for (std::size_t o = 0; o < map.objects.size(); ++o) {
            const Object& object = map.objects[o];
            const Kind& kind = world_.kinds()[static_cast<std::size_t>(object.kind)];
            Json json{{"name", object.name},
                      {"kind", kind.name},
                      {"role", static_cast<int>(object.role)},
                      {"layer", object.layer},
                      {"at", px(object.position)},
                      {"there", is_there(map, object, options_.merging.facts)},
                      {"words", prober.object(o)}};
            const Mover* mover = mover_of(world_, map, object);
            if (!object.area.empty()) json["area"] = rings_of(object.area);
            if (mover != nullptr) json["body"] = rings_of(moved(mover->body, object.position));
            if (!object.line.empty()) {
                std::vector<std::int32_t> line;
                add_ring(line, object.line);
                json["line"] = line;
            }
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

    Json map_data(const Map& whole) {
        const Map map = options_.area ? cropped(whole, *options_.area) : whole;
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
        add_stacks(json, map, prober);
        add_page_ground(json, world_, map, options_);
        json["objects"] = objects_of(map, prober);
        json["findings"] = Json::array();
        for (const Finding& finding : report_.findings())
            if (finding.map == map.name) json["findings"].push_back(finding_data(finding, &map));
        return json;
    }

    const World& world_;
    const Report& report_;
    const DrawOptions& options_;
    Art art_;
    Json tiles_ = Json::array(), pictures_ = Json::array();
    std::map<std::pair<int, int>, int> tile_numbers_;
    std::map<std::string, int> picture_numbers_;
};

}   // namespace

std::string page_data(const World& world, std::span<const std::string> maps, const Report& report,
                      const ArtSource& source, const DrawOptions& options) {
    return WorldData(world, source, report, options).all(maps);
}

}   // namespace dryground::drawing
