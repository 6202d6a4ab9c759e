// Whole outputs are held by approved files; `scripts/approve` accepts a change on purpose.
#pragma once

#include <catch2/catch.hpp>

#include <functional>

#include "process.hpp"

namespace approved {

using Alike = std::function<bool(const std::string& now, const std::string& before)>;

inline void check(const std::string& name, const std::string& text, const Alike& alike = std::equal_to<>()) {
    const std::filesystem::path path = std::filesystem::path(DRYGROUND_SOURCE) / "tests" / "app" / "approved" / name;
    const std::string before = process::slurp(path);
    if (std::getenv("DRYGROUND_APPROVE") != nullptr && !alike(text, before))
        std::ofstream(path, std::ios::binary) << text;
    INFO("approved file " << name << ", now:\n" << text);
    CHECK(alike(text, process::slurp(path)));
}

}   // namespace approved
