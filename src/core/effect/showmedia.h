// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/media/media.h"
#include "core/show/show.h"

namespace chispa {

/// Names of all files that clips, blocks and looks of `show` show.
std::vector<std::string> mediaNames(const Show& show);

/// The parts of screens that clips, blocks and looks of `show` show.
std::vector<ScreenPart> screenParts(const Show& show);

/// Loads what `show` names; why a file gives none is added to `failures`.
MediaLibrary loadMedia(const Show& show, const std::filesystem::path& showFile,
                       std::vector<Failure>& failures);

}  // namespace chispa
