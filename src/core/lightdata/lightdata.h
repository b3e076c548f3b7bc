// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/base/time.h"
#include "core/render/compiled.h"
#include "core/zone/pixelrow.h"

namespace chispa {

/// What of a score is written as plain data.
struct LightDataOrder {
  TimeSpan span;
  int framesPerSecond = 40;
  /// The channels of all universes as they would be sent, in place of the pixels' colours.
  bool byUniverse = false;
  /// Fixtures in data order and zones in playing order, one after the other; all fixtures if empty.
  std::vector<PixelRow> parts = {};

  long frames() const { return static_cast<long>(span.length.count() * framesPerSecond / 1'000'000); }
};

/// Endings that light can be written as.
bool isLightData(const std::filesystem::path& path);

/// Writes every frame of `score` as plain open data; the file's ending says how (docs/light-data.md):
/// `.csv` a row a frame, `.rgb` bytes one after the other with a `.json` beside that explains them, `.png` a
/// row of dots a frame. Colours are sRGB, channels as sent. What was there stays until the
/// new file is whole; returns false if it was cancelled.
Result<bool> writeLightData(const Show& show, const CompiledShow& compiled, const Score& score,
                            const LightDataOrder& order, const std::filesystem::path& path,
                            const Progress& progress);

}  // namespace chispa
