// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/score.h"

namespace chispa {

/// Marks as files of other programs have them: label tracks (tab-separated start, end and text, seconds),
/// WebVTT (W3C, 2019) and LRC lyrics.
enum class LabelFormat { LabelTrack, WebVtt, Lrc };

/// The format that a file's ending names; label tracks for all but .vtt and .lrc.
LabelFormat labelFormatOf(const std::filesystem::path& path);

/// Reads marks, in order of time, without ids. Fails at the first line that makes no sense, which it names.
Result<std::vector<Mark>> parseLabels(const std::string& text, LabelFormat format, const std::string& where);
Result<std::vector<Mark>> readLabels(const std::filesystem::path& path);

/// A lane as such a file; marks without a length last until the next in WebVTT, which needs one.
std::string labelText(const MarkLane& lane, LabelFormat format, Micros end);

}  // namespace chispa
