// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/outsidefiles.h"

#include <set>

#include "core/base/relativepath.h"
#include "core/effect/showmedia.h"
#include "core/media/media.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

bool leadsOut(const std::filesystem::path& folder, const std::filesystem::path& file) {
  const auto relative = file.lexically_relative(folder);
  return relative.empty() || *relative.begin() == "..";
}

/// The folder of a show, its symbolic links followed once.
class ShowFolder {
 public:
  explicit ShowFolder(const std::filesystem::path& showFile)
      : showFile_(showFile),
        normal_(showFile.parent_path().lexically_normal()),
        real_(std::filesystem::weakly_canonical(showFile.parent_path(), error_)) {}

  bool isOutside(const std::string& name) const {
    if (showFile_.empty()) return false;
    const auto file = resolvedBeside(showFile_, name);
    if (leadsOut(normal_, file.lexically_normal())) return true;
    std::error_code error = error_;
    const auto real = error ? file : std::filesystem::weakly_canonical(file, error);
    // What cannot be followed is not known to be inside.
    return error || leadsOut(real_, real);
  }

 private:
  std::error_code error_;
  std::filesystem::path showFile_;
  std::filesystem::path normal_;
  std::filesystem::path real_;
};

}  // namespace

bool liesOutside(const std::filesystem::path& showFile, const std::string& name) {
  return ShowFolder(showFile).isOutside(name);
}

std::vector<std::string> namesOutside(const Show& show, const std::filesystem::path& showFile) {
  std::vector<std::string> found;
  std::set<std::string> seen;
  const ShowFolder folder(showFile);
  const auto look = [&](const std::string& name) {
    if (!name.empty() && seen.insert(name).second && folder.isOutside(name)) found.push_back(name);
  };
  for (const auto& score : show.scores) look(score->audio);
  for (const std::string& name : mediaNames(show)) look(fileOfMediaName(name));
  for (const auto& underlay : show.underlays) look(underlay->file);
  return found;
}

}  // namespace chispa
