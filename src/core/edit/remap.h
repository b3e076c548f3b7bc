// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// What an edit could not keep, a sentence each, for people to read before they go on.
using Losses = std::vector<std::string>;

/// Fits zones and beads to a fixture whose segments have other counts than in `before`: what took the whole
/// of a fixture or a segment still does; what took some of its pixels keeps those that are left.
Losses remap(Show& show, const Fixture& before);

/// A pixel of a fixture.
struct PixelPlace {
  FixtureId fixture;
  int pixel = 0;

  bool operator==(const PixelPlace&) const = default;
};
/// Where a pixel is after an edit; nothing if it is gone.
using PixelRemap = std::function<std::optional<PixelPlace>(PixelPlace)>;

/// Makes zones and beads that took pixels of the fixtures `before` take the same pixels where they are now.
Losses followPixels(Show& show, const std::vector<Fixture>& before, const PixelRemap& pixelAfter);

}  // namespace chispa
