// What differs between two versions of a world.
//
// Idea. What is named in the world's file and in tile sets is compared as we would write it, key by key, so that it
// does not matter how it was written. Maps are compared as they are: cells by what stands on them, objects by their
// names. Cost: in proportion to both versions.

#include "dryground/compare.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "../files/write_keys_internal.hpp"
#include "../model/cell_keys_internal.hpp"
#include "dryground/check.hpp"
#include "dryground/merge.hpp"
#include "key_texts_internal.hpp"

namespace dryground {

namespace {

using work::KeyTexts;

class Comparer {
public:
    Comparer(const Version& before, const Version& after) : before_(before), after_(after) {}

    Comparison run() {
        compare_world();
        compare_tilesets();
        for (const Map& map : after_.world.maps())
            if (const Map* old = map_of(before_.world, map.name))
                compare_maps(*old, map);
            else
                add(Difference::added, {}, "map", map.name);
        for (const Map& map : before_.world.maps())
            if (map_of(after_.world, map.name) == nullptr) add(Difference::removed, {}, "map", map.name);
        compare_findings();
        return std::move(result_);
    }

private:
    static const Map* map_of(const World& world, const std::string& name) {
        for (const Map& map : world.maps())
            if (map.name == name) return &map;
        return nullptr;
    }
    void add(Difference difference, const std::string& map, const std::string& sort, const std::string& name,
             std::string words = {}) {
        result_.things.push_back({difference, map, sort, name, std::move(words)});
    }

    // ---- what is named ----

    // Compares the things in a table: "kinds" holds a "kind".
    void compare_named(const KeyTexts& before, const KeyTexts& after, const std::string& table, const std::string& sort,
                       const std::string& prefix = {}) {
        const std::vector<std::string> old = work::names_in(before, table), now = work::names_in(after, table);
        std::set<std::string> all(old.begin(), old.end());
        all.insert(now.begin(), now.end());
        for (const std::string& name : all) {
            const bool was = std::binary_search(old.begin(), old.end(), name);
            const bool is = std::binary_search(now.begin(), now.end(), name);
            const std::vector<std::string> keys = work::changed_keys(before, after, fmt::format("{}.{}", table, name));
            if (keys.empty()) continue;
            std::string words = was && is ? fmt::format("{}", fmt::join(keys, ", ")) : std::string();
            add(!was  ? Difference::added
                : !is ? Difference::removed
                      : Difference::changed,
                {}, sort, prefix + name, std::move(words));
        }
    }
    void compare_world() {
        const KeyTexts before = work::key_texts(files::world_toml(before_.drafts.world_draft(), {}, {}));
        const KeyTexts after = work::key_texts(files::world_toml(after_.drafts.world_draft(), {}, {}));
        static constexpr std::pair<const char*, const char*> tables[] = {{"barriers", "barrier"},
                                                                         {"flags", "flag"},
                                                                         {"storeys", "storey"},
                                                                         {"movers", "mover"},
                                                                         {"facts", "fact"},
                                                                         {"events", "event"},
                                                                         {"kinds", "kind"},
                                                                         {"map_props", "map property"},
                                                                         {"layer_props", "layer property"}};
        for (const auto& [table, sort] : tables) compare_named(before, after, table, sort);
        std::set<std::string> keys;
        for (const KeyTexts* said : {&before, &after})
            for (const auto& [path, value] : *said) {
                const std::string root = path.substr(0, path.find('.'));
                const bool is_table = std::any_of(std::begin(tables), std::end(tables),
                                                  [&](const auto& one) { return root == one.first; });
                if (!is_table && root != "tilesets" && root != "maps") keys.insert(path);
            }
        for (const std::string& key : keys) {
            const auto was = before.find(key), is = after.find(key);
            const std::string old = was == before.end() ? "" : was->second, now = is == after.end() ? "" : is->second;
            if (old == now) continue;
            add(old.empty()   ? Difference::added
                : now.empty() ? Difference::removed
                              : Difference::changed,
                {}, "key", key, old.empty() || now.empty() ? old + now : fmt::format("from {} to {}", old, now));
        }
    }
    void compare_tilesets() {
        std::map<std::string, KeyTexts> before, after;
        for (const TileSetDraft& set : before_.drafts.tileset_drafts())
            before[set.name.value] = work::key_texts(files::tileset_toml(set, ""));
        for (const TileSetDraft& set : after_.drafts.tileset_drafts())
            after[set.name.value] = work::key_texts(files::tileset_toml(set, ""));
        for (const auto& [name, said] : after)
            if (before.count(name) == 0) add(Difference::added, {}, "tile set", name);
        for (const auto& [name, said] : before) {
            const auto now = after.find(name);
            if (now == after.end()) {
                add(Difference::removed, {}, "tile set", name);
                continue;
            }
            for (const auto& [table, sort] : {std::pair{"tiles", "tile"}, std::pair{"families", "family"},
                                              std::pair{"blocks", "block"}, std::pair{"shapes", "shape"}})
                compare_named(said, now->second, table, sort, name + "/");
        }
    }

