// Drafts with every key of the lists set, at random.
#pragma once

#include <fmt/format.h>

#include "chance.hpp"
#include "same_drafts.hpp"

namespace drafts {

class Filler {
public:
    explicit Filler(std::uint64_t round) : dice_(round) {}

    template <class Draft>
    Draft draft() {
        Draft draft;
        if constexpr (requires { draft.name.value; }) draft.name = Name(word());
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if constexpr (std::is_same_v<Is<decltype(key)>, keys::Group>) {
                fill(draft.*member);
            } else {
                key_ = &key;
                fill(draft.*member);
            }
        });
        if constexpr (std::is_same_v<Draft, TileRule>)   // what it sets is like no other tile
            draft.set.like.reset(), draft.set.name = Name();
        if constexpr (std::is_same_v<Draft, LegendEntry>) {   // it means one thing
            LegendEntry one;
            one.key = Name(word());
            one.orientation = draft.orientation;
            switch (dice_.in(0, 4)) {
                case 0:
                    one.tile = draft.tile;
                    break;
                case 1:
                    one.kind = draft.kind;
                    break;
                case 2:
                    one.kinds = draft.kinds, one.weights = draft.weights;
                    break;
                case 3:
                    one.family = draft.family;
                    break;
                default:
                    one.block = draft.block;
                    break;
            }
            return one;
        }
        return draft;
    }

    std::string word() {
        static constexpr std::array words{"sedge", "tern", "ooze", "kelp", "weir", "marl"};
        return fmt::format("{}_{}", words[static_cast<std::size_t>(dice_.in(0, 5))], ++count_);
    }
    void fill(std::vector<Located<std::string>>& into) {   // rows of blocks are Names too: characters as good as words
        into = {Name(said()), Name(said())};
    }

