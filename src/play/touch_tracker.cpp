// Touches from frame to frame: which begin, last and end.
//
// Idea. The sorted list of a frame is compared with the one before. Cost: O(n log n) in the contacts of a frame.

#include <algorithm>
#include <tuple>

#include "dryground/touch.hpp"

namespace dryground {

namespace {

auto key(const TouchTracker::Event& event) {
    const Touch& touch = event.touch;
    return std::tuple(event.body, event.feeler, touch.sort, touch.layer, touch.cell.row, touch.cell.column,
                      touch.object);
}
bool before(const TouchTracker::Event& a, const TouchTracker::Event& b) { return key(a) < key(b); }

}   // namespace

void TouchTracker::touch(std::uint64_t body, int feeler, const Touch& touch) {
    now_.push_back({Phase::came, body, feeler, touch});
}

std::span<const TouchTracker::Event> TouchTracker::end_frame() {
    std::sort(now_.begin(), now_.end(), before);
    now_.erase(std::unique(now_.begin(), now_.end(), [](const Event& a, const Event& b) { return key(a) == key(b); }),
               now_.end());
    events_.clear();
    auto old = before_.begin();
    for (Event& event : now_) {
        for (; old != before_.end() && before(*old, event); ++old) {
            events_.push_back(*old);
            events_.back().phase = Phase::went;
        }
        const bool lasts = old != before_.end() && key(*old) == key(event);
        if (lasts) ++old;
        event.phase = lasts ? Phase::stays : Phase::came;
        events_.push_back(event);
    }
    for (; old != before_.end(); ++old) {
        events_.push_back(*old);
        events_.back().phase = Phase::went;
    }
    std::swap(before_, now_);
    now_.clear();
    return events_;
}

void TouchTracker::forget(std::uint64_t body) {
    for (std::vector<Event>* list : {&before_, &now_})
        std::erase_if(*list, [body](const Event& event) { return event.body == body; });
}

}   // namespace dryground
