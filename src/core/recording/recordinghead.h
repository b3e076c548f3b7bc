// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/recording/recording.h"

namespace chispa {

/// A recording's header as JSON; docs/recording.md describes it.
std::string headText(const RecordingHead& head);
/// Reads it; fails if it names a universe that makes no sense. `where` names the recording.
Result<RecordingHead> parseHead(const std::string& text, const std::string& where);

}  // namespace chispa