private:
    std::string said() {
        if (key_ != nullptr && !key_->words.empty())
            return std::string(
                key_->words[static_cast<std::size_t>(dice_.in(0, static_cast<int>(key_->words.size()) - 1))]);
        return word();
    }
    double number() { return dice_.in(1, 90) / 4.0 + 0.125; }
    std::vector<std::array<double, 2>> points() { return {{number(), 0}, {number(), 40}, {-number(), 40}}; }

    void fill(std::string& into) { into = key_->is_path ? "art/weir.png" : said(); }
    void fill(MergeForms& into) { into = {MergeForm::boxes, MergeForm::lines}; }
    void fill(bool& into) { into = !into; }   // other than where it is left out
    void fill(int& into) { into = dice_.in(3, 40); }
    void fill(std::uint64_t& into) { into = static_cast<std::uint64_t>(dice_.in(1, 40)); }
    void fill(double& into) { into = number(); }
    void fill(Cell& into) { fill(into.column), fill(into.row); }
    void fill(CellArea& into) { fill(into.column), fill(into.row), fill(into.columns), fill(into.rows); }
    template <class T>
    void fill(Located<T>& into) {
        fill(into.value);
    }
    template <class T>
    void fill(std::optional<T>& into) {
        if constexpr (std::is_same_v<T, bool>)
            into = dice_.once_in(2);
        else if constexpr (Listed<T> && !std::is_same_v<T, ShapeDraft>)
            into = draft<T>();
        else
            fill(into.emplace());
    }
    template <class T, std::size_t n>
    void fill(std::array<T, n>& into) {
        for (T& one : into) fill(one);
    }
    void fill(std::vector<std::string>& into) { into = {said()}; }
    void fill(std::vector<double>& into) { into = {number(), number()}; }
    void fill(Value& into) { into = Value{std::int64_t{dice_.in(0, 9)}}; }
    void fill(Colour& into) { into = {1, 2, static_cast<std::uint8_t>(dice_.in(0, 255))}; }
    void fill(Surface& into) { into = {number(), number()}; }
    void fill(Picture& into) { into.file = "art/weir.png", into.x = number(), into.y = -number(); }
    void fill(Orientation& into) {
        into = {dice_.once_in(2), dice_.once_in(2), static_cast<std::int16_t>(90 * dice_.in(0, 3))};
    }
    void fill(SaidProperties& into) {
        into[word()] = Located<Value>(Value{number()}), into[word()] = Located<Value>(Value{word()});
    }
    void fill(std::map<std::string, Located<std::string>>& sides) {
        sides["top"] = Name(said()), sides["left"] = Name(said());
    }
    void fill(NoteDraft& into) { into = {Name(word()), word()}; }
    void fill(std::pair<Name, ShapeDraft>& into) { into.first = Name(word()), fill(into.second); }
    void fill(std::pair<Name, Located<std::int64_t>>& into) { into = {Name(word()), std::int64_t{dice_.in(0, 99)}}; }
    void fill(std::pair<Name, Located<std::string>>& into) { into = {Name(word()), Name(said())}; }
    void fill(ShapeDraft& into) {
        into = draft<ShapeDraft>();
        if (key_ != nullptr && key_->name == "area") into = ShapeDraft{BoxPx{1, 2, 3, 4}};
    }
    void fill(CarveDraft& into) { into = {Name(word()), ShapeDraft{BoxPx{0, number(), 8, 8}}}; }
    void fill(ObjectCarve& into) {
        into.barrier = Name(word());
        if (dice_.once_in(2)) into.shape = ShapeDraft{EllipsePx{1, 2, number(), 30}};
    }
    void fill(Form& into) {
        static const std::vector<Form> forms{
            WholeCell{},           BoxPx{1, 2, 3, 4.5},           EllipsePx{1, 2, 3, 3},
            EllipsePx{1, 2, 3, 4}, CapsuleBetween{1, 2, 3, 4, 5}, SharedShape{Name("low"), 1.5, 0},
            Traced{77, 1.25}};
        const int pick = dice_.in(0, static_cast<int>(forms.size()) + 1);
        if (pick < static_cast<int>(forms.size()))
            into = forms[static_cast<std::size_t>(pick)];
        else if (pick == static_cast<int>(forms.size()))
            into = PolygonPx{points(), {}};
        else
            into = LinePx{points()};
    }
    void fill(decltype(ObjectDraft::form)& into) {
        switch (dice_.in(0, 6)) {
            case 0:
                into = PointPx{number(), -number()};
                break;
            case 1:
                into = AtCells{dice_.in(-4, 4), 2, 1, 1, false};
                break;
            case 2:
                into = AtCells{1, dice_.in(-4, 4), 2, 3, true};
                break;
            case 3:
                into = PolygonPx{points(), {points()}};
                break;
            case 4:
                into = EllipsePx{1, 2, number(), 30};
                break;
            case 5:
                into = CapsuleBetween{1, 2, 3, 4, number()};
                break;
            default:
                into = LinePx{points()};
                break;
        }
    }
    void fill(decltype(BodyDraft::form)& into) {
        if (dice_.once_in(3))
            into = CapsulePx{number(), number()};
        else if (const double radius = number(); dice_.once_in(2))
            into = EllipsePx{0, 0, radius, radius};
        else
            into = BoxPx{0, 0, radius, number()};
    }
    template <class Draft>
    requires Listed<Draft>
    void fill(Draft& into) { into = draft<Draft>(); }
    template <class Draft>
    void fill(std::vector<Draft>& into) {
        into.clear();
        for (int i = dice_.in(1, 2); i > 0; --i) {
            const keys::Key* const of_list = key_;
            fill(into.emplace_back());
            key_ = of_list;
        }
    }

    chance::Dice dice_;
    const keys::Key* key_ = nullptr;
    int count_ = 0;
};

// A map whose layers hold what can be read back: rows, or objects.
inline MapDraft map_of(Filler& filler) {
    MapDraft map = filler.draft<MapDraft>();
    for (std::size_t i = 0; i < map.layers.size(); ++i) {
        LayerDraft& layer = map.layers[i];
        layer.rows.clear();
        layer.holds_objects = i % 2 == 0;
        if (layer.holds_objects)
            layer.objects = {filler.draft<ObjectDraft>(), filler.draft<ObjectDraft>()};
        else
            layer.rows = {Name("#.."), Name("..é")};
    }
    return map;
}

}   // namespace drafts
