// A map in characters. Each character stands for a half cell, a cell, or a block of cells: which barrier fills half of
// it or more, what stands there, which finding is there. Digits are only used for findings.

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>

#include "art_internal.hpp"
#include "dryground/text.hpp"
#include "picture_internal.hpp"

namespace dryground {

namespace drawing {

namespace {

constexpr std::string_view role_letters = "STLOE";   // by Role
constexpr int samples = 8;                           // a side, of each half of a cell
constexpr std::size_t most_findings = 99;

struct Glyph {
    char character = ' ';
    std::optional<Colour> ground{};   // of the art
    bool is_finding = false, is_object = false;
};

class Characters {
public:
    Characters(const World& world, const Map& whole, const Report& report, const ArtSource& art,
               const DrawOptions& options, const CharacterOptions& characters)
        : world_(world),
          map_(options.area ? cropped(whole, *options.area) : whole),
          counting_(options.layers.empty() ? std::nullopt : std::optional(with_ground_of_layers(map_, options))),
          options_(options),
          colours_(characters.colours),
          art_(world, art, 1, false) {
        const int margin = shows(Thing::grid) ? number_width() + 1 : 0;
        const int room = std::max(characters.width, 20) - margin;
        per_cell_ = map_.columns * 2 <= room ? 2 : 1;
        if (map_.columns > room) block_ = (map_.columns + room - 1) / room;
        wide_ = block_ == 1 ? map_.columns * per_cell_ : (map_.columns + block_ - 1) / block_;
        rows_per_line_ = block_ == 1 ? 1 : 2 * block_;   // a character is about twice as high as wide
        high_ = (map_.rows + rows_per_line_ - 1) / rows_per_line_;
        glyphs_.resize(static_cast<std::size_t>(wide_) * static_cast<std::size_t>(high_));
        if (shows(Thing::art)) put_tiles();
        if (shows(Thing::flags)) put_flags();
        if (shows(Thing::reach)) put_reach();
        if (shows(Thing::merged)) put_ground();
        if (shows(Thing::objects)) put_objects();
        if (shows(Thing::findings)) put_findings(report);
    }

    std::string text() {
        std::string all =
            fmt::format("{}: {} x {} cells from ({}, {})", visible(map_.title.empty() ? map_.name : map_.title),
                        map_.columns, map_.rows, map_.first_column, map_.first_row);
        if (block_ > 1) all += fmt::format(", {} x {} to a character", block_, rows_per_line_);
        all += map_.grid == GridSort::isometric ? "; columns run to the right, rows down\n" : "\n";
        if (shows(Thing::grid)) all += numbers_above();
        for (int line = 0; line < high_; ++line) {
            if (shows(Thing::grid))
                all += fmt::format("{:>{}} ", map_.first_row + line * rows_per_line_, number_width());
            all += line_of(line);
            all.erase(all.find_last_not_of(' ') + 1);
            all += "\n";
        }
        return all + visible(key());
    }

private:
    [[nodiscard]] bool shows(Thing thing) const { return options_.show.count(thing) != 0; }
    [[nodiscard]] int number_width() const {
        return static_cast<int>(std::max(fmt::format("{}", map_.first_row).size(),
                                         fmt::format("{}", map_.first_row + map_.rows - 1).size()));
    }
    [[nodiscard]] Glyph& glyph(int column, int row, int half = 0) {
        const int x = block_ == 1 ? column * per_cell_ + half : column / block_;
        return glyphs_[static_cast<std::size_t>(row / rows_per_line_) * static_cast<std::size_t>(wide_) +
                       static_cast<std::size_t>(x)];
    }

    // Returns the mean colour of a tile's picture.
    std::optional<Colour> colour_of(const Placed& placed) {
        auto [known, is_new] = colour_of_.try_emplace({placed.tileset, placed.tile});
        if (!is_new) return known->second;
        cairo_surface_t* const art = art_.tile(placed.tileset, placed.tile);
        if (art == nullptr) return std::nullopt;
        std::array<double, 4> sums{};
        const int width = cairo_image_surface_get_width(art), height = cairo_image_surface_get_height(art);
        for (int y = 0; y < height; ++y) {
            const auto* const row = reinterpret_cast<const std::uint32_t*>(
                cairo_image_surface_get_data(art) + std::ptrdiff_t{y} * cairo_image_surface_get_stride(art));
            for (int x = 0; x < width; ++x)
                for (std::size_t k = 0; k < 4; ++k) sums[k] += row[x] >> (8 * k) & 255;
        }
        if (sums[3] < 0.3 * 255 * width * height) return std::nullopt;   // hardly anything
        const auto byte = [&](std::size_t k) {
            return static_cast<std::uint8_t>(std::min(255L, std::lround(255 * sums[k] / sums[3])));
        };
        return known->second = Colour{byte(2), byte(1), byte(0)};
    }

