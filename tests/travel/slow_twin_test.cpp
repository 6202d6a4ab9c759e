// Side views beside a slow twin: a plain search over places, moments of a jump and ways to the side, with boxes that
// are told apart on their own. Whatever it gets to is not out of reach.
// Also tests src/travel: search
#include <catch2/catch.hpp>

#include <cmath>
#include <deque>
#include <set>

#include "dryground/travel.hpp"
#include "rambles.hpp"

using namespace dryground;

namespace {

constexpr double cell_px = 16, half_body_px = 5, body_high_px = 14, tiny_px = 1e-6;
constexpr int moments_of_flight = 40;

class SlowTwin {
public:
    SlowTwin(std::vector<std::string> rows, double jump, double leap)
        : rows_(std::move(rows)), jump_(jump), unit_(leap / (2 * moments_of_flight)) {}

    // Stands, by units to the right and px down.
    using Stand = std::pair<int, int>;
    const std::set<Stand>& from(double x, int y) {
        add(static_cast<int>(std::lround(x / unit_)), y);
        while (!open_.empty()) {
            const auto [i, at] = open_.front();
            open_.pop_front();
            for (const int by : {-1, 1}) walk(i, at, by);
            for (const double part : {1.0, 0.6, 0.3})
                if (i % 4 == 0) fly(i, at, jump_ * part);   // from so many places that hardly one is missed
        }
        return stands_;
    }
    [[nodiscard]] double x_of(int i) const { return i * unit_; }

private:
    [[nodiscard]] char at(int column, int row) const {
        if (row < 0 || column < 0 || row >= static_cast<int>(rows_.size()) ||
            column >= static_cast<int>(rows_[0].size()))
            return '#';   // the rim
        return rows_[static_cast<std::size_t>(row)][static_cast<std::size_t>(column)];
    }
    // Whether all that bodies cover from one place to another is free of solids.
    [[nodiscard]] bool is_free(double x, double y, double to_x, double to_y) const {
        const double left = std::min(x, to_x) - half_body_px + tiny_px,
                     right = std::max(x, to_x) + half_body_px - tiny_px,
                     top = std::min(y, to_y) - body_high_px + tiny_px, bottom = std::max(y, to_y) - tiny_px;
        for (int r = cell_of(top); r <= cell_of(bottom); ++r)
            for (int c = cell_of(left); c <= cell_of(right); ++c)
                if (at(c, r) == '#') return false;
        return true;
    }
    // Whether half a px of ground or plank lies right under a body.
    [[nodiscard]] bool is_held(double x, int y) const {
        if (y % static_cast<int>(cell_px) != 0) return false;
        for (int c = cell_of(x - half_body_px + 0.5); c <= cell_of(x + half_body_px - 0.5); ++c)
            if (at(c, cell_of(y)) == '#' || at(c, cell_of(y)) == '_') return true;
        return false;
    }
    static int cell_of(double at_px) { return static_cast<int>(std::floor(at_px / cell_px)); }
    // The highest plank or ground between two heights under a body, that its feet come down on.
    [[nodiscard]] std::optional<int> stopped(double x, double to_x, double from_y, double to_y) const {
        const double left = std::min(x, to_x) - half_body_px, right = std::max(x, to_x) + half_body_px;
        for (int y = cell_of(from_y + cell_px - tiny_px) * static_cast<int>(cell_px); y <= to_y;
             y += static_cast<int>(cell_px))
            for (int c = cell_of(left + tiny_px); c <= cell_of(right - tiny_px); ++c)
                if (const char is = at(c, cell_of(y)); is == '#' || is == '_') return y;
        return std::nullopt;
    }

    void add(int i, int y) {
        if (stands_.insert({i, y}).second) open_.push_back({i, y});
    }
    void walk(int i, int y, int by) {
        if (!is_free(x_of(i), y, x_of(i + by), y)) return;
        is_held(x_of(i + by), y) ? add(i + by, y) : fly(i + by, y, 0);
    }
    // All ways of a jump of some height, or a fall, moment by moment.
    void fly(int i, int y, double height) {
        std::set<int> now{i};
        double from_y = y;
        for (int moment = 1; !now.empty(); ++moment) {
            const double t = static_cast<double>(moment) / moments_of_flight,
                         to_y = y - (4 * std::sqrt(jump_ * height) * t - 4 * jump_ * t * t);
            std::set<int> next;
            for (const int from : now)
                for (const int by : {-2, -1, 0, 1, 2}) step(from, from_y, from + by, to_y, next);
            now = std::move(next);
            from_y = to_y;
        }
    }
    void step(int from, double from_y, int to, double to_y, std::set<int>& next) {
        const double x = x_of(from), to_x = x_of(to);
        const std::optional<int> floor = to_y > from_y ? stopped(x, to_x, from_y, to_y) : std::nullopt;
        if (!floor) {
            if (is_free(x, from_y, to_x, to_y)) next.insert(to);
        } else if (from == to && is_free(x, from_y, x, *floor) && is_held(x, *floor)) {
            add(from, *floor);
        }
    }

    std::vector<std::string> rows_;
    double jump_, unit_;
    std::set<Stand> stands_;
    std::deque<Stand> open_;
};

std::vector<std::string> random_ledges(chance::Dice& dice) {
    std::vector<std::string> rows(9, std::string(12, '.'));
    for (int i = dice.in(6, 16); i > 0; --i) {
        const int c = dice.in(0, 11), r = dice.in(1, 8), wide = dice.in(1, 4);
        const char is = dice.once_in(3) ? '_' : '#';
        for (int k = c; k < std::min(12, c + wide); ++k)
            rows[static_cast<std::size_t>(r)][static_cast<std::size_t>(k)] = is;
    }
    return rows;
}

}   // namespace

TEST_CASE("what a slow search gets to is never called out of reach", "[travel]") {
    std::size_t stands = 0, undecided = 0;
    for (int round = 0; round < chance::rounds(30); ++round) {
        chance::Dice dice(static_cast<std::uint64_t>(round) + 31'000);
        const std::vector<std::string> rows = random_ledges(dice);
        const auto [x, y] = rambles::random_start(dice, rows);
        const int jump = dice.in(10, 50), leap = dice.in(16, 80);
        rambles::Figures figures;
        figures.more = fmt::format("jump_px = {}\nleap_px = {}\nkerb_px = 0\n", jump, leap);
        const World world = worlds::world_of(rambles::one_map(
            rows, fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [{}, {}] }},\n", x, y), figures));
        const Reach found = reach(world);
        if (!found.begins()) continue;
        std::string drawn;
        for (const std::string& row : rows) drawn += row + "\n";
        INFO("round " << round << ", jump " << jump << ", leap " << leap << ", from " << x << ", " << y << "\n"
                      << drawn);
        SlowTwin twin(rows, jump, leap);
        if (y % 16 != 0) continue;
        for (const auto& [i, at] : twin.from(x, y)) {
            const Reached said = found.reached({MapId{0}, StoreyId::ground, {twin.x_of(i), static_cast<double>(at)}});
            INFO("at " << twin.x_of(i) << ", " << at);
            CHECK(said != Reached::no);
            ++stands;
            undecided += said == Reached::not_decided ? 1 : 0;
        }
    }
    CHECK(stands > static_cast<std::size_t>(chance::rounds(30)) * 20);
    CHECK(undecided * 100 < stands * 2);   // nearly all of it is found for sure
}
