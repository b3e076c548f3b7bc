// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/media/media.h"

namespace chispa {

/// The effect that plays light written frame by frame.
inline constexpr const char* kRowsEffect = "rows";

/// What a file is called in a MediaLibrary if a clip of `effect` shows it: effects may read one file in
/// different ways.
std::string mediaName(const std::string& effect, const std::string& file);

/// The file behind such a name.
std::string fileOfMediaName(const std::string& name);

/// Decodes what a show calls `name` (mediaNames()), as the effect that shows it needs it.
Result<std::shared_ptr<const Media>> decodeShown(const std::filesystem::path& showFile,
                                                 const std::string& name,
                                                 const std::atomic<bool>* cancelled = nullptr);

}  // namespace chispa