    void put_tiles() {
        for (const Layer& layer : map_.layers) {
            if (layer.holds_objects || !is_shown(layer, options_)) continue;
            for (int r = 0; r < map_.rows; ++r)
                for (int c = 0; c < map_.columns; ++c) {
                    const Placed& placed = map_.placed(layer, c, r);
                    if (placed.tile < 0) continue;
                    const auto colour = colours_ ? colour_of(placed) : std::nullopt;
                    for (int half = 0; half < per_cell_; ++half) {
                        Glyph& one = glyph(c, r, half);
                        one.character = '.';
                        if (colour) one.ground = colour;
                    }
                }
        }
    }

    // Puts letters of the flags of each cell, as far as there is room; '+' for more, '_' for none.
    void put_flags() {
        const std::vector<std::string> letters = letters_of_flags(world_);
        for (const StoreyId storey : storeys_told(world_, options_))
            for (int r = 0; r < map_.rows; ++r)
                for (int c = 0; c < map_.columns; ++c) {
                    const Passability say = passability(world_, ground_map(), {c, r}, storey, options_.merging.facts);
                    if (say.flags_layer != LayerId::none && c % block_ == 0 && r % rows_per_line_ == 0)
                        put_flags_of(c, r, say.flags, letters);
                }
    }
    void put_flags_of(int c, int r, FlagSet flags, const std::vector<std::string>& letters) {
        const auto room = static_cast<std::size_t>(block_ == 1 ? per_cell_ : 1);
        std::string text;
        for (std::size_t f = 0; f < letters.size(); ++f)
            if ((flags >> f & 1) != 0) {
                text += letters[f];
                key_[letters[f].front()] = "flag " + world_.flags()[f].name;
            }
        if (text.empty()) text = "_", key_['_'] = "no flags";
        if (text.size() > room) text.resize(room), text.back() = '+', key_['+'] = "more flags than there is room for";
        for (std::size_t i = 0; i < text.size(); ++i) glyph(c, r, static_cast<int>(i)).character = text[i];
    }

    // Marks where a mover's position cannot be: sampled in the middle of each character.
    void put_reach() {
        const MoverId id = mover_for_reach(world_, map_, options_);
        if (id == MoverId::none) return;
        const Mover& mover = world_.mover(id);
        key_['x'] = fmt::format("where the position of {} cannot be", mover.name);
        for (const StoreyId storey : storeys_told(world_, options_)) {
            const Regions closed = reach(blocked_area(world_, ground_map(), id, storey, options_.merging.facts),
                                         mover.body.front().outline);
            for (int r = 0; r < map_.rows; r += rows_per_line_)
                for (int c = 0; c < map_.columns; c += block_)
                    for (int half = 0; half < (block_ == 1 ? per_cell_ : 1); ++half)
                        if (locate(closed, middle_of(c, r, half)) == Side::inside) glyph(c, r, half).character = 'x';
        }
    }
    // Returns the box of a character on the map.
    [[nodiscard]] Point middle_of(int column, int row, int half) const {
        const Point from = map_.corner(column, row), right = map_.corner(column + block_, row),
                    down = map_.corner(column, row + rows_per_line_);
        const int halves = block_ == 1 ? per_cell_ : 1;
        const auto between = [&](std::int32_t start, std::int32_t a, std::int32_t b) {
            return start + (a - start) * (2 * half + 1) / (2 * halves) + (b - start) / 2;
        };
        return {between(from.x, right.x, down.x), between(from.y, right.y, down.y)};
    }

    // How many samples of a cell a group holds: in its left half, in its right half.
    [[nodiscard]] std::array<int, 2> covered(const Group& group, int column, int row) const {
        const Point from = map_.corner(column, row), right = map_.corner(column + 1, row),
                    down = map_.corner(column, row + 1);
        std::array<int, 2> held{};
        const auto between = [](std::int32_t start, std::int32_t a, int u, std::int32_t b, int v) {
            return start + (a - start) * (2 * u + 1) / (4 * samples) + (b - start) * (2 * v + 1) / (2 * samples);
        };
        for (int u = 0; u < 2 * samples; ++u)
            for (int v = 0; v < samples; ++v)
                held[static_cast<std::size_t>(u / samples)] +=
                    locate(group.regions, {between(from.x, right.x, u, down.x, v),
                                           between(from.y, right.y, u, down.y, v)}) != Side::outside;
        return held;
    }

