// Inside the files room: the shapes of a drawing.
#pragma once

#include <array>
#include <functional>
#include <optional>
#include <pugixml.hpp>
#include <string>

#include "dryground/builder.hpp"
#include "svg_path_internal.hpp"

namespace dryground::files {

// "<rect> 'wall'".
[[nodiscard]] std::string svg_words_of(const pugi::xml_node& node);

class SvgShapes {
public:
    using Form = decltype(ObjectDraft::form);
    // Called with what is wrong with an element: what, what it is, and what it should be.
    using Tell = std::function<void(const pugi::xml_node&, std::string, std::string, std::string)>;

    // `within_px`: how far curves may leave where they run.
    SvgShapes(double within_px, Tell tell) : within_px_(within_px), tell_(std::move(tell)) {}
    // Vertices move to the nearest so many px across and down; 0: they stay.
    void snap_to(std::array<double, 2> px) { snap_ = px; }

    // Returns nothing if it cannot be read, which is reported. `filled`: what is open is an area, as it appears.
    // Requires one of rect, circle, ellipse, line, polyline, polygon, path.
    [[nodiscard]] std::optional<Form> form_of(const pugi::xml_node& node, const Matrix& transform, bool filled);

private:
    using PointPx2 = std::array<double, 2>;

    double length(const pugi::xml_node& node, const char* name);
    std::vector<PointPx2> points(const pugi::xml_node& node, const Matrix& transform);
    std::optional<Form> rectangle(const pugi::xml_node& node, const Matrix& m);
    std::optional<Form> round(const pugi::xml_node& node, const Matrix& m, double rx, double ry);
    std::optional<Form> path(const pugi::xml_node& node, const std::string& data, const Matrix& m, bool filled = true);
    [[nodiscard]] double snapped(double at, std::size_t axis) const;
    void move_to_grid(Form& form) const;

    double within_px_;
    Tell tell_;
    PointPx2 snap_{0, 0};
    bool good_ = true;   // of the element that is being read
};

}   // namespace dryground::files
