// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/showlock.h"

#include <cstdio>
#include <string>
#include <utility>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include "core/base/texthash.h"

namespace chispa {
namespace {

std::string hashOf(const std::string& text) {
  char words[24];
  std::snprintf(words, sizeof words, "%016llx", static_cast<unsigned long long>(hashOfText(text)));
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
