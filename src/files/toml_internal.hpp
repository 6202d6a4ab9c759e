// Inside the files room: one place that says how we include the TOML parser.
#pragma once

#define TOML_EXCEPTIONS 0
#define TOML_ENABLE_FORMATTERS 0
// The parser's own assertions would abort on damaged input in a debug build, and mislead the optimiser in a release by
// some compilers; without them it reports an error. So they are nothing, in every build.
#define TOML_ASSERT(expression) static_cast<void>(0)
#pragma push_macro("NDEBUG")
#undef NDEBUG
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wshadow"
#include <toml++/toml.h>
#pragma GCC diagnostic pop
#pragma pop_macro("NDEBUG")
