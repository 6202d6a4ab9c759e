// From contacts to what was hit.
//
// Idea: look behind the contact. Without the body's box a short way from the contact into the ground tells whose shape
// lies there: a wall beside the floor does not. Only if that finds nothing (a contact past a corner), the nearest
// counts. With the box of a body that is pushed straight, all that lies in a strip along its side. A side that
// something solid covers is not hit: engines let bodies sink in, so that their contacts at a wall's foot lie below the
// floor.

#include <algorithm>
#include <tuple>

#include "dryground/touch.hpp"
#include "parts_internal.hpp"

namespace dryground {

void Touches::add(const Touch& touch) {
    for (std::size_t i = 0; i < size_; ++i)
        if (touches_[i].is_same(touch)) {
            touches_[i].overlap_px = std::max(touches_[i].overlap_px, touch.overlap_px);
            touches_[i].distance_px = std::min(touches_[i].distance_px, touch.distance_px);
            return;
        }
    if (size_ < most) touches_[size_++] = touch;
}

void Touches::sort() {
    std::sort(touches_.begin(), touches_.begin() + static_cast<std::ptrdiff_t>(size_),
              [](const Touch& a, const Touch& b) {
                  if (a.overlap_px != b.overlap_px) return a.overlap_px > b.overlap_px;
                  if (a.distance_px != b.distance_px) return a.distance_px < b.distance_px;
                  if (a.layer != b.layer) return a.layer > b.layer;
                  return std::tie(a.cell.row, a.cell.column, a.object) < std::tie(b.cell.row, b.cell.column, b.object);
              });
}

namespace play {

int side_of(const Map& map, Vec out) {
    if (map.grid == GridSort::isometric) return out.x >= 0 ? (out.y < 0 ? 0 : 1) : (out.y >= 0 ? 2 : 3);
    if (std::abs(out.x) > std::abs(out.y)) return out.x > 0 ? 1 : 3;
    return out.y < 0 ? 0 : 2;
}

Vec stopped_side(const Piece& piece) {
    const Vec side = vec(ground::stopped_side(piece.points[0], piece.points[1], piece.one_way));
    const double length = std::hypot(side.x, side.y);
    return length > 0 ? side * (1 / length) : side;
}

namespace {

class Toucher {
    static constexpr double sunk = steps_per_px / 2.0;   // how deep bodies may lie in the ground

public:
    Toucher(const World& world, const Map& map, const Solids& solids, const Contact& contact)
        : world_(world),
          map_(map),
          solids_(solids),
          contact_(contact),
          point_{contact.point.x * steps_per_px, contact.point.y * steps_per_px},
          within_(contact.within_px * steps_per_px) {
        const double length = std::hypot(contact.normal.x, contact.normal.y);
        if (length > 0) normal_ = {contact.normal.x / length, contact.normal.y / length};
        knows_normal_ = length > 0;
    }

    void run(Touches& into) {
        constexpr double straight = 0.995;   // about 5 degrees
        if (knows_normal_ && contact_.body && std::max(std::abs(normal_.x), std::abs(normal_.y)) > straight) {
            along_body(into);
            if (!into.empty()) return;
        }
        if (knows_normal_) look_behind(into);
        if (into.empty()) around(into);
    }

private:
    [[nodiscard]] bool counts(const StandingPiece& piece) const {
        if (contact_.mover != MoverId::none) {
            const std::vector<BarrierId>& stopped_by = world_.mover(contact_.mover).stopped_by;
            if (!std::binary_search(stopped_by.begin(), stopped_by.end(), piece.barrier)) return false;
        }
        return piece.piece->one_way == OneWay::none || !knows_normal_ || dot(normal_, stopped_side(*piece.piece)) > 0.3;
    }

    template <class Action>
    void each(Vec least, Vec most, Action action) const {
        solids_.each_near(whole_box(least, most), contact_.storey, [&](const StandingPiece& piece) {
            if (counts(piece)) action(piece, piece.piece->points, vec(piece.at));
        });
    }

    void look_behind(Touches& into) const {
        behind(into, point_, true, Covered::no);
        add_joints(into);
        if (into.empty()) behind(into, point_, false, Covered::no);
        if (!into.empty()) return;
        // Sunk in beside what it is with, or everywhere.
        const Vec along{-normal_.y, normal_.x};
        for (const double part : {0.25, -0.25, 0.5, -0.5, 0.75, -0.75, 1.0, -1.0}) {
            behind(into, point_ + along * (part * within_), true, Covered::no);
            if (!into.empty()) return;
        }
        for (const bool strict : {true, false}) {
            behind(into, point_, strict, Covered::yes);
            if (!into.empty()) return;
        }
    }

    // Where two pieces join, the way into the ground runs between them, inside neither: they are still touched if
    // something of another barrier lies over both.
    void add_joints(Touches& into) const {
        if (into.empty()) return;
        const Touches found = into;
        Touches beside;
        behind(beside, point_, false, Covered::no, false);
        for (const Touch& touch : beside)
            if (std::none_of(found.begin(), found.end(),
                             [&](const Touch& one) { return one.barrier == touch.barrier; }))
                into.add(touch);
    }

