// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// Unsaved work on disk. Line 1 of a journal is a show, each further line one change as a JSON Patch (RFC
/// 6902); every line is flushed to the disk. While its owner lives it holds a lock on the file; a journal
/// that nobody locks was left by a crash.
class Journal {
 public:
  /// Begins a journal in `folder` for a show whose file is `path` (empty if it has none yet).
  static Result<std::unique_ptr<Journal>> begin(const std::filesystem::path& folder, const std::string& path,
                                                const Show& show);
  /// Clean end: the journal is deleted.
  ~Journal();
  Journal(const Journal&) = delete;
  Journal& operator=(const Journal&) = delete;

  /// Appends what changed since the last call that succeeded; nothing if nothing did. A line that could not
  /// be written whole is taken back, and all is tried once more in a new file; if that fails too, what was
  /// safe before still is, and the next call tries again.
  Outcome append(const Show& show);
  const std::filesystem::path& file() const { return file_; }
  /// The file stays when the journal ends, as after a crash.
  void keep() { isKept_ = true; }

 private:
  Journal(std::filesystem::path folder, std::string path);
  Outcome open(const nlohmann::ordered_json& show, int changes);
  bool appendLine(const nlohmann::ordered_json& json);

  std::filesystem::path folder_;
  std::string path_;
  int fd_ = -1;
  std::filesystem::path file_;
  /// Bytes of the file that are whole lines.
  std::int64_t size_ = 0;
  /// Something may stand behind them.
  bool isTorn_ = false;
  bool isKept_ = false;
  int changes_ = 0;
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
  /// More follows what could be read.
  bool isDamaged = false;
};

struct LeftJournals {
  std::vector<LeftJournal> left;
  /// Files of which nothing could be read, and why.
  std::vector<Failure> unreadable;
};

/// Journals in `folder` that no living program holds; those without a change are deleted. A last line that
/// was cut off by the crash is passed over. What cannot be read is kept, under a name that is not looked at
/// again.
LeftJournals findLeftJournals(const std::filesystem::path& folder);

/// The files that findLeftJournals() would look at; nothing is read.
std::vector<std::filesystem::path> leftJournalFiles(const std::filesystem::path& folder);

/// Takes away a journal whose content is safe elsewhere; a damaged one is kept, under a name that is not
/// looked at again.
void disposeOf(const LeftJournal& journal);

}  // namespace chispa
