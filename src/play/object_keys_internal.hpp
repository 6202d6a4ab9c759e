// Inside the library: identifies objects of a map by what stays the same when others are added or removed.
#pragma once

#include <map>
#include <string>
#include <tuple>
#include <vector>

#include "dryground/world.hpp"

namespace dryground::play {

// The name of an object; for one without: its kind, its position, and which of several that stand there.
struct ObjectKey {
    std::string name{}, kind{};
    Point at{};
    int which = 0;

    friend bool operator<(const ObjectKey& a, const ObjectKey& b) {
        return std::tie(a.name, a.kind, a.at, a.which) < std::tie(b.name, b.kind, b.at, b.which);
    }
};

class ObjectKeys {   // of a map. O(objects log objects)
public:
    ObjectKeys(const World& world, const Map& map) {
        for (std::size_t o = 0; o < map.objects.size(); ++o) {
            const Object& object = map.objects[o];
            ObjectKey key{object.name, {}, {}, 0};
            if (key.name.empty()) key.kind = world.kind(object.kind).name, key.at = object.position;
            while (!numbers_.emplace(key, id_of<ObjectId>(o)).second) ++key.which;
            keys_.push_back(std::move(key));
        }
    }
    [[nodiscard]] const ObjectKey& key(ObjectId object) const { return keys_[index(object)]; }
    [[nodiscard]] ObjectId find(const ObjectKey& key) const {   // none if not found
        const auto found = numbers_.find(key);
        return found == numbers_.end() ? ObjectId::none : found->second;
    }

private:
    std::vector<ObjectKey> keys_;
    std::map<ObjectKey, ObjectId> numbers_;
};

}   // namespace dryground::play
