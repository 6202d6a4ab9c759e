// All of Dry Ground but bridges to physics engines.
#pragma once

#include "dryground/art.hpp"
#include "dryground/builder.hpp"
#include "dryground/check.hpp"
#include "dryground/contacts.hpp"
#include "dryground/draw.hpp"
#include "dryground/edit.hpp"
#include "dryground/files.hpp"
#include "dryground/geometry.hpp"
#include "dryground/merge.hpp"
#include "dryground/report.hpp"
#include "dryground/text.hpp"
#include "dryground/version.hpp"
#include "dryground/world.hpp"
