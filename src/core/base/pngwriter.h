// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>

#include "core/base/picturereader.h"

namespace chispa {

/// Writes a PNG (libpng); returns why it cannot, or nothing. Quickly, not as small as can be.
std::string writePng(const std::filesystem::path& path, const PictureBytes& picture, PictureColours colours);

}  // namespace chispa
