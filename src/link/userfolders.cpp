// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/userfolders.h"

#include <cstdlib>
#include <string>

namespace chispa::link {
namespace {

namespace fs = std::filesystem;

/// The folder that `variable` names, else `otherwise` in the user's home; without a home, beside what is
/// temporary.
fs::path folderOf(const char* variable, const char* otherwise) {
  if (const char* named = std::getenv(variable); named && *named) return fs::path(named) / "chispa";
  const char* home = std::getenv("HOME");
  return (home && *home ? fs::path(home) / otherwise : fs::temp_directory_path()) / "chispa";
}

}  // namespace

fs::path stateFolder() {
  return folderOf("XDG_STATE_HOME", ".local/state");
}

fs::path dataFolder() {
  return folderOf("XDG_DATA_HOME", ".local/share");
}

fs::path stripLibraryFile() {
  return dataFolder() / "strips.json";
}

}  // namespace chispa::link