    // ---- maps ----

    void compare_maps(const Map& old, const Map& now) {
        const KeyTexts before = keys_of(*draft_of(before_, old.name)), after = keys_of(*draft_of(after_, now.name));
        for (const std::string& key : differing(before, after)) {
            const auto was = before.find(key), is = after.find(key);
            add(was == before.end() ? Difference::added
                : is == after.end() ? Difference::removed
                                    : Difference::changed,
                now.name, key, now.name,
                was == before.end() ? is->second
                : is == after.end() ? was->second
                                    : fmt::format("from {} to {}", was->second, is->second));
        }
        compare_layers(old, now);
        compare_objects(old, now);
        compare_ground(old, now);
    }
    static const Layer* layer_of(const Map& map, const std::string& name) {
        for (const Layer& layer : map.layers)
            if (layer.name == name) return &layer;
        return nullptr;
    }
    void compare_layers(const Map& old, const Map& now) {
        const MapDraft *was = draft_of(before_, old.name), *is = draft_of(after_, now.name);
        for (const Layer& layer : now.layers) {
            const Layer* other = layer_of(old, layer.name);
            if (other == nullptr) {
                add(Difference::added, now.name, "layer", layer.name);
                continue;
            }
            if (other->holds_objects == layer.holds_objects && !layer.holds_objects)
                compare_cells(old, *other, now, layer);
            const std::vector<std::string> keys = differing(keys_of(*was, layer.name), keys_of(*is, layer.name));
            if (!keys.empty())
                add(Difference::changed, now.name, "layer", layer.name, fmt::format("{}", fmt::join(keys, ", ")));
        }
        for (const Layer& layer : old.layers)
            if (layer_of(now, layer.name) == nullptr) add(Difference::removed, now.name, "layer", layer.name);
    }
    static const MapDraft* draft_of(const Version& version, const std::string& name) {
        for (const MapDraft& draft : version.drafts.map_drafts())
            if (draft.name.value == name) return &draft;
        return nullptr;
    }
    // Returns the keys of a draft, with their values.
    template <class Draft>
    static KeyTexts keys_of(const Draft& draft) {
        files::toml_text::Pairs pairs;
        files::KeyWriter("").write(pairs, draft);
        return work::key_texts(pairs.lines());
    }
    // Returns those of a layer, without what is on it.
    static KeyTexts keys_of(const MapDraft& map, const std::string& name) {
        for (const LayerDraft& layer : map.layers)
            if (layer.name.value == name) return keys_of(layer);
        return {};
    }
    static std::vector<std::string> differing(const KeyTexts& before, const KeyTexts& after) {
        std::vector<std::string> keys;
        for (const auto& [path, text] : before)
            if (const auto same = after.find(path); same == after.end() || same->second != text) keys.push_back(path);
        for (const auto& [path, text] : after)
            if (before.count(path) == 0) keys.push_back(path);
        std::sort(keys.begin(), keys.end());
        return keys;
    }

    // Returns for each entry of a map's palette a number that is the same for the same tile in the same turn in both
    // versions.
    std::vector<int> numbers_of(const World& world, const Map& map) {
        std::vector<int> numbers;
        for (const Placed& placed : map.palette) {
            std::string words;
            if (placed.tile >= 0)
                words = fmt::format("{}/{}{}", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                                    world.tile(placed).name, words_of(placed.orientation));
            numbers.push_back(tiles_.try_emplace(std::move(words), static_cast<int>(tiles_.size())).first->second);
        }
        return numbers;
    }
    void compare_cells(const Map& old, const Layer& was, const Map& now, const Layer& is) {
        const std::vector<int> old_numbers = numbers_of(before_.world, old), numbers = numbers_of(after_.world, now);
        const int nothing = numbers_of(after_.world, Map{}).front();   // its palette holds just that
        const auto on_cell = [&](const Map& map, const Layer& layer, const std::vector<int>& of, int column, int row) {
            const int c = column - map.first_column, r = row - map.first_row;
            return c < 0 || r < 0 || c >= map.columns || r >= map.rows ? nothing : of[map.number(layer, c, r)];
        };
        const int left = std::min(old.first_column, now.first_column), top = std::min(old.first_row, now.first_row);
        const int right = std::max(old.first_column + old.columns, now.first_column + now.columns);
        const int bottom = std::max(old.first_row + old.rows, now.first_row + now.rows);
        std::set<std::pair<int, int>> changed;   // row, column
        for (int r = top; r < bottom; ++r)
            for (int c = left; c < right; ++c)
                if (on_cell(old, was, old_numbers, c, r) != on_cell(now, is, numbers, c, r)) changed.insert({r, c});
        if (changed.empty()) return;
        CellsChanged cells{now.name, is.name, changed.size(), {}};
        while (!changed.empty()) {
            std::vector<std::pair<int, int>> open{*changed.begin()};
            changed.erase(changed.begin());
            int c0 = open[0].second, c1 = c0, r0 = open[0].first, r1 = r0;
            while (!open.empty()) {
                const auto [r, c] = open.back();
                open.pop_back();
                c0 = std::min(c0, c), c1 = std::max(c1, c), r0 = std::min(r0, r), r1 = std::max(r1, r);
                for (const auto& next :
                     {std::pair{r - 1, c}, std::pair{r + 1, c}, std::pair{r, c - 1}, std::pair{r, c + 1}})
                    if (changed.erase(next) > 0) open.push_back(next);
            }
            cells.places.push_back({c0, r0, c1 - c0 + 1, r1 - r0 + 1});
        }
        result_.cells.push_back(std::move(cells));
    }

