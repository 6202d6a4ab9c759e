// What a shape overlaps at a place: tiles, objects, the rim and bodies.

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>
#include <tuple>

#include "parts_internal.hpp"

namespace dryground {

namespace {

using play::Vec;
using play::vec;

Overlap overlap_with(const Map& map, const play::StandingPiece& piece) {
    Overlap one;
    one.sort = piece.sort == Touched::tile     ? Overlap::Sort::tile
               : piece.sort == Touched::object ? Overlap::Sort::object
                                               : Overlap::Sort::rim;
    one.barrier = piece.barrier, one.layer = piece.layer, one.object = piece.object;
    if (piece.sort == Touched::tile) {
        one.cell = map.cell({piece.column, piece.row});
        one.tile = map.placed(map.layer(piece.layer), piece.column, piece.row);
    }
    return one;
}

// Convex shapes at a place, and all that they overlap.
class Overlapper {
public:
    Overlapper(std::vector<Ring> pieces, PointPx at, StoreyId storey)
        : pieces_(std::move(pieces)), at_{at.x * steps_per_px, at.y * steps_per_px}, storey_(storey) {
        Vec least{1e300, 1e300}, most{-1e300, -1e300};
        for (const Ring& piece : pieces_)
            for (const Point p : piece) {
                const Vec q = vec(p) + at_;
                least = {std::min(least.x, q.x), std::min(least.y, q.y)};
                most = {std::max(most.x, q.x), std::max(most.y, q.y)};
            }
        box_ = play::whole_box(least, most);
    }

    void add_solids(const Map& map, const play::Solids& solids) {
        solids.each_near(box_, storey_, [&](const play::StandingPiece& piece) {
            if (overlaps(piece.piece->points, vec(piece.at))) found_.push_back(overlap_with(map, piece));
        });
    }
    void add_sensing(const Map& map, const play::Solids& solids) {
        solids.each_sensing(box_, storey_, [&](const play::StandingPiece& piece, const std::string& trigger) {
            if (!overlaps(piece.piece->points, vec(piece.at))) return;
            found_.push_back(overlap_with(map, piece));
            found_.back().trigger = trigger;
        });
    }
    void add_objects(const Map& map, const detail::BoxIndex& objects, const Facts& facts) {
        objects.each_near(box_, [&](std::size_t o) {
            const Object& object = map.objects[o];
            if (object.role == Role::solid || object.storey != storey_ || !is_there(map, object, facts)) return;
            const std::vector<Ring> areas =
                object.area.empty() ? std::vector<Ring>{{object.position}} : convex_pieces(object.area, 64);
            if (std::none_of(areas.begin(), areas.end(), [&](const Ring& ring) { return overlaps(ring, {0, 0}); }))
                return;
            Overlap one;
            one.sort = Overlap::Sort::object, one.layer = object.layer, one.object = id_of<ObjectId>(o);
            found_.push_back(std::move(one));
        });
    }
    void add_bodies(const World& world, std::span<const BodyNow> bodies) {
        for (const BodyNow& body : bodies) {
            const Mover& mover = world.movers().at(index(body.mover));
            if (body.storey != storey_ ||
                !overlaps(mover.body.front().outline, {body.position.x * steps_per_px, body.position.y * steps_per_px}))
                continue;
            Overlap one;
            one.sort = Overlap::Sort::body, one.body = body.id, one.mover = body.mover;
            found_.push_back(std::move(one));
        }
    }

    std::vector<Overlap> take() {
        const auto key = [](const Overlap& o) {
            return std::tie(o.sort, o.layer, o.cell.row, o.cell.column, o.object, o.body, o.barrier, o.trigger);
        };
        std::sort(found_.begin(), found_.end(), [&](const Overlap& a, const Overlap& b) { return key(a) < key(b); });
        found_.erase(std::unique(found_.begin(), found_.end()), found_.end());
        return std::move(found_);
    }

private:
    [[nodiscard]] bool overlaps(std::span<const Point> ring, Vec by) const {
        return std::any_of(pieces_.begin(), pieces_.end(), [&](const Ring& piece) {
            if (ring.size() == 1) return !play::inside(piece, at_, vec(ring[0]) + by, {0, 0}, true).empty();
            return play::first_overlap(piece, at_, {0, 0}, ring, by) == 0;
        });
    }

    std::vector<Ring> pieces_;
    Vec at_;
    StoreyId storey_;
    Bounds box_{};
    std::vector<Overlap> found_;
};

}   // namespace

std::vector<Overlap> Play::overlaps(const Regions& shape, PointPx at, StoreyId storey,
                                    std::span<const BodyNow> bodies) const {
    if (shape.empty()) return {};
    Overlapper overlapper(convex_pieces(shape, 64), at, storey);
    overlapper.add_solids(map(), *parts_->solids);
    overlapper.add_sensing(map(), *parts_->solids);
    overlapper.add_objects(map(), parts_->objects, parts_->done.facts);
    overlapper.add_bodies(world(), bodies);
    return overlapper.take();
}

std::vector<Overlap> Play::overlaps(MoverId mover, PointPx at, StoreyId storey, std::span<const BodyNow> bodies) const {
    return overlaps(play::mover_of(world(), mover).body, at, storey, bodies);
}

std::vector<Overlap> Play::senses(MoverId mover_id, std::string_view feeler_name, PointPx at, StoreyId storey,
                                  std::span<const BodyNow> bodies) const {
    const Mover& mover = play::mover_of(world(), mover_id);
    const auto feeler = std::find_if(mover.feelers.begin(), mover.feelers.end(),
                                     [&](const Feeler& one) { return one.name == feeler_name; });
    if (feeler == mover.feelers.end())
        throw std::out_of_range(
            fmt::format("dryground::Play::senses: mover '{}' has no feeler '{}'", mover.name, feeler_name));
    Overlapper overlapper({feeler->area.front().outline}, at, storey);
    overlapper.add_solids(map(), *parts_->solids);
    overlapper.add_bodies(world(), bodies);
    std::vector<Overlap> found = overlapper.take();
    std::erase_if(found, [&](const Overlap& one) {
        const auto is_in = [](const auto& ids, auto id) { return std::binary_search(ids.begin(), ids.end(), id); };
        return one.sort == Overlap::Sort::body ? !is_in(feeler->senses_movers, one.mover)
                                               : !is_in(feeler->senses, one.barrier);
    });
    return found;
}

}   // namespace dryground
