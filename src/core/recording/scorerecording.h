// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>

#include "core/base/progress.h"
#include "core/recording/recording.h"
#include "core/render/compiled.h"

namespace chispa {

/// What of a score is recorded.
struct RecordingShape {
  TimeSpan span;
  int framesPerSecond = 40;

  /// Frames that it gives.
  long frames() const { return static_cast<long>(span.length.count() * framesPerSecond / 1'000'000); }
};

/// Header of a recording of `score`: the patch, and the controllers without what hangs on them.
RecordingHead headOf(const Show& show, const Score& score);

/// Writes the values of all universes of `show` as the engine would send them at full master, frame after
/// frame. What was written is deleted if it is cancelled or fails; a cancelled one is no failure. Returns
/// whether it is whole.
Result<bool> recordScore(const Show& show, const CompiledShow& compiled, const Score& score,
                         const RecordingShape& shape, const std::filesystem::path& path,
                         const Progress& progress);

}  // namespace chispa
