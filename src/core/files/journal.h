// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>
#include <nlohmann/json_fwd.hpp>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// Unsaved work on disk. Line 1 of a journal is the show as it was opened, each further line one change as a JSON
/// Patch (RFC 6902); every line is flushed to the disk. While its owner lives it holds a lock on the file; a
/// journal that nobody locks was left by a crash.
class Journal {
 public:
  /// Begins a journal in `folder` for a show whose file is `path` (empty if it has none yet).
  static Result<std::unique_ptr<Journal>> begin(const std::filesystem::path& folder, const std::string& path,
                                                const Show& show);
  /// Clean end: the journal is deleted.
  ~Journal();
  Journal(const Journal&) = delete;
  Journal& operator=(const Journal&) = delete;

  /// Appends what changed since the last call; nothing if nothing did.
  Outcome append(const Show& show);
  const std::filesystem::path& file() const { return file_; }

 private:
  Journal(int fd, std::filesystem::path file);

  int fd_;
  std::filesystem::path file_;
  std::unique_ptr<nlohmann::ordered_json> last_;
};

/// What a crashed program left behind.
struct LeftJournal {
  std::filesystem::path file;
  /// Path of the show file it belongs to; empty if it was never saved.
  std::string showPath;
  Show show;
  /// Changes that were made and not saved.
  int changes = 0;
};

/// Journals in `folder` that no living program holds; those without a change are left out. A last line that was cut
/// off by the crash is passed over.
std::vector<LeftJournal> findLeftJournals(const std::filesystem::path& folder);

/// $XDG_STATE_HOME/chispa, or ~/.local/state/chispa.
std::filesystem::path journalFolder();

}  // namespace chispa
