// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/effect.h"

namespace chispa {

// One maker an effect, each in a file of its name; only the registry calls them.
Effect ribbon();
Effect comets();
Effect glints();
Effect swell();
Effect bloom();
Effect parade();
Effect pour();
Effect hearth();
Effect loudness();
Effect weave();
Effect lettering();

}  // namespace chispa
