// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cassert>
#include <filesystem>
#include <string>

#include <unistd.h>

namespace chispa::test {

/// A folder of its own for one test, gone afterwards.
class TemporaryFolder {
 public:
  TemporaryFolder() {
    std::string name = (std::filesystem::temp_directory_path() / "chispa-test-XXXXXX").string();
    path_ = ::mkdtemp(name.data());
  }
  ~TemporaryFolder() {
    std::error_code error;
    std::filesystem::remove_all(path_, error);
  }
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;

  const std::filesystem::path& path() const { return path_; }

 private:
  std::filesystem::path path_;
};

/// An address of 127.0.0.0/8 of this process's own, so that tests can run side by side.
inline std::string loopbackAddress(int index) {
  // Beyond 14 the last number would pass 255 in one process of sixteen.
  assert(index >= 0 && index <= 14);
  const int pid = ::getpid();
  return "127." + std::to_string(1 + (pid >> 12 & 127)) + "." + std::to_string(pid >> 4 & 255) + "." +
         std::to_string((pid & 15) * 16 + index + 1);
}

}  // namespace chispa::test
