// Parses the tree of a pack, and reads its values with their paths.

#include <fmt/format.h>

#include <cmath>

#include "pack_internal.hpp"

namespace dryground::files {

namespace {

constexpr int deepest = 32;   // levels; a pack has fewer

// Builds the tree from the parser's events. What a world makes anew (its geometry, who can pass where) is skipped: that
// is most of a pack.
class TreeMaker : public nlohmann::json_sax<Json> {
public:
    TreeMaker(Json& root, std::string& fault) : root_(root), fault_(fault) {}

    bool null() override { return value(nullptr); }
    bool boolean(bool b) override { return value(b); }
    bool number_integer(number_integer_t n) override { return value(n); }
    bool number_unsigned(number_unsigned_t n) override { return value(n); }
    bool number_float(number_float_t n, const string_t&) override { return value(n); }
    bool string(string_t& text) override { return value(std::move(text)); }
    bool binary(binary_t&) override { return fail("it holds binary data"); }
    bool key(string_t& name) override {
        if (passed_over_ > 0) return true;
        key_ = std::move(name);
        return true;
    }
    bool start_object(std::size_t) override { return start(Json::object()); }
    bool end_object() override { return end(); }
    bool start_array(std::size_t) override { return start(Json::array()); }
    bool end_array() override { return end(); }
    bool parse_error(std::size_t position, const std::string&, const nlohmann::detail::exception& error) override {
        return fail(fmt::format("it cannot be read from byte {} on: {}", position, error.what()));
    }

private:
    bool fail(std::string why) {
        if (fault_.empty()) fault_ = std::move(why);
        return false;
    }

    bool start(Json structure) {
        if (passed_over_ > 0) {
            ++passed_over_;
            return passed_over_ <= 2 * deepest || fail("it is nested too deep");
        }
        // Of a map: the pack, its list of maps, the map.
        const bool in_map = open_.size() == 3 && open_.back()->is_object() && open_[1] == maps_;
        if (in_map && (key_ == "merge" || key_ == "passability" || key_ == "variants")) {
            passed_over_ = 1;
            return true;
        }
        if (open_.size() >= deepest) return fail("it is nested too deep");
        Json* place = put(std::move(structure));
        if (open_.size() == 1 && key_ == "maps") maps_ = place;
        open_.push_back(place);
        return true;
    }

    bool end() {
        if (passed_over_ > 0)
            --passed_over_;
        else {
            if (open_.back() == maps_) maps_ = nullptr;
            open_.pop_back();
        }
        return true;
    }

    bool value(Json one) {
        if (passed_over_ > 0) return true;
        put(std::move(one));
        return true;
    }

    Json* put(Json one) {
        if (open_.empty()) {
            root_ = std::move(one);
            return &root_;
        }
        if (open_.back()->is_array()) {
            open_.back()->push_back(std::move(one));
            return &open_.back()->back();
        }
        Json& place = (*open_.back())[key_];
        place = std::move(one);
        return &place;
    }

