// What random worlds are put together from: numbers, names, texts, areas, bodies, properties, all drawn by chance.
#pragma once

#include <array>

#include "chance.hpp"
#include "dryground/builder.hpp"

namespace random_worlds {

using namespace dryground;

class Parts {
public:
    Parts(std::uint64_t round, bool with_areas) : dice_(round), with_areas_(with_areas) {}

protected:
    double px() { return dice_.in(-640, 1280) / (dice_.once_in(2) ? 16.0 : 64.0); }
    double size() { return dice_.in(64, 512) / (dice_.once_in(2) ? 16.0 : 64.0); }
    std::string word() {   // of any text: letters, quotes, line breaks, signs from elsewhere
        static const std::array<const char*, 9> parts{"tide", " ", "\"", "\\", "\n", "'", "é", "#", "潮"};
        std::string text;
        for (int i = dice_.in(0, 4); i > 0; --i) text += parts[static_cast<std::size_t>(dice_.in(0, 8))];
        return text;
    }
    Names some(std::initializer_list<const char*> of) {
        Names names;
        for (const char* name : of)
            if (dice_.once_in(2)) names.emplace_back(name);
        return names;
    }
    Name one(std::initializer_list<const char*> of) {
        return Name(of.begin()[dice_.in(0, static_cast<int>(of.size()) - 1)]);
    }
    template <class T>
    std::optional<T> maybe(T value) {
        return dice_.once_in(2) ? std::optional<T>(std::move(value)) : std::nullopt;
    }
    std::optional<Surface> surface() {
        if (dice_.once_in(2)) return std::nullopt;
        return Surface{maybe(dice_.in(0, 20) / 10.0), maybe(dice_.in(0, 10) / 10.0)};
    }
    Orientation orientation() {
        return {dice_.once_in(2), dice_.once_in(2), static_cast<std::int16_t>(90 * dice_.in(0, 3))};
    }

    FieldDraft field(const char* name, const char* type, Value standard) {
        FieldDraft field;
        field.name = Name(name);
        field.type = Located<std::string>(type);
        field.standard = Located<Value>(std::move(standard));
        if (type == std::string("choice")) field.of = {Name("calm"), Name("cross")};
        if (type == std::string("number")) field.least = maybe(-1.5);
        field.note = word();
        return field;
    }
    BodyDraft body() {
        BodyDraft body;
        const double wide = size(), high = size();
        switch (dice_.in(0, 2)) {
            case 0:
                body.form = BoxPx{0, 0, wide, high};
                break;
            case 1:
                body.form = EllipsePx{0, 0, wide, wide};
                break;
            default:
                body.form = CapsulePx{wide, high};
                break;
        }
        body.x = px();
        return body;
    }

    // An area, drawn in one of the ways that tiles, kinds and objects share.
    Form area_form() {
        const double x = px(), y = px(), wide = size(), high = size();
        switch (dice_.in(0, 3)) {
            case 0:
                return BoxPx{x, y, wide, high};
            case 1:
                return EllipsePx{x, y, wide, dice_.once_in(2) ? wide : high};
            case 2:
                return CapsuleBetween{x, y, px(), px(), high};
            default:
                return PolygonPx{{{x, y}, {x + wide, y}, {x + wide, y + high}}, {}};
        }
    }
    ShapeDraft shape(bool plain = false) {
        ShapeDraft shape;
        shape.form = area_form();
        if (plain) return shape;
        switch (dice_.in(0, 5)) {
            case 0:
                shape.form = WholeCell{};
                break;
            case 1:
                shape.form = SharedShape{Name("low"), dice_.once_in(2) ? 0 : px(), 0};
                break;
            case 2:
                shape.form = LinePx{{{0, px()}, {16, px()}}};
                shape.one_way = maybe(Located<std::string>("up"));
                break;
            case 3: {
                if (!with_areas_) break;   // in two parts, one with a hole: made in code
                const Region ring{box_region({0, 0}, {512, 512}).outline,
                                  {{{128, 128}, {128, 256}, {256, 256}, {256, 128}}}};
                shape.form = Regions{ring, box_region({640, 0}, {900, 300})};
                break;
            }
            default:
                break;
        }
        if (dice_.once_in(3)) shape.barrier = one({"earth", "brine"});
        if (!shape.barrier && dice_.once_in(4)) shape.trigger = Name("steam");
        shape.surface = surface();
        if (dice_.once_in(4)) shape.within_px = Located<double>(dice_.in(1, 80) / 16.0);
        if (dice_.once_in(3)) shape.orientation = orientation();
        return shape;
    }
    static LegendEntry entry(const char* key, const char* tile) {
        LegendEntry entry;
        entry.key = Located<std::string>(key);
        entry.tile = Name(tile);
        return entry;
    }
    chance::Dice dice_;

private:
    bool with_areas_;
};

}   // namespace random_worlds
