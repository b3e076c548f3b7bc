// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// True if a file that the show at `showFile` names lies outside the show's folder: by its name, or by a
/// symbolic link. A path that leads out by its name alone is not looked at on the disk. Of a show without a
/// file nothing is outside: its maker chose every name. Any thread.
bool liesOutside(const std::filesystem::path& showFile, const std::string& name);

/// What music, pictures, videos and underlays `show` names that lie outside, as it names them, each once.
std::vector<std::string> namesOutside(const Show& show, const std::filesystem::path& showFile);

}  // namespace chispa
