// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <optional>

#include <sys/stat.h>

#include "core/base/result.h"

namespace chispa {

/// A file that is written beside its place and takes it only when it is whole: until then, and whatever
/// fails, what was there stays. It keeps the mode and owner of the file that it replaces; through a symbolic
/// link it reaches what the link leads to, and other hard links keep seeing the same file. If it is not
/// committed, it goes without a trace.
class PendingFile {
 public:
  /// Makes an empty file beside `path`, with an ending like its own.
  static Result<PendingFile> begin(const std::filesystem::path& path);
  ~PendingFile();
  PendingFile(PendingFile&& other) noexcept;
  PendingFile& operator=(PendingFile&&) = delete;

  /// Where to write until then.
  const std::filesystem::path& path() const { return beside_; }
  /// Flushes it to the disk and puts it in its place.
  Outcome commit();

 private:
  PendingFile(std::filesystem::path target, std::filesystem::path beside)
      : target_(std::move(target)), beside_(std::move(beside)) {}
  Outcome replace(int fd);
  Outcome overwrite(int from);
  Failure failure(const char* what) const;

  std::filesystem::path target_;
  std::filesystem::path beside_;
};

/// What a file is known by: whoever writes it, changes it.
struct FileStamp {
  dev_t device = 0;
  ino_t inode = 0;
  off_t size = 0;
  std::int64_t changed_ns = 0;

  bool operator==(const FileStamp&) const = default;
};
/// Nothing if there is no such file.
std::optional<FileStamp> stampOf(const std::filesystem::path& path);

/// Where a path leads, whatever symbolic links stand in it; a last link may lead to a file that is not there
/// yet.
std::filesystem::path linkTarget(const std::filesystem::path& path);

/// Writes all of `text` to a file descriptor, over interruptions and short writes; false with errno set if it
/// cannot.
bool writeAll(int fd, std::string_view text);
/// Lets what was made, renamed or removed in a folder survive a power cut.
void syncFolder(const std::filesystem::path& folder);
/// "What (the system's reason)."
Failure systemFailure(const char* what, const std::filesystem::path& path, const Sentence& cure);

}  // namespace chispa
