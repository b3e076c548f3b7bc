// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/showlock.h"

#include <cstdio>
#include <string>
#include <utility>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

namespace chispa {
namespace {

/// FNV-1a, 64 bits: the same for one path in every process.
std::string hashOf(const std::string& text) {
  std::uint64_t hash = 0xcbf29ce484222325;
  for (const unsigned char c : text) hash = (hash ^ c) * 0x100000001b3;
  char words[24];
  std::snprintf(words, sizeof words, "%016llx", static_cast<unsigned long long>(hash));
  return words;
}

}  // namespace

std::optional<ShowLock> ShowLock::take(const std::filesystem::path& folder,
                                       const std::filesystem::path& show) {
  std::error_code error;
  const auto real = std::filesystem::weakly_canonical(show, error);
  std::filesystem::create_directories(folder, error);
  const auto file = folder / ("open-" + hashOf((real.empty() ? show : real).string()) + ".lock");
  const int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW, 0600);
  if (fd >= 0 && ::flock(fd, LOCK_EX | LOCK_NB) != 0) {
    ::close(fd);
    return std::nullopt;
  }
  return ShowLock(fd);
}

ShowLock::~ShowLock() {
  if (fd_ >= 0) ::close(fd_);
}
ShowLock::ShowLock(ShowLock&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
ShowLock& ShowLock::operator=(ShowLock&& other) noexcept {
  std::swap(fd_, other.fd_);
  return *this;
}

}  // namespace chispa
