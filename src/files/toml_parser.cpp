// The TOML parser, compiled here and nowhere else.

#define TOML_IMPLEMENTATION
#include "toml_internal.hpp"
