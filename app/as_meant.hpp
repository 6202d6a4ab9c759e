// Files with misspelt names and keys put right, as hints suggest: so that one slip does not hide all other findings.
#pragma once

#include <optional>
#include <string>

#include "dryground/files.hpp"

namespace app {

// Returns a reader of a world's files in which unknown names and keys are replaced by those that the findings' hints
// suggest; nothing if no hint suggests one. Lines stay where they are; columns behind a replaced name may differ.
[[nodiscard]] std::optional<dryground::FileReader> as_meant(const dryground::Report& report,
                                                            const std::string& world_file,
                                                            const dryground::FileReader& reader);

// Returns the findings once the world with these names could be read: those whose names were replaced say so; other
// errors were only consequences, and are left out.
[[nodiscard]] dryground::Report told_as_meant(const dryground::Report& report);

}   // namespace app
