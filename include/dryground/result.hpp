// What a call gives that can fail on content: a value, or the reason why it is missing.
//
//     const dg::Result<dg::World> loaded = dg::load_world("demo/world.toml");
//     if (!loaded) fmt::print("{}", dg::text(loaded.report()));
//     const dg::World& world = *loaded;
//
// What is wrong with a world's content is told as findings (`report`), which may come with a value too: warnings,
// notes. What is no content, as a file that cannot be opened, is told in one sentence (`fault`). Threads: a value; no
// shared state.
#pragma once

#include <optional>
#include <string>
#include <utility>

#include "dryground/report.hpp"

namespace dryground {

struct Failure {
    std::string fault{};   // one sentence for people; empty where findings say it all
    Report report{};
};

namespace detail {
// Throws std::logic_error: somebody took a value that is not there.
[[noreturn]] void refuse_missing_value(const Failure& failure);
}   // namespace detail

// Its value may be taken only if it is true: test first. Otherwise std::logic_error is thrown, with the reason.
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
    [[nodiscard]] const std::string& fault() const { return failure_.fault; }   // empty where there is a value
    [[nodiscard]] const Failure& failure() const { return failure_; }           // to pass the reason on

private:
    std::optional<T> value_;
    Failure failure_;
};

// Of a call that gives nothing but that it is done.
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
