// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <vector>

#include "core/render/compiled.h"
#include "core/wire/valuelight.h"

namespace chispa {

/// Light as the strips show it in place of as it is meant: with their chips, white, response and steps, the
/// mean over a period of dithering, and no brighter than ports, master and the power budget let it be. Pixels
/// that are not wired are dark. One thread at a time.
class StripView {
 public:
  /// `compiled`, of `show`, must live as long.
  StripView(const Show& show, const CompiledShow& compiled);

  /// The light for `meant`, which has a place for each of the show's pixels, at `master` 0–1. Valid until the
  /// next call.
  const PixelFrame& seen(const PixelFrame& meant, float master);

 private:
  /// A controller's strips, and where its universes stand in the packer's buffer.
  struct Line {
    ValueLight light;
    std::vector<std::pair<std::size_t, std::size_t>> universes;
    std::vector<std::uint8_t> row;
  };

  std::span<const float> budgetLevels(const PixelFrame& meant, float master);
  void addLight(Line& line);

  const CompiledShow& compiled_;
  std::vector<Line> lines_;
  std::vector<std::uint8_t> values_;
  std::vector<double> amps_;
  std::vector<float> levels_;
  PixelFrame seen_;
};

}  // namespace chispa
