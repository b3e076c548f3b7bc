// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

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

/// Header of a recording called `name`: the patch, and the controllers without what hangs on them.
RecordingHead headOf(const Show& show, const std::string& name);

/// Writes the values of all universes of `show` as the engine would send them at full master, frame after
/// frame. What was written is deleted if it is cancelled or fails; a cancelled one is no failure. Returns
/// whether it is whole.
Result<bool> recordScore(const Show& show, const CompiledShow& compiled, const Score& score,
                         const RecordingShape& shape, const std::filesystem::path& path,
                         const Progress& progress);

/// How long a recording of a set list is: all its rounds, one of those that go on for ever; none if something
/// in it has no end.
std::optional<Micros> recordedLength(const Show& show, SetListId list);

/// The same for a set list, gone through once with all its pieces, fades and gaps.
Result<bool> recordSetList(const Show& show, const CompiledShow& compiled, SetListId list,
                           int framesPerSecond, const std::filesystem::path& path, const Progress& progress);

/// What of the rig that a recording was made for is otherwise in `show` now, one sentence each; empty if it
/// can be played as it is.
std::vector<std::string> differencesOf(const RecordingHead& head, const Show& show);

}  // namespace chispa
