// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/outsidefiles.h"

#include <set>

#include "core/files/besidefile.h"
#include "core/media/media.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

bool leadsOut(const std::filesystem::path& folder, const std::filesystem::path& file) {
  const auto relative = file.lexically_relative(folder);
  return relative.empty() || *relative.begin() == "..";
}

}  // namespace

bool liesOutside(const std::filesystem::path& showFile, const std::string& name) {
  if (showFile.empty()) return false;
  const auto folder = showFile.parent_path();
  const auto file = besideFile(showFile, name);
  if (leadsOut(folder.lexically_normal(), file.lexically_normal())) return true;
  std::error_code error;
  const auto realFolder = std::filesystem::weakly_canonical(folder, error);
  const auto realFile = error ? file : std::filesystem::weakly_canonical(file, error);
  // What cannot be followed is not known to be inside.
  return error || leadsOut(realFolder, realFile);
}

std::vector<std::string> namesOutside(const Show& show, const std::filesystem::path& showFile) {
  std::vector<std::string> found;
  std::set<std::string> seen;
  const auto look = [&](const std::string& name) {
    if (!name.empty() && seen.insert(name).second && liesOutside(showFile, name)) found.push_back(name);
  };
  for (const auto& score : show.scores) look(score->audio);
  for (const std::string& name : mediaNames(show)) look(fileOfMediaName(name));
  for (const auto& underlay : show.underlays) look(underlay->file);
  return found;
}

}  // namespace chispa