    void put_ground() {
        MergeOptions merging = options_.merging;
        merging.forms = {};
        const ChunkedMerge merged = merge_chunks(world_, ground_map(), 1, merging);
        std::map<std::array<int, 2>, std::map<char, int>> blocks;   // where a character is for several cells
        for (const Chunk& chunk : merged.chunks) {
            const int c = chunk.chunk[0] - map_.first_column, r = chunk.chunk[1] - map_.first_row;
            if (!map_.has(c, r)) continue;
            for (const Group& group : chunk.groups) {
                const char letter = letter_of(group);
                if (!group.lines.empty() && block_ == 1)
                    for (int half = 0; half < per_cell_; ++half) put_letter(c, r, half, letter_of_line(group));
                if (group.regions.empty()) continue;
                const auto [left, right] = covered(group, c, r);
                if (block_ > 1) {
                    blocks[{c / block_, r / rows_per_line_}][letter] += left + right;
                } else if (per_cell_ == 1) {
                    put_share(c, r, 0, left + right, 2, letter);
                } else {
                    put_share(c, r, 0, left, 1, letter);
                    put_share(c, r, 1, right, 1, letter);
                }
            }
        }
        for (const auto& [block, letters] : blocks)
            for (const auto& [letter, held] : letters)
                if (held >= block_ * rows_per_line_ * samples * samples)   // half of all samples
                    put_letter(block[0] * block_, block[1] * rows_per_line_, 0, letter);
    }
    // More than half of a character's samples: the letter; an eighth or more: partly solid.
    void put_share(int c, int r, int half, int held, int halves, char letter) {
        const int all = halves * samples * samples;
        if (2 * held > all) put_letter(c, r, half, letter);
        if (2 * held > all || 8 * held < all || letter == ':') return;
        key_['-'] = "partly solid";
        put_letter(c, r, half, '-');
    }
    void put_letter(int c, int r, int half, char letter) {
        char& there = glyph(c, r, half).character;
        const auto weak = [](char one) { return one == ':' || one == '-'; };
        if (weak(letter) && !std::strchr(" .x_", there) && !weak(there)) return;   // more is shown there already
        there = letter;
    }
    [[nodiscard]] char letter_of(const Group& group) {
        if (!group.trigger.empty()) {
            key_[':'] = "senses";
            return ':';
        }
        const char letter =
            group.barrier_id == BarrierId::none ? '#' : look_of(world_, group.barrier_id, 0, Palette::own).letter;
        key_[letter] = group.barrier_id == BarrierId::none ? "what stops " + group.mover : group.barrier;
        return letter;
    }
    char letter_of_line(const Group& group) {
        const char letter = "|^v<>"[static_cast<std::size_t>(group.one_way)];
        key_[letter] =
            group.one_way == OneWay::none ? "a line" : fmt::format("a line, passed going {}", name_of(group.one_way));
        return letter;
    }

    // The middle of its area or body: feet stand on the border of the cell below.
    [[nodiscard]] Point middle_of(const Object& object) const {
        const auto box = bounds_of(world_, map_, object);
        return box ? Point{(box->least.x + box->most.x) / 2, (box->least.y + box->most.y) / 2} : object.position;
    }

    void put_objects() {
        for (const Object& object : map_.objects) {
            const auto [c, r] = map_.data_cell_at(middle_of(object));
            if (!map_.has(c, r) || !is_shown(map_, object, options_)) continue;
            Glyph& one = glyph(c, r);
            one.character = role_letters[static_cast<std::size_t>(object.role)];
            one.is_object = true;
            key_[one.character] = std::string(name_of(object.role));
        }
    }

