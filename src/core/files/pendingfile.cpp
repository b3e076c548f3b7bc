// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/pendingfile.h"

#include <array>
#include <cerrno>
#include <cstring>
#include <random>

#include <fcntl.h>
#include <unistd.h>

namespace chispa {
namespace {

constexpr const char* kCure =
    "Check that the folder exists, that you may write there and that the disk has room.";

/// A file descriptor that closes itself.
class OpenFile {
 public:
  explicit OpenFile(int fd) : fd_(fd) {}
  ~OpenFile() {
    if (fd_ >= 0) ::close(fd_);
  }
  OpenFile(const OpenFile&) = delete;
  OpenFile& operator=(const OpenFile&) = delete;
  int operator*() const { return fd_; }
  explicit operator bool() const { return fd_ >= 0; }

 private:
  int fd_;
};

std::string randomLetters() {
  static thread_local std::mt19937 random{std::random_device{}()};
  std::string letters;
  for (int i = 0; i < 8; ++i) letters.push_back(static_cast<char>('a' + random() % 26));
  return letters;
}

}  // namespace

Failure systemFailure(const char* what, const std::filesystem::path& path, const Sentence& cure) {
  return {sentence("%1 (%2).", what, std::strerror(errno)), path.string(), cure};
}

bool writeAll(int fd, std::string_view text) {
  while (!text.empty()) {
    const ssize_t now = ::write(fd, text.data(), text.size());
    if (now < 0 && errno == EINTR) continue;
    if (now == 0) errno = ENOSPC;
    if (now <= 0) return false;
    text.remove_prefix(static_cast<std::size_t>(now));
  }
  return true;
}

void syncFolder(const std::filesystem::path& folder) {
  const OpenFile open(::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (open) ::fsync(*open);
}

std::filesystem::path linkTarget(const std::filesystem::path& path) {
  std::filesystem::path target = path;
  std::error_code error;
  constexpr int kMaxLinks = 40;
  for (int i = 0; i < kMaxLinks && std::filesystem::is_symlink(target, error); ++i) {
    const auto next = std::filesystem::read_symlink(target, error);
    if (error) break;
    target = next.is_absolute() ? next : target.parent_path() / next;
  }
  return target;
}

std::optional<FileStamp> stampOf(const std::filesystem::path& path) {
  struct stat is {};
  if (::stat(path.c_str(), &is) != 0) return std::nullopt;
  return FileStamp{is.st_dev, is.st_ino, is.st_size,
                   is.st_mtim.tv_sec * std::int64_t{1'000'000'000} + is.st_mtim.tv_nsec};
}

Result<PendingFile> PendingFile::begin(const std::filesystem::path& path) {
  const auto target = linkTarget(path);
  struct stat is {};
  if (::stat(target.c_str(), &is) == 0 && !S_ISREG(is.st_mode))
    return Failure{"There is something else than a file in its place.", path.string(),
                   "Choose another name."};
  constexpr int kMaxTries = 100;
  for (int i = 0; i < kMaxTries; ++i) {
    auto beside = target.parent_path() /
                  ("." + target.stem().string() + "-" + randomLetters() + target.extension().string());
    const OpenFile file(::open(beside.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0666));
    if (file) return PendingFile(target, std::move(beside));
    if (errno != EEXIST) break;
  }
  return systemFailure("The file cannot be written", path, kCure);
}

PendingFile::PendingFile(PendingFile&& other) noexcept
    : target_(std::move(other.target_)), beside_(std::move(other.beside_)) {
  other.beside_.clear();
}

PendingFile::~PendingFile() {
  if (!beside_.empty()) ::unlink(beside_.c_str());
}

Failure PendingFile::failure(const char* what) const {
  return systemFailure(what, target_, kCure);
}

Outcome PendingFile::commit() {
  const OpenFile file(::open(beside_.c_str(), O_RDONLY | O_NOFOLLOW | O_CLOEXEC));
  if (!file || ::fsync(*file) != 0) return failure("The file cannot be written");
  return replace(*file);
}

Outcome PendingFile::replace(int fd) {
  struct stat was {};
  if (::stat(target_.c_str(), &was) == 0) {
    struct stat is {};
    ::fstat(fd, &is);
    const bool sameOwner = was.st_uid == is.st_uid && was.st_gid == is.st_gid;
    // Renaming would give it another owner, or leave other hard links with the old one.
    if (was.st_nlink > 1 || (!sameOwner && ::fchown(fd, was.st_uid, was.st_gid) != 0)) return overwrite(fd);
    if (::fchmod(fd, was.st_mode & 07777) != 0) return failure("The file cannot keep its permissions");
  }
  if (::rename(beside_.c_str(), target_.c_str()) != 0) return failure("The file cannot be written");
  syncFolder(target_.parent_path());
  beside_.clear();
  return Done{};
}

Outcome PendingFile::overwrite(int from) {
  const OpenFile to(::open(target_.c_str(), O_WRONLY | O_CLOEXEC));
  if (!to) return failure("The file cannot be written");
  std::array<char, 1 << 16> piece;
  off_t length = 0;
  for (ssize_t got = ::read(from, piece.data(), piece.size()); got != 0;
       got = ::read(from, piece.data(), piece.size())) {
    if (got < 0 || !writeAll(*to, {piece.data(), static_cast<std::size_t>(got)})) {
      // From here on the whole of it is only beside its place.
      const Failure why = systemFailure(
          "The file could not be written to its end", target_,
          sentence("What was to be written is kept as %1; make room, and copy it.", beside_.string()));
      beside_.clear();
      return why;
    }
    length += got;
  }
  if (::ftruncate(*to, length) != 0 || ::fsync(*to) != 0) {
    const Failure why =
        systemFailure("The file could not be written to its end", target_,
                      sentence("What was to be written is kept as %1; copy it.", beside_.string()));
    beside_.clear();
    return why;
  }
  return Done{};
}

}  // namespace chispa
