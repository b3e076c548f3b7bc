// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>
#include <string>

#include "core/base/result.h"
#include "core/media/media.h"

namespace chispa {

/// What a `.json` says that explains light as bytes, and where it is: beside these.
inline constexpr const char* kLightFormat = "chispa-light";
std::filesystem::path explanationPath(const std::filesystem::path& path);

/// Light that was written frame by frame (docs/light-data.md): a PNG whose rows are frames, a table of pixels
/// (`.csv`), or bytes that a `.json` beside explains. Each frame becomes a picture of one row, as wide as it
/// is; its rate is 0 where the file tells none. Within 256 MB.
Result<std::shared_ptr<const Media>> readLightRows(const std::filesystem::path& path);

/// The name in a MediaLibrary of a file that is read so, and back: nothing for any other.
std::string rowsName(const std::string& file);
std::optional<std::string> fileOfRowsName(const std::string& name);

}  // namespace chispa
