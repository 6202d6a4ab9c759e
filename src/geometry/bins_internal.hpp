// Inside the geometry room: finds which lines may meet, by the bins that they pass.
#pragma once

#include <algorithm>
#include <cmath>
#include <span>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

struct Line {   // the geometry of one or several equal edges
    Point a, b;
};

// A grid with about one bin per line. Lines are entered in every bin that they pass, with a margin of two steps. The
// ratio of a bin's height to its width is that of the lines on average, so that a comb of long teeth has high bins. If
// many lines still fall into one bin (a heap of them and something far away), columns and rows are redrawn, each
// through the same number of line ends; with more rows than columns if lines pass more ends sideways than downwards.
class Bins {
public:
    explicit Bins(std::span<const Line> lines) : lines_(lines) {
        Point least = lines.front().a, most = least;
        double sum_x = 0, sum_y = 0;
        for (const Line& line : lines) {
            for (const Point p : {line.a, line.b}) {
                least = {std::min(least.x, p.x), std::min(least.y, p.y)};
                most = {std::max(most.x, p.x), std::max(most.y, p.y)};
            }
            sum_x += std::abs(double{0} + line.b.x - line.a.x), sum_y += double{0} + line.b.y - line.a.y;
        }
        const double count = static_cast<double>(lines.size());
        const double width = double{0} + most.x - least.x + 1, height = double{0} + most.y - least.y + 1;
        const double ratio = (sum_y / count + margin) / (sum_x / count + margin);
        const double wanted = std::sqrt(width * height / count / ratio);
        columns_.spread(least.x, width, std::max(wanted, width / count), count);
        rows_.spread(least.y, height, std::max(wanted * ratio, height / count), count);
        enter();
        constexpr double crowded = 64;   // lines in the bin of a line, on the mean
        if (pairs() > crowded * count) {
            const Ends x(lines, &Point::x), y(lines, &Point::y);
            const double sides = std::sqrt(y.part_of_all / x.part_of_all);
            columns_.spread_by_ends(x.sorted, std::sqrt(2 * count) * sides);
            rows_.spread_by_ends(y.sorted, std::sqrt(2 * count) / sides);
            enter();
        }
    }

    [[nodiscard]] std::size_t count() const { return starts_.size() - 1; }
    [[nodiscard]] std::span<const std::size_t> lines_in(std::size_t bin) const {
        return std::span(entries_).subspan(starts_[bin], starts_[bin + 1] - starts_[bin]);
    }
    [[nodiscard]] std::size_t bin_of(Point p) const {
        return rows_.number(p.y) * columns_.count() + columns_.number(p.x);
    }

private:
    static constexpr double margin = 2;

    // Returns the ends of lines along one axis, each once, and how many of them a line passes on average, as a fraction
    // of all. A sample of many lines is enough.
    struct Ends {
        Ends(std::span<const Line> all, std::int32_t Point::*of) {
            constexpr std::size_t enough = 8192;
            std::vector<Line> lines;
            const std::size_t step = all.size() / enough + 1;
            for (std::size_t i = 0; i < all.size(); i += step) lines.push_back(all[i]);
            for (const Line& line : lines)
                sorted.insert(sorted.end(), {double{0} + line.a.*of, double{0} + line.b.*of});
            std::sort(sorted.begin(), sorted.end());
            sorted.erase(std::unique(sorted.begin(), sorted.end()), sorted.end());
            const auto place = [&](Point p) { return std::lower_bound(sorted.begin(), sorted.end(), p.*of); };
            double passed = 0;
            for (const Line& line : lines) passed += std::abs(static_cast<double>(place(line.b) - place(line.a))) + 1;
            part_of_all = passed / static_cast<double>(lines.size() * sorted.size());
        }
        std::vector<double> sorted;
        double part_of_all = 1;
    };

    // How one axis is divided: evenly, or at borders.
    class Axis {
    public:
        void spread(double least, double all, double size, double lines) {
            least_ = least;
            size_ = std::max({size, 8.0, all / std::max(64.0, 2 * lines)});
            count_ = static_cast<std::size_t>(all / size_) + 1;
        }
        void spread_by_ends(std::span<const double> sorted, double parts) {
            const auto step =
                static_cast<std::size_t>(std::ceil(static_cast<double>(sorted.size()) / std::max(parts, 1.0)));
            borders_.clear();
            for (std::size_t i = step; i < sorted.size(); i += step) borders_.push_back(sorted[i]);
            count_ = borders_.size() + 1;
        }
        [[nodiscard]] std::size_t count() const { return count_; }
        [[nodiscard]] std::size_t number(double at) const {
            if (!borders_.empty())
                return static_cast<std::size_t>(std::upper_bound(borders_.begin(), borders_.end(), at) -
                                                borders_.begin());
            return std::min(static_cast<std::size_t>(std::max((at - least_) / size_, 0.0)), count_ - 1);
        }
        // Returns where a part begins; far away before the first and after the last.
        [[nodiscard]] double begin(std::size_t part) const {
            constexpr double far = 1e12;
            if (part == 0) return -far;
            if (part >= count_) return far;
            return borders_.empty() ? least_ + static_cast<double>(part) * size_ : borders_[part - 1];
        }

    private:
        double least_ = 0, size_ = 1;
        std::size_t count_ = 1;
        std::vector<double> borders_;   // where all but the first begin; none: evenly
    };

    void enter() {
        starts_.assign(columns_.count() * rows_.count() + 1, 0);
        for (const Line& line : lines_) visit(line, [&](std::size_t bin) { ++starts_[bin + 1]; });
        for (std::size_t i = 1; i < starts_.size(); ++i) starts_[i] += starts_[i - 1];
        entries_.resize(starts_.back());
        std::vector<std::size_t> next(starts_.begin(), starts_.end() - 1);
        for (std::size_t i = 0; i < lines_.size(); ++i)
            visit(lines_[i], [&](std::size_t bin) { entries_[next[bin]++] = i; });
    }
    [[nodiscard]] double pairs() const {
        double sum = 0;
        for (std::size_t bin = 0; bin + 1 < starts_.size(); ++bin) {
            const double lines = static_cast<double>(starts_[bin + 1] - starts_[bin]);
            sum += lines * lines;
        }
        return sum;
    }

    // Doubles only choose bins here; the margin is far larger than their rounding error.
    template <class Action>
    void visit(const Line& line, Action action) const {
        const double ax = line.a.x, ay = line.a.y, bx = line.b.x, by = line.b.y;
        const double slope = by > ay ? (bx - ax) / (by - ay) : 0;
        for (std::size_t r = rows_.number(ay - margin), last = rows_.number(by + margin); r <= last; ++r) {
            const double top = std::clamp(rows_.begin(r) - margin, ay, by);
            const double bottom = std::clamp(rows_.begin(r + 1) + margin, ay, by);
            double left = by > ay ? ax + (top - ay) * slope : ax;
            double right = by > ay ? ax + (bottom - ay) * slope : bx;
            if (left > right) std::swap(left, right);
            for (std::size_t c = columns_.number(left - margin), end = columns_.number(right + margin); c <= end; ++c)
                action(r * columns_.count() + c);
        }
    }

    std::span<const Line> lines_;
    Axis columns_, rows_;
    std::vector<std::size_t> starts_, entries_;
};

}   // namespace dryground::detail
