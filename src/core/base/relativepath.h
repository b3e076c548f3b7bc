// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>

namespace chispa {

/// Where a file that a show names lies: relative names are beside the show file.
inline std::filesystem::path resolvedBeside(const std::filesystem::path& showFile, const std::string& name) {
  const std::filesystem::path path(name);
  return path.is_absolute() ? path : showFile.parent_path() / path;
}

/// A file's name as the show keeps it: relative to the show where that is possible without leaving its
/// folder.
inline std::string relativeName(const std::filesystem::path& showFile, const std::filesystem::path& file) {
  if (showFile.empty()) return file.string();
  std::error_code error;
  const auto relative = std::filesystem::relative(file, showFile.parent_path(), error);
  return error || relative.empty() || *relative.begin() == ".." ? file.string() : relative.string();
}

}  // namespace chispa
