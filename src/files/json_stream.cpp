// Writes trees with holes, as JSON text and as CBOR.
//
// Cost: that of the values; memory holds one hole at a time.

#include "json_stream_internal.hpp"

#include <algorithm>

namespace dryground::files {

namespace {

bool has_hole(const Json& value) {
    if (Holes::is_hole(value)) return true;
    return value.is_structured() && std::any_of(value.begin(), value.end(), has_hole);
}

class Writer {
public:
    Writer(const Holes& holes, const TreeSinks& sinks) : holes_(holes), sinks_(sinks) {}

    void write(const Json& value, int indent) {
        if (Holes::is_hole(value)) {
            const Json made = holes_.fill(value);
            if (sinks_.text != nullptr) add_json(*sinks_.text, made, 0, Spaces::none);
            if (sinks_.cbor) sinks_.cbor(Json::to_cbor(made));
        } else if (!has_hole(value)) {
            if (sinks_.text != nullptr) add_json(*sinks_.text, value, indent, Spaces::some);
            if (sinks_.cbor) sinks_.cbor(Json::to_cbor(value));
        } else {
            write_items(value, indent);
        }
    }

private:
    // Writes a list or table that has holes: an item a line.
    void write_items(const Json& value, int indent) {
        const std::string line_break = "\n" + std::string(static_cast<std::size_t>(indent), ' ');
        if (sinks_.cbor) sinks_.cbor(cbor_head(value.is_object(), value.size()));
        put(value.is_array() ? "[" : "{");
        bool first = true;
        for (auto item = value.begin(); item != value.end(); ++item) {
            put((first ? "" : ",") + line_break + "  ");
            first = false;
            if (value.is_object()) {
                put(Json(item.key()).dump() + ": ");
                if (sinks_.cbor) sinks_.cbor(Json::to_cbor(Json(item.key())));
            }
            write(*item, indent + 2);
        }
        put(line_break + (value.is_array() ? "]" : "}"));
    }
    void put(const std::string& text) {
        if (sinks_.text != nullptr) *sinks_.text += text;
    }

    const Holes& holes_;
    const TreeSinks& sinks_;
};

}   // namespace

void write_tree(const Json& tree, const Holes& holes, int indent, const TreeSinks& sinks) {
    Writer(holes, sinks).write(tree, indent);
}

std::vector<std::uint8_t> cbor_head(bool is_table, std::size_t count) {
    std::vector<std::uint8_t> head;
    const auto sort = static_cast<std::uint8_t>(is_table ? 0xA0 : 0x80);
    if (count < 24) return {static_cast<std::uint8_t>(sort | count)};
    int bytes = 1;
    while (bytes < 8 && count >> (8 * bytes) != 0) bytes *= 2;
    const std::uint8_t length = bytes == 1 ? 24 : bytes == 2 ? 25 : bytes == 4 ? 26 : 27;
    head.push_back(static_cast<std::uint8_t>(sort | length));
    for (int b = bytes; b-- > 0;) head.push_back(static_cast<std::uint8_t>(count >> (8 * b) & 0xFF));
    return head;
}

}   // namespace dryground::files
