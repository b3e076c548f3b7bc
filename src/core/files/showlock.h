// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <optional>

namespace chispa {

/// Says to other windows of this user that a show file is open. The lock goes with its holder, however that
/// ends.
class ShowLock {
 public:
  /// Locks the file at `show`, by a lock file in `folder`; nothing if another process, or another lock of
  /// this one, holds it. A folder that cannot be written gives a lock that locks nothing.
  static std::optional<ShowLock> take(const std::filesystem::path& folder, const std::filesystem::path& show);
  ~ShowLock();
  ShowLock(ShowLock&& other) noexcept;
  ShowLock& operator=(ShowLock&& other) noexcept;

 private:
  explicit ShowLock(int fd) : fd_(fd) {}
  int fd_ = -1;
};

}  // namespace chispa
