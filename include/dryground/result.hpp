// The result of a call that can fail: a value, or the reason why it is missing.
//
//     const dg::Result<dg::World> loaded = dg::load_world("demo/world.toml");
//     if (!loaded) fmt::print("{}", dg::text(loaded.report()));
//     const dg::World& world = *loaded;
//
// Faults in the content of a world are findings (`report`), which may accompany a value: warnings, notes. Other
// failures, such as a file that cannot be opened, are one sentence (`fault`). Threads: a value; no shared state.
#pragma once

#include <optional>
#include <string>
#include <utility>

#include "dryground/report.hpp"

namespace dryground {

struct Failure {
    std::string fault{};   // one sentence for people; empty if the findings say it all
    Report report{};
};

namespace detail {
// Throws std::logic_error: a missing value was accessed.
[[noreturn]] void refuse_missing_value(const Failure& failure);
}   // namespace detail

// Test it before accessing the value: if that is missing, std::logic_error is thrown, with the reason.
template <class T>
class [[nodiscard]] Result {
public:
    Result(T value, Report report = {}) : value_(std::move(value)), failure_{{}, std::move(report)} {}
    Result(Failure failure) : failure_(std::move(failure)) {}

    explicit operator bool() const { return value_.has_value(); }
    [[nodiscard]] const T& value() const& {
        return value_ ? *value_ : (detail::refuse_missing_value(failure_), *value_);
    }
    [[nodiscard]] T& value() & { return const_cast<T&>(std::as_const(*this).value()); }
    [[nodiscard]] T value() && { return std::move(value()); }
    [[nodiscard]] const T& operator*() const& { return value(); }
    [[nodiscard]] T& operator*() & { return value(); }
    [[nodiscard]] T operator*() && { return std::move(value()); }
    [[nodiscard]] const T* operator->() const { return &value(); }
    [[nodiscard]] T* operator->() { return &value(); }

    [[nodiscard]] const Report& report() const { return failure_.report; }
    [[nodiscard]] const std::string& fault() const { return failure_.fault; }   // empty if there is a value
    [[nodiscard]] const Failure& failure() const { return failure_; }           // to pass on the reason

private:
    std::optional<T> value_;
    Failure failure_;
};

// The result of a call without a value: whether it succeeded.
template <>
class [[nodiscard]] Result<void> {
public:
    Result() = default;
    Result(Failure failure) : done_(false), failure_(std::move(failure)) {}

    explicit operator bool() const { return done_; }
    [[nodiscard]] const Report& report() const { return failure_.report; }
    [[nodiscard]] const std::string& fault() const { return failure_.fault; }
    [[nodiscard]] const Failure& failure() const { return failure_; }

private:
    bool done_ = true;
    Failure failure_;
};

}   // namespace dryground