    Json& root_;
    std::string& fault_;
    std::vector<Json*> open_;   // each stays where it is while what is in it grows: nothing beside it does
    const Json* maps_ = nullptr;
    std::string key_;
    int passed_over_ = 0;
};

}   // namespace

Result<Json> parse_pack(std::string_view bytes) {
    Json root;
    std::string fault;
    TreeMaker maker(root, fault);
    const std::size_t first = bytes.find_first_not_of(" \t\r\n");
    const bool is_json = first != std::string_view::npos && bytes[first] == '{';
    const bool good =
        Json::sax_parse(bytes.begin(), bytes.end(), &maker,
                        is_json ? nlohmann::detail::input_format_t::json : nlohmann::detail::input_format_t::cbor);
    if (!good) return Failure{fault.empty() ? "it is neither JSON nor CBOR" : std::move(fault)};
    if (!root.is_object()) return Failure{"it is not a table"};
    return root;
}

// ---- values ----

void Node::wrong(const std::string& should_be) const {
    if (json_ == nullptr) return;
    Finding finding;
    finding.rule = Rule::wrong_type;
    finding.place = where();
    std::string is = json_->dump(-1, ' ', false, Json::error_handler_t::replace);
    if (is.size() > 40) is = is.substr(0, 37) + "…";
    finding.arguments = {fmt::format("'{}'", path_), is, should_be};
    report_->add(std::move(finding));
}

Node Node::at_if_there(std::string_view key) const {
    static const Json none;
    if (json_ != nullptr && json_->is_object() && !has(key)) return {&none, path_, *report_, whole_};
    return at(key);
}

bool Node::has(std::string_view key) const {
    return json_ != nullptr && json_->is_object() && json_->find(std::string(key)) != json_->end();
}

Node Node::at(std::string_view key) const {
    const std::string name(key), path = path_.empty() ? name : path_ + "/" + name;
    if (json_ == nullptr) return {nullptr, path, *report_, whole_};
    if (!json_->is_object()) {
        wrong("a table");
        return {nullptr, path, *report_, whole_};
    }
    const auto found = json_->find(name);
    if (found != json_->end()) return {&*found, path, *report_, whole_};
    Finding finding;
    finding.rule = Rule::missing_key;
    finding.place = where();
    finding.arguments = {what(), name};
    report_->add(std::move(finding));
    return {nullptr, path, *report_, whole_};
}

std::string Node::what() const { return path_.empty() ? whole_ : fmt::format("'{}'", path_); }

void Node::only(const std::vector<std::string_view>& keys) const {
    if (json_ == nullptr || !json_->is_object()) return;
    for (const auto& [name, value] : json_->items()) {
        if (std::find(keys.begin(), keys.end(), name) != keys.end()) continue;
        Finding finding;
        finding.rule = Rule::unknown_key;
        finding.place = where();
        finding.arguments = {name, what()};
        if (const auto nearest = nearest_name(name, std::vector<std::string>(keys.begin(), keys.end())))
            finding.hint = Hint{"did you mean", *nearest};
        report_->add(std::move(finding));
    }
}

std::vector<Node> Node::items() const {
    std::vector<Node> result;
    if (json_ == nullptr) return result;
    if (!json_->is_array())
        wrong("a list");
    else
        for (std::size_t i = 0; i < json_->size(); ++i)
            result.emplace_back(&(*json_)[i], fmt::format("{}/{}", path_, i), *report_, whole_);
    return result;
}

std::vector<std::pair<std::string, Node>> Node::entries() const {
    std::vector<std::pair<std::string, Node>> result;
    if (json_ == nullptr) return result;
    if (!json_->is_object())
        wrong("a table");
    else
        for (const auto& [key, value] : json_->items())
            result.emplace_back(key, Node{&value, path_ + "/" + key, *report_, whole_});
    return result;
}

std::string Node::text() const {
    if (json_ != nullptr && json_->is_string()) return json_->get<std::string>();
    wrong("a text");
    return {};
}

bool Node::yes_no() const {
    if (json_ != nullptr && json_->is_boolean()) return json_->get<bool>();
    wrong("true or false");
    return false;
}

double Node::number() const {
    if (json_ != nullptr && json_->is_number()) return json_->get<double>();
    wrong("a number");
    return 0;
}

std::int64_t Node::whole(std::int64_t least, std::int64_t most) const {
    if (json_ != nullptr && json_->is_number_integer() &&
        !(json_->is_number_unsigned() && json_->get<std::uint64_t>() > INT64_MAX)) {
        const auto n = json_->get<std::int64_t>();
        if (n >= least && n <= most) return n;
    }
    wrong("a whole number within its bounds");
    return 0;
}

std::int16_t Node::quarter_turn() const {
    const std::int64_t turn = whole();
    if (turn == 0 || turn == 90 || turn == 180 || turn == 270) return static_cast<std::int16_t>(turn);
    wrong("one of 0, 90, 180, 270");
    return 0;
}

std::array<int, 2> Node::pair() const {
    const std::vector<Node> both = items();
    if (both.size() == 2) return {both[0].integer(), both[1].integer()};
    wrong("two whole numbers");
    return {};
}

std::array<double, 2> Node::place() const {
    const std::vector<Node> both = items();
    if (both.size() == 2) return {both[0].number(), both[1].number()};
    wrong("a place [x, y]");
    return {};
}

Name Node::name() const { return {text(), where()}; }

Names Node::names() const {
    Names result;
    for (const Node& item : items()) result.push_back(item.name());
    return result;
}

std::vector<std::string> Node::texts() const {
    std::vector<std::string> result;
    for (const Node& item : items()) result.push_back(item.text());
    return result;
}

Ring Node::ring() const {
    Ring ring;
    for (const Node& item : items()) {
        const auto [x, y] = item.place();
        if (in_range(x) && in_range(y))
            ring.push_back({to_steps(x), to_steps(y)});
        else
            item.wrong("within the range of coordinates");
    }
    return ring;
}

// What a pack holds was valid once; what is no longer so is damaged.
Regions Node::area() const {
    Regions area;
    bool valid = true;
    for (const Node& item : items()) {
        item.only({"outline", "holes"});
        Region& region = area.emplace_back();
        region.outline = item.at("outline").ring();
        valid = valid && inspect(region.outline).fault == RingFault::none && twice_area(region.outline) > 0;
        for (const Node& hole : item.at("holes").items()) {
            region.holes.push_back(hole.ring());
            valid =
                valid && inspect(region.holes.back()).fault == RingFault::none && twice_area(region.holes.back()) < 0;
        }
    }
    if (valid) return area;
    wrong("valid regions: simple rings, outlines one way around and holes the other");
    return {};
}

std::optional<Value> Node::value() const {
    if (json_ == nullptr) return std::nullopt;
    if (json_->is_boolean()) return Value{json_->get<bool>()};
    if (json_->is_number_integer()) return Value{whole(INT64_MIN, INT64_MAX)};
    if (json_->is_number()) return Value{json_->get<double>()};
    if (json_->is_string()) return Value{json_->get<std::string>()};
    if (json_->is_array()) {
        Value::List list;
        for (const Node& item : items())
            if (auto one = item.value()) list.push_back(std::move(*one));
        return Value{std::move(list)};
    }
    wrong("a yes/no, number, text or list");
    return std::nullopt;
}

SaidProperties Node::properties() const {
    SaidProperties result;
    for (const auto& [name, node] : entries())
        if (auto one = node.value()) result[name] = Located<Value>(std::move(*one), node.where());
    return result;
}

}   // namespace dryground::files
