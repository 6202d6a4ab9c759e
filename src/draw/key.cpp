// The key below the map: what each hatching, sign and letter means, with figures, and the findings in words.

#include <algorithm>

#include "dryground/text.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

// Lines of the key, one below the other; only drawn on request.
class Key {
public:
    Key(MapPicture& picture, bool draws) : picture_(picture), draws_(draws), y_(picture.key_top) {}

    [[nodiscard]] double height() const { return y_ - picture_.key_top; }

    void group(const std::string& id, const Look& look, const std::string& words) {
        if (draws_) {
            picture_.hatching("key" + id, look, picture_.inks);
            picture_.put(
                "<rect x=\"16\" y=\"{:.1f}\" width=\"34\" height=\"15\" fill=\"url(#key{})\" stroke=\"{}\" "
                "stroke-width=\"2\" stroke-dasharray=\"{}\"/>\n",
                y_, id, look.colour, look.dash);
            picture_.text(58, y_ + 12, words, 13, picture_.inks.text);
        }
        y_ += 22;
    }
    void line(std::size_t number, const std::string& words) {
        if (draws_) {
            picture_.put("<path d=\"M16 {0:.1f}h34\" stroke=\"{1}\" stroke-width=\"3\"/>\n", y_ + 8,
                         picture_.look_of(number).colour);
            picture_.text(58, y_ + 12, words, 13, picture_.inks.text);
        }
        y_ += 22;
    }
    void words(const std::string& words) {
        if (draws_) picture_.text(16, y_ + 11, words, 12, picture_.inks.lines);
        y_ += 18;
    }
    void role(double& x, Role role) {
        if (draws_) {
            picture_.put("<path d=\"{}\" fill=\"{}\"/>\n", mark_path(role, x + 7, y_ + (role == Role::spawn ? 13 : 7)),
                         picture_.inks.roles[static_cast<std::size_t>(role)]);
            picture_.text(x + 22, y_ + 11, name_of(role), 12, picture_.inks.lines);
        }
        x += 34 + text_width(name_of(role), 12);
    }
    void roles() {
        double x = 16;
        for (const Role one : {Role::spawn, Role::trigger, Role::link, Role::solid, Role::entity}) role(x, one);
        if (draws_)
            picture_.text(x + 6, y_ + 11, "dashed: area; thin line: body; dotted: path", 12, picture_.inks.lines);
        y_ += 20;
    }
    void finding(std::size_t number) {
        const Finding& finding = *picture_.findings[number];
        if (draws_) {
            draw_sign(picture_, picture_.inks, 30, y_ + 16, fmt::format("{}", number + 1), finding.severity);
            picture_.text(
                52, y_ + 13,
                fmt::format("{}: {} [{}]", name_of(finding.severity), message(finding), rule_text(finding.rule).name),
                13, picture_.inks.text);
            std::string more = text(finding.place);
            if (finding.hint)
                more += " · " + finding.hint->text + (finding.hint->set.empty() ? "" : ": " + finding.hint->set);
            picture_.text(52, y_ + 28, more, 11, picture_.inks.soft);
        }
        y_ += 36;
    }

private:
    MapPicture& picture_;
    bool draws_;
    double y_;
};

std::string figures(const Group& group, bool whole) {
    std::string name = !group.trigger.empty() ? fmt::format("trigger {}", group.trigger)
                       : !group.mover.empty() ? fmt::format("what stops {}", group.mover)
                                              : group.barrier;
    name += ", " + group.storey;
    if (group.regions.empty()) {
        name += whole ? ": " + counted(group.lines.size(), "line") : ": lines";
        return name + (group.one_way == OneWay::none ? "" : fmt::format(", passed going {}", name_of(group.one_way)));
    }
    if (!whole) return name;
    std::size_t vertices = 0;
    for (const Chain& chain : group.chains) vertices += chain.points.size();
    return fmt::format("{}: {}, {}, {} vertices, {}", name, counted(group.regions.size(), "region"),
                       counted(group.chains.size(), "chain"), vertices, counted(group.pieces.size(), "convex piece"));
}

// For an area, more is merged than is shown.
bool is_seen(const MapPicture& picture, const Group& group) {
    const auto meets = [&](const Ring& ring) {
        const Region region{ring, {}};
        return picture.box(*bounds(std::span(&region, 1))).meets(picture.frame);
    };
    return picture.whole_merge || std::any_of(group.lines.begin(), group.lines.end(), meets) ||
           std::any_of(group.regions.begin(), group.regions.end(),
                       [&](const Region& region) { return meets(region.outline); });
}

