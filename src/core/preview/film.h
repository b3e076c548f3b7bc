// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>

#include "core/base/progress.h"
#include "core/media/videowriter.h"
#include "core/render/compiled.h"

namespace chispa {

/// What of a score is shown in a film, and how.
struct FilmOrder {
  TimeSpan span;
  FilmShape shape;
  /// A line a fixture, in place of the view of the whole.
  bool isUnrolled = false;
  /// As the strips show it; else as it is meant.
  bool isAsShown = false;
  /// The score's sound, if it is to be heard.
  std::shared_ptr<const AudioClip> sound = {};

  long pictures() const { return static_cast<long>(span.length.count() * shape.framesPerSecond / 1'000'000); }
};

/// Draws and writes picture after picture. Of a film that is cancelled or fails nothing is kept, of numbered
/// pictures those that are whole. Returns false if it was cancelled.
Result<bool> makeFilm(const Show& show, const CompiledShow& compiled, const Score& score,
                      const FilmOrder& order, const std::filesystem::path& path, const Progress& progress);

}  // namespace chispa