    void put_findings(const Report& report) {
        for (const Finding& finding : report.findings()) {
            if (finding.map != map_.name) continue;
            const auto at = cell_of(finding);
            if (options_.area && !at) continue;
            findings_.push_back(&finding);
            if (!at) continue;
            const std::string number =
                findings_.size() <= most_findings ? fmt::format("{}", findings_.size()) : std::string("*");
            if (block_ == 1 && per_cell_ == 2) {
                for (std::size_t i = 0; i < std::min<std::size_t>(number.size(), 2); ++i)
                    mark(glyph((*at).column, (*at).row, static_cast<int>(i)), number[i]);
            } else {
                mark(glyph((*at).column, (*at).row), number.size() == 1 ? number[0] : '*');
            }
        }
    }
    static void mark(Glyph& one, char character) {
        one.character = character;
        one.is_finding = true;
    }
    [[nodiscard]] std::optional<DataCell> cell_of(const Finding& finding) const {
        const ObjectId object = map_.find_object(finding.object);
        const auto place = object != ObjectId::none ? middle_of(map_.object(object)) : place_of(map_, finding);
        if (!place) return std::nullopt;
        const DataCell cell = map_.data_cell_at(*place);
        if (!map_.has(cell)) return std::nullopt;
        return cell;
    }

    [[nodiscard]] std::string numbers_above() const {
        std::string line(static_cast<std::size_t>(number_width() + 1), ' ');
        const std::size_t start = line.size();
        const int step = block_ > 1 ? 10 * block_ : per_cell_ == 2 ? 5 : 10;
        const int first = map_.first_column;
        for (int c = (step - (first % step + step) % step) % step; c < map_.columns; c += step) {
            const std::size_t at = start + static_cast<std::size_t>(block_ == 1 ? c * per_cell_ : c / block_);
            if (line.size() < at) line.resize(at, ' ');
            line += fmt::format("{}", first + c);
        }
        return line + "\n";
    }

    [[nodiscard]] std::string line_of(int line) const {
        std::string all, last;
        for (int x = 0; x < wide_; ++x) {
            const Glyph& one =
                glyphs_[static_cast<std::size_t>(line) * static_cast<std::size_t>(wide_) + static_cast<std::size_t>(x)];
            const std::string paint = colours_ ? paint_of(one) : "";
            if (paint != last) all += paint;
            last = paint;
            all += one.character;
        }
        return colours_ ? all + "\033[0m" : all;
    }
    [[nodiscard]] static std::string paint_of(const Glyph& one) {
        if (one.is_finding) return "\033[0;1;97;41m";
        std::string paint = one.is_object ? "\033[0;1" : "\033[0";
        if (!one.ground) return paint + "m";
        const Colour& c = *one.ground;
        const bool dark = grey_of(c).red < 140;
        return paint + fmt::format(";38;2;{0};{0};{0};48;2;{1};{2};{3}m", dark ? 245 : 10, c.red, c.green, c.blue);
    }

    [[nodiscard]] std::string key() const {
        std::string all, seen;   // just what can be found in it
        for (const Glyph& one : glyphs_)
            if (!one.is_finding && seen.find(one.character) == std::string::npos) seen += one.character;
        const auto is_seen = [&](char letter) { return seen.find(letter) != std::string::npos; };
        for (const auto& [letter, means] : key_)
            if (is_seen(letter)) all += fmt::format("{}{} {}", all.empty() ? "" : "   ", letter, means);
        if (is_seen('.')) all += fmt::format("{}. a tile that stops nobody", all.empty() ? "" : "   ");
        if (!all.empty()) all += "\n";
        for (std::size_t i = 0; i < findings_.size(); ++i) {
            const Finding& one = *findings_[i];
            all += fmt::format(
                "{:>2}  {}: {} [{}]\n    {}{}\n", i + 1, name_of(one.severity), message(one), rule_text(one.rule).name,
                dryground::text(one.place),
                one.hint ? fmt::format("; {}{}", one.hint->text, one.hint->set.empty() ? "" : ": " + one.hint->set)
                         : "");
        }
        return all;
    }

    const World& world_;
    Map map_;
    std::optional<Map> counting_;   // where only some layers count
    [[nodiscard]] const Map& ground_map() const { return counting_ ? *counting_ : map_; }
    const DrawOptions& options_;
    bool colours_;
    Art art_;
    int per_cell_ = 2, block_ = 1, rows_per_line_ = 1, wide_ = 0, high_ = 0;
    std::vector<Glyph> glyphs_;
    std::map<std::pair<int, int>, std::optional<Colour>> colour_of_;
    std::map<char, std::string> key_;
    std::vector<const Finding*> findings_;
};

}   // namespace

}   // namespace drawing

std::string draw_characters(const World& world, const Map& map, const Report& report, const ArtSource& art,
                            const DrawOptions& options, const CharacterOptions& characters) {
    return drawing::Characters(world, map, report, art, options, characters).text();
}

}   // namespace dryground