    static bool are_same(const StandingPiece& a, const StandingPiece& b) {
        return a.sort == b.sort && a.layer == b.layer && a.object == b.object && a.column == b.column && a.row == b.row;
    }

    // A mover that is stopped by one barrier may not be stopped by another, unless the mover is known.
    [[nodiscard]] bool may_cover(const StandingPiece& piece, const StandingPiece& covered) const {
        return !are_same(piece, covered) && (piece.barrier == covered.barrier || contact_.mover != MoverId::none);
    }

    // Returns whether something else covers the side of a piece that is entered at a point.
    [[nodiscard]] bool is_covered(const StandingPiece& covered, std::span<const Point> ring, Vec by, Vec at) const {
        const Vec along{-normal_.y, normal_.x};
        Span extent{std::numeric_limits<double>::max(), std::numeric_limits<double>::lowest()};
        for (const Point p : ring) {
            const double t = dot(vec(p) + by - at, along);
            extent = {std::min(extent.from, t), std::max(extent.to, t)};
        }
        const double aside = extent.from >= -0.5 ? 0.5 : extent.to <= 0.5 ? -0.5 : 0;   // on its border: toward it
        const Vec front = at + normal_ * sunk + along * aside;
        bool found = false;
        each(front, front, [&](const StandingPiece& piece, std::span<const Point> other, Vec other_by) {
            found = found || (!piece.piece->is_line() && may_cover(piece, covered) &&
                              !inside(other, other_by, front, {0, 0}, true).empty());
        });
        return found;
    }

    [[nodiscard]] Touch touch_of(const StandingPiece& piece, double overlap, double distance) const {
        Touch touch;
        touch.sort = piece.sort;
        touch.layer = piece.layer, touch.object = piece.object, touch.barrier = piece.barrier;
        touch.overlap_px = overlap / steps_per_px, touch.distance_px = distance / steps_per_px;
        int column = piece.column, row = piece.row;
        if (piece.sort == Touched::tile) {
            touch.tile = map_.placed(map_.layer(piece.layer), column, row);
        } else {
            const Vec behind = point_ - normal_ * steps_per_px;
            const auto cell = map_.data_cell_at({step_at(behind.x / steps_per_px), step_at(behind.y / steps_per_px)});
            column = cell.column, row = cell.row;
        }
        touch.cell = map_.cell({column, row});
        const Bounds cell = map_.cell_box(column, row);
        touch.side = side_of(map_, knows_normal_ ? normal_ : point_ - (vec(cell.least) + vec(cell.most)) * 0.5);
        return touch;
    }

    struct Found {
        StandingPiece piece;
        Span span;   // along the body's side
    };
    struct AllFound {
        std::array<Found, Touches::most> found;
        std::size_t count = 0;
        [[nodiscard]] std::span<const Found> all() const { return {found.data(), count}; }
    };

    // Finds all that lies in a strip along the body's side: between two distances from the contact, out of the
    // ground. Lines, which have no inside, are searched around the contact.
    void find_along(Vec least, Vec most, double from, double to, bool with_lines, AllFound& into) const {
        const bool level = is_level();
        const double at = level ? point_.y : point_.x, out = level ? normal_.y : normal_.x;
        (level ? least.y : least.x) = std::min(at + out * from, at + out * to);
        (level ? most.y : most.x) = std::max(at + out * from, at + out * to);
        each(least, most, [&](const StandingPiece& piece, std::span<const Point> ring, Vec by) {
            Vec low = least, high = most;
            if (piece.piece->is_line()) {
                if (!with_lines) return;
                (level ? low.y : low.x) = at - within_;
                (level ? high.y : high.x) = at + within_;
            }
            const Span span = part_in(*piece.piece, ring, by, low, high, level);
            if (span.length() > 0 && into.count < into.found.size()) into.found[into.count++] = {piece, span};
        });
    }

    void along_body(Touches& into) const {
        const bool level = is_level();
        const BoxPx& body = *contact_.body;
        Vec least{body.x * steps_per_px, body.y * steps_per_px},
            most{(body.x + body.width) * steps_per_px, (body.y + body.height) * steps_per_px};
        if (contact_.mover != MoverId::none) keep_to_side(level ? least.x : least.y, level ? most.x : most.y);
        const double slight = steps_per_px / 4.0;   // engines let bodies sink in by so much
        AllFound behind, before;
        find_along(least, most, 0, -within_, true, behind);
        find_along(least, most, sunk, sunk + 1, false, before);
        double longest = 0;
        std::array<double, Touches::most> bare{};
        for (std::size_t i = 0; i < behind.count; ++i)
            longest = std::max(longest, bare[i] = bare_length(behind.found[i], before.all()));
        const double p = level ? point_.x : point_.y;
        for (std::size_t i = 0; i < behind.count; ++i) {
            const Span span = behind.found[i].span;
            if (bare[i] <= 0 || (longest > slight && bare[i] <= slight)) continue;
            into.add(touch_of(behind.found[i].piece, bare[i], std::max({0.0, span.from - p, p - span.to})));
        }
    }

