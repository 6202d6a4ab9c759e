// GeoJSON (RFC 7946): a feature for each form of each group, rings closed, holes the other way around. WKT (OGC simple
// features): the same as CSV with a column of geometry. SVG: paths. CBOR (RFC 8949): the JSON tree.

#include "merge_formats_internal.hpp"

#include <fmt/format.h>

#include <functional>

namespace dryground::files {

namespace {

Json closed(Json ring) {
    if (!ring.empty()) ring.push_back(ring[0]);
    return ring;
}

Json polygon(const Json& ring) { return Json::array({closed(ring)}); }

Json box_polygon(const Json& box) {
    const double x = box[0], y = box[1], right = x + box[2].get<double>(), far = y + box[3].get<double>();
    return polygon(
        Json::array({Json::array({x, y}), Json::array({right, y}), Json::array({right, far}), Json::array({x, far})}));
}

Json triangle_polygons(const Json& mesh) {
    Json polygons = Json::array();
    const Json &vertices = mesh["vertices"], &indices = mesh["indices"];
    for (std::size_t i = 0; i + 2 < indices.size(); i += 3)
        polygons.push_back(
            polygon(Json::array({vertices[indices[i].get<std::size_t>()], vertices[indices[i + 1].get<std::size_t>()],
                                 vertices[indices[i + 2].get<std::size_t>()]})));
    return polygons;
}

// A form of a group as polygons or lines. Both empty if it is not geometry.
struct Geometry {
    Json polygons = Json::array(), lines = Json::array();
};
Geometry geometry_of(const std::string& form, const Json& value) {
    Geometry result;
    if (form == "regions") {
        for (const Json& region : value) {
            Json rings = polygon(region["outline"]);
            for (const Json& hole : region["holes"]) rings.push_back(closed(hole));
            result.polygons.push_back(std::move(rings));
        }
    } else if (form == "pieces" || form == "rests") {
        for (const Json& piece : value) result.polygons.push_back(polygon(piece));
    } else if (form == "boxes") {
        for (const Json& box : value) result.polygons.push_back(box_polygon(box));
    } else if (form == "triangles") {
        result.polygons = triangle_polygons(value);
    } else if (form == "lines") {
        result.lines = value;
    } else if (form == "chains") {
        for (const Json& chain : value)
            result.lines.push_back(chain["closed"].get<bool>() ? closed(chain["points"]) : chain["points"]);
    }
    return result;
}

// Calls action(properties, geometry) for each non-empty form of each group.
void each_form(const Json& tree, const std::function<void(const Json&, const Geometry&)>& action) {
    const auto group_forms = [&](const Json& group, Json properties) {
        for (const char* key : {"storey", "barrier", "trigger", "mover", "one_way"}) properties[key] = group[key];
        for (const auto& [form, value] : group.items()) {
            const Geometry geometry = geometry_of(form, value);
            if (geometry.polygons.empty() && geometry.lines.empty()) continue;
            properties["form"] = form;
            action(properties, geometry);
        }
    };
    for (const Json& map : tree["maps"]) {
        if (map.contains("groups"))
            for (const Json& group : map["groups"]) group_forms(group, {{"map", map["map"]}});
        if (map.contains("chunks"))
            for (const Json& chunk : map["chunks"])
                for (const Json& group : chunk["groups"])
                    group_forms(group, {{"map", map["map"]}, {"chunk", chunk["chunk"]}});
    }
}

std::string geojson(const Json& tree) {
    Json features = Json::array();
    each_form(tree, [&](const Json& properties, const Geometry& geometry) {
        const bool areas = !geometry.polygons.empty();
        features.push_back({{"type", "Feature"},
                            {"properties", properties},
                            {"geometry",
                             {{"type", areas ? "MultiPolygon" : "MultiLineString"},
                              {"coordinates", areas ? geometry.polygons : geometry.lines}}}});
    });
    return json_text(Json{{"type", "FeatureCollection"},
                          {"unit", tree["unit"]},
                          {"per_metre", tree["per_metre"]},
                          {"y", tree["y"]},
                          {"features", std::move(features)}});
}

// Makes a picture of plain shapes that drawing programs open: areas filled, lines drawn; what each belongs to is in its
// class and its data. One user unit is one of the file's.
std::string svg(const Json& tree) {
    std::string shapes;
    double left = 0, top = 0, right = 0, bottom = 0;
    bool any = false;
    const auto path = [&](const Json& points, bool closed) {
        std::string text;
        for (std::size_t i = 0; i + (closed ? 1 : 0) < points.size(); ++i) {   // closed rings repeat their first point
            const double x = points[i][0].get<double>() + 0.0, y = points[i][1].get<double>() + 0.0;
            left = any ? std::min(left, x) : x, right = any ? std::max(right, x) : x;
            top = any ? std::min(top, y) : y, bottom = any ? std::max(bottom, y) : y;
            any = true;
            fmt::format_to(std::back_inserter(text), "{}{} {}", i == 0 ? 'M' : 'L', x, y);
        }
        return text + (closed ? "Z" : "");
    };
    each_form(tree, [&](const Json& properties, const Geometry& geometry) {
        std::string data;
        for (const auto& [key, value] : properties.items())
            if (value.is_string() && !value.get_ref<const std::string&>().empty())
                data += fmt::format(" data-{}=\"{}\"", key == "one_way" ? "one-way" : key, value.get<std::string>());
        const std::string barrier = properties["barrier"], trigger = properties["trigger"];
        shapes +=
            fmt::format("<g class=\"{}\"{}{}>\n",
                        !barrier.empty()   ? barrier
                        : !trigger.empty() ? trigger
                                           : "mover",
                        data,
                        geometry.polygons.empty()
                            ? " fill=\"none\" stroke=\"#000\" stroke-width=\"1\" vector-effect=\"non-scaling-stroke\""
                            : " fill-rule=\"evenodd\"");
        for (const Json& rings : geometry.polygons) {
            std::string outline;
            for (const Json& ring : rings) outline += path(ring, true);
            shapes += fmt::format("<path d=\"{}\"/>\n", outline);
        }
        for (const Json& line : geometry.lines) shapes += fmt::format("<path d=\"{}\"/>\n", path(line, false));
        shapes += "</g>\n";
    });
    return fmt::format(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{} {} {} {}\" data-unit=\"{}\" data-y=\"{}\">\n{}</svg>\n",
        left, top, right - left, bottom - top, tree["unit"].get<std::string>(), tree["y"].get<std::string>(), shapes);
}

std::string in_brackets(const Json& points) {
    std::string text = "(";
    for (const Json& point : points)
        fmt::format_to(std::back_inserter(text), "{}{} {}", text.size() > 1 ? ", " : "", point[0].get<double>() + 0.0,
                       point[1].get<double>() + 0.0);
    return text + ")";
}

std::string wkt(const Json& tree) {
    std::string text = "map,chunk,storey,barrier,trigger,mover,one_way,form,wkt\r\n";
    each_form(tree, [&](const Json& properties, const Geometry& geometry) {
        std::string parts;
        for (const Json& rings : geometry.polygons) {
            std::string all;
            for (const Json& ring : rings) all += (all.empty() ? "" : ", ") + in_brackets(ring);
            parts += fmt::format("{}({})", parts.empty() ? "" : ", ", all);
        }
        for (const Json& line : geometry.lines) parts += (parts.empty() ? "" : ", ") + in_brackets(line);
        const std::string chunk = properties.contains("chunk") ? fmt::format("{} {}", properties["chunk"][0].get<int>(),
                                                                             properties["chunk"][1].get<int>())
                                                               : "";
        const auto word = [&](const char* key) { return properties[key].get<std::string>(); };   // names: no quotes
        fmt::format_to(std::back_inserter(text), "{},{},{},{},{},{},{},{},\"{} ({})\"\r\n", word("map"), chunk,
                       word("storey"), word("barrier"), word("trigger"), word("mover"), word("one_way"), word("form"),
                       geometry.polygons.empty() ? "MULTILINESTRING" : "MULTIPOLYGON", parts);
    });
    return text;
}

}   // namespace

std::string merge_text(const Json& tree, MergeFormat format) {
    switch (format) {
        case MergeFormat::json:
        case MergeFormat::gltf:   // not made from the tree
            break;
        case MergeFormat::cbor: {
            const std::vector<std::uint8_t> bytes = Json::to_cbor(tree);
            return {bytes.begin(), bytes.end()};
        }
        case MergeFormat::geojson:
            return geojson(tree);
        case MergeFormat::svg:
            return svg(tree);
        case MergeFormat::wkt:
            return wkt(tree);
    }
    return json_text(tree);
}

}   // namespace dryground::files