void tell_ground(MapPicture& picture, Key& key) {
    if (!picture.merges_at_once()) {   // then the following barriers are unknown
        for (std::size_t b = 0; b < picture.world.barriers().size(); ++b)
            key.group(fmt::format("{}", b), picture.look_of(b), picture.world.barriers()[b].name);
        for (std::size_t t = 0; t < picture.triggers.size(); ++t)
            key.group(fmt::format("t{}", t), picture.look_of(picture.world.barriers().size() + 1 + t),
                      "trigger " + picture.triggers[t]);
        return;
    }
    for (const Group& group : picture.merged().groups)
        if (is_seen(picture, group)) {
            const std::string words = figures(group, picture.whole_merge);
            group.regions.empty() ? key.line(picture.number_of(group), words)
                                  : key.group(picture.hatch_of(group), picture.look_of(group), words);
        }
}

void tell_flags(const MapPicture& picture, Key& key) {
    const std::vector<std::string> letters = letters_of_flags(picture.world);
    std::string words = "flags: – = none granted";
    for (std::size_t f = 0; f < letters.size(); ++f)
        words += fmt::format(", {} = {}", letters[f], picture.world.flags()[f].name);
    key.words(words);
    if (picture.cell_height() < 8) key.words("flags cannot be read at this scale: --area or --scale shows them");
}

void tell_reach(const MapPicture& picture, Key& key) {
    if (const MoverId mover = mover_for_reach(picture.world, picture.map(), picture.options); mover != MoverId::none)
        key.words(fmt::format("dotted ground: where the position of {} cannot be", picture.world.mover(mover).name));
}

void tell_walk(MapPicture& picture, Key& key) {
    if (!picture.walked().begins()) {
        key.words("where it gets to is not known: the world has no start, or it stands in the ground");
        return;
    }
    key.words(
        "solid lines, slanted hatching: where the mover gets to; dotted: where it does not; dashed, crossed: not "
        "decided");
    if (picture.tour()) key.words("thin line with numbers: the way to all goals, step by step");
}

// Lists layers that players never see, which a picture must not present as art.
void tell_helpers(const MapPicture& picture, Key& key) {
    std::string names;
    for (const Layer& layer : picture.map().layers)
        if (!layer.shown && !layer.holds_objects && picture.shows(layer))
            names += (names.empty() ? "" : ", ") + layer.name;
    if (!names.empty()) key.words(fmt::format("crossed boxes: hidden from players (layer {})", names));
}

// Lists the names whose numbers stand on the map, in lines as long as the page allows.
void tell_names(const MapPicture& picture, Key& key) {
    std::string line;
    for (std::size_t i = 0; i < picture.names.size(); ++i) {
        const std::string name = fmt::format("{} {}", i + 1, picture.names[i]);
        if (!line.empty() && text_width(fmt::format("{} · {}", line, name), 12) > picture.page.width - 32)
            key.words(line), line.clear();
        line += (line.empty() ? "" : " · ") + name;
    }
    if (!line.empty()) key.words(line);
}

}   // namespace

double draw_key(MapPicture& picture, bool draws) {
    Key key(picture, draws);
    if (picture.shows(Thing::merged) || picture.shows(Thing::pieces)) tell_ground(picture, key);
    if (picture.shows(Thing::shapes)) key.words("thin outlines: the shapes of tiles; dotted: what a tile carves away");
    if (picture.shows(Thing::reach)) tell_reach(picture, key);
    if (picture.shows(Thing::walk)) tell_walk(picture, key);
    if (picture.shows(Thing::flags)) tell_flags(picture, key);
    if (picture.shows(Thing::sides)) key.words("thick edges: sides that are shut; dashed: passable one way");
    if (picture.shows(Thing::art)) tell_helpers(picture, key);
    if (picture.shows(Thing::objects)) key.roles(), tell_names(picture, key);
    if (picture.labels_left_out > 0)
        key.words(
            fmt::format("{} had no room: --area or --scale shows more", counted(picture.labels_left_out, "name")));
    if (picture.marks_left_out > 0)
        key.words(fmt::format("{} had no room for a mark: --area or --scale shows more",
                              counted(picture.marks_left_out, "finding")));
    const std::size_t told = std::min(picture.findings.size(), most_findings_told);
    for (std::size_t i = 0; i < told; ++i) key.finding(i);
    if (told < picture.findings.size())
        key.words(fmt::format("and {} more, marked by dots: `dryground check` lists all of them",
                              picture.findings.size() - told));
    return key.height();
}

}   // namespace dryground::drawing