    // Returns how much of it nothing else covers.
    [[nodiscard]] double bare_length(const Found& found, std::span<const Found> covers) const {
        double bare = 0, from = found.span.from;
        while (from < found.span.to) {   // each turn passes a cover, or what is bare up to the next one
            double to = from, next = found.span.to;
            for (const Found& cover : covers) {
                if (!may_cover(cover.piece, found.piece)) continue;
                if (cover.span.from <= from)
                    to = std::max(to, cover.span.to);
                else
                    next = std::min(next, cover.span.from);
            }
            if (to <= from) bare += next - from, to = next;
            from = to;
        }
        return bare;
    }

    // Returns, of the extent of the body's box, the part that its mover's shape has on the side of the contact: for a
    // round one a single point.
    void keep_to_side(double& from, double& to) const {
        const bool level = is_level();
        const Regions& body = world_.mover(contact_.mover).body;
        const Bounds box = *bounds(body);
        const auto across = [&](Point p) { return level ? p.x : p.y; };
        const bool far = (level ? normal_.y : normal_.x) < 0;   // the ground lies toward greater numbers
        const std::int32_t side = level ? (far ? box.most.y : box.least.y) : (far ? box.most.x : box.least.x);
        Span face{std::numeric_limits<double>::max(), std::numeric_limits<double>::lowest()};
        for (const Region& region : body)
            for (const Point p : region.outline)
                if ((level ? p.y : p.x) == side)
                    face = {std::min<double>(face.from, across(p)), std::max<double>(face.to, across(p))};
        to = std::min(to, from + face.to - across(box.least));
        from += face.from - across(box.least);
    }

    [[nodiscard]] bool is_level() const { return std::abs(normal_.y) > std::abs(normal_.x); }   // the ground is

    // Returns how much of a strip a piece lies along; nothing if it only meets the strip's edge.
    static Span part_in(const Piece& piece, std::span<const Point> ring, Vec by, Vec low, Vec high, bool level) {
        const Vec least = vec(piece.box.least) + by, most = vec(piece.box.most) + by;
        if (!piece.is_line() && (least.x >= high.x || low.x >= most.x || least.y >= high.y || low.y >= most.y))
            return {};
        if (piece.is_box)
            return level ? Span{std::max(least.x, low.x), std::min(most.x, high.x)}
                         : Span{std::max(least.y, low.y), std::min(most.y, high.y)};
        const Span span = clipped(ring, by, low, high, level);
        return piece.is_line() || clipped(ring, by, low, high, !level).length() > 0 ? span : Span{};
    }

    enum class Covered { no, yes };

    // Adds the piece that the way into the ground enters at a point; of several only those that it enters first, and
    // what lies over them. Those whose side is covered only on request.
    void behind(Touches& into, Vec at, bool strict, Covered covered, bool with_lines = true) const {
        const Vec way = normal_ * -within_;
        each(corner(false), corner(true), [&](const StandingPiece& piece, std::span<const Point> ring, Vec by) {
            if (piece.piece->is_line()) {
                if (!with_lines) return;
                const Vec near = nearest(ring, by, at), off = near - at;
                const double deep = -dot(off, normal_), beside = std::abs(off.x * normal_.y - off.y * normal_.x);
                if (beside <= (strict ? 0.5 : within_) && std::abs(deep) <= within_)
                    into.add(touch_of(piece, 0, std::abs(deep)));
                return;
            }
            const Span span = inside(ring, by, at, way, strict);
            if (span.empty() || span.length() <= 0) return;
            if (covered == Covered::no && is_covered(piece, ring, by, at)) return;
            const Vec off = nearest(ring, by, point_) - point_;
            if (std::hypot(off.x, off.y) > within_) return;
            into.add(touch_of(piece, 0, span.from * within_));
        });
    }

    // Adds what is nearest, on the side of the ground.
    void around(Touches& into) const {
        each(corner(false), corner(true), [&](const StandingPiece& piece, std::span<const Point> ring, Vec by) {
            const Vec off = nearest(ring, by, point_) - point_;
            const double distance = std::hypot(off.x, off.y);
            if (distance > within_ || (knows_normal_ && -dot(off, normal_) < -0.3 * within_)) return;
            into.add(touch_of(piece, 0, distance));
        });
    }

    [[nodiscard]] Vec corner(bool most) const { return point_ + Vec{within_, within_} * (most ? 1 : -1); }

    const World& world_;
    const Map& map_;
    const Solids& solids_;
    const Contact& contact_;
    Vec point_, normal_;
    double within_;
    bool knows_normal_ = false;
};

}   // namespace

void add_touched(const World& world, const Map& map, const Solids& solids, const Contact& contact, Touches& into) {
    Touches own;
    Toucher(world, map, solids, contact).run(own);
    for (const Touch& touch : own) into.add(touch);
}

}   // namespace play

Touches Play::touched(const Contact& contact) const { return touched(std::span(&contact, 1)); }

Touches Play::touched(std::span<const Contact> contacts) const {
    Touches touches;
    for (const Contact& contact : contacts) play::add_touched(parts_->world, map(), *parts_->solids, contact, touches);
    touches.sort();
    return touches;
}

}   // namespace dryground
