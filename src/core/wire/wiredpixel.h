// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/wire/patch.h"

namespace chispa {

/// Where the value of a pixel stands: its span in the patch, and the first of its channels there, from 1.
struct WiredPixel {
  const PatchSpan* span = nullptr;
  int channel = 0;
};

/// The first place on the wire of a fixture's pixel, which several may share where a port groups them;
/// nothing if it is not wired. Lives as long as `patch`.
std::optional<WiredPixel> wiredPixel(const Patch& patch, FixtureId fixture, int pixel);

}  // namespace chispa