    static std::string kind_of(const World& world, const Object& object) {
        return object.kind != KindId::none ? world.kind(object.kind).name : std::string(name_of(object.role));
    }
    static std::string place_of(const Object& object) {
        const auto px = [](std::int32_t steps) { return static_cast<double>(steps) / steps_per_px; };
        return fmt::format("[{:g}, {:g}]", px(object.position.x), px(object.position.y));
    }
    static const Object* object_of(const Map& map, const std::string& name) {
        for (const Object& object : map.objects)
            if (object.name == name) return &object;
        return nullptr;
    }
    static KeyTexts keys_of_object(const Version& version, const std::string& map, const std::string& name) {
        for (const LayerDraft& layer : draft_of(version, map)->layers)
            for (const ObjectDraft& object : layer.objects)
                if (object.name.value == name) return keys_of(object);
        return {};
    }
    void compare_objects(const Map& old, const Map& now) {
        std::map<std::pair<std::string, std::string>, int> unnamed;   // kind and place: how many more there are now
        for (const Object& object : now.objects) {
            if (object.name.empty()) {
                ++unnamed[{kind_of(after_.world, object), place_of(object)}];
                continue;
            }
            const Object* was = object_of(old, object.name);
            if (was == nullptr)
                add(Difference::added, now.name, "object", object.name,
                    fmt::format("{} at {}", kind_of(after_.world, object), place_of(object)));
            else if (was->position != object.position)
                add(Difference::moved, now.name, "object", object.name,
                    fmt::format("from {} to {}", place_of(*was), place_of(object)));
            else if (const std::vector<std::string> keys = differing(keys_of_object(before_, old.name, object.name),
                                                                     keys_of_object(after_, now.name, object.name));
                     !keys.empty())
                add(Difference::changed, now.name, "object", object.name, fmt::format("{}", fmt::join(keys, ", ")));
        }
        for (const Object& object : old.objects)
            if (object.name.empty())
                --unnamed[{kind_of(before_.world, object), place_of(object)}];
            else if (object_of(now, object.name) == nullptr)
                add(Difference::removed, now.name, "object", object.name,
                    fmt::format("{} at {}", kind_of(before_.world, object), place_of(object)));
        for (const auto& [what, more] : unnamed)
            for (int i = 0; i < std::abs(more); ++i)
                add(more > 0 ? Difference::added : Difference::removed, now.name, "object", "",
                    fmt::format("{} at {}", what.first, what.second));
    }

    void compare_ground(const Map& old, const Map& now) {
        std::map<std::pair<std::string, std::string>, std::pair<double, double>> areas;
        const auto add_areas = [&](const World& world, const Map& map, double std::pair<double, double>::*side) {
            for (const Group& group : merge(world, map).groups)
                if (!group.barrier.empty())
                    areas[{group.storey, group.barrier}].*side +=
                        static_cast<double>(twice_area(group.regions)) / (2.0 * steps_per_px * steps_per_px);
        };
        add_areas(before_.world, old, &std::pair<double, double>::first);
        add_areas(after_.world, now, &std::pair<double, double>::second);
        for (const auto& [group, area] : areas)
            if (area.first != area.second)
                result_.ground.push_back({now.name, group.first, group.second, area.first, area.second});
    }

    void compare_findings() {
        result_.new_findings = findings_only_in(after_.report, before_.report);
        result_.fixed_findings = findings_only_in(before_.report, after_.report);
    }

    const Version &before_, &after_;
    std::map<std::string, int> tiles_;
    Comparison result_;
};

constexpr std::array<std::string_view, 4> difference_words{"added", "removed", "moved", "changed"};

}   // namespace

std::string_view name_of(Difference difference) { return difference_words[static_cast<std::size_t>(difference)]; }

Result<Version> load_version(const std::string& world_file, const FileReader& reader) {
    Result<WorldDrafts> drafts = load_drafts(world_file, reader);
    if (!drafts) return drafts.failure();
    const Result<World> loaded = drafts->builder.build();
    if (!loaded) return loaded.failure();
    Report report = loaded.report();
    report.add(check(*loaded, {pictures_of(world_file, reader)}));
    return Version{*loaded, std::move(drafts->builder), std::move(report)};
}

bool Comparison::empty() const {
    return things.empty() && cells.empty() && ground.empty() && new_findings.empty() && fixed_findings.empty();
}

Comparison compare(const Version& before, const Version& after) { return Comparer(before, after).run(); }

}   // namespace dryground
