// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/music/analysis.h"

namespace chispa::desk {

/// As analyseAudio(), but what was found of the few files that were asked for last is kept as long as the
/// program runs: a show that is opened again, or another one with the same music, has it at once. A file that
/// has changed on the disk is analysed anew. Any thread.
Result<std::shared_ptr<const AnalysedAudio>> analysedOnce(const std::filesystem::path& path,
                                                          const Progress& progress = {});

}  // namespace chispa::desk
