// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/showfile.h"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>

#include "core/files/showjson.h"

namespace chispa {
namespace {

Failure systemFailure(const std::string& what, const std::filesystem::path& path, const std::string& cure) {
  return {what + " (" + std::strerror(errno) + ").", path.string(), cure};
}

bool writeAll(int fd, const std::string& text) {
  std::size_t done = 0;
  while (done < text.size()) {
    const ssize_t now = ::write(fd, text.data() + done, text.size() - done);
    if (now < 0 && errno != EINTR) return false;
    if (now > 0) done += static_cast<std::size_t>(now);
  }
  return ::fsync(fd) == 0;
}

/// The rename itself must survive a power cut too.
void syncFolder(const std::filesystem::path& folder) {
  const int fd = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
  if (fd < 0) return;
  ::fsync(fd);
  ::close(fd);
}

}  // namespace

Result<std::string> readFile(const std::filesystem::path& path, std::size_t most) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error))
    return Failure{"This is a folder, not a file.", path.string(), "Choose a file."};
  std::ifstream in(path, std::ios::binary);
  if (!in) return systemFailure("The file cannot be opened", path, "Check its name and that you may read it.");
  const auto size = std::filesystem::file_size(path, error);
  if (!error && size > most) return Failure{"The file is too large to be of this kind.", path.string(), "Choose another."};
  std::string text((std::istreambuf_iterator<char>(in)), {});
  if (in.bad()) return systemFailure("The file cannot be read", path, "Check the disk.");
  return text;
}

Outcome writeFileAtomically(const std::filesystem::path& path, const std::string& text) {
  const std::filesystem::path beside = path.string() + ".part";
  const std::string cure = "Check that the folder exists, that you may write there and that the disk has room.";
  const int fd = ::open(beside.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
  if (fd < 0) return systemFailure("The file cannot be written", path, cure);
  const bool written = writeAll(fd, text);
  const bool closed = ::close(fd) == 0;
  if (!written || !closed || ::rename(beside.c_str(), path.c_str()) != 0) {
    const Failure failure = systemFailure("The file cannot be written", path, cure);
    ::unlink(beside.c_str());
    return failure;
  }
  syncFolder(path.parent_path());
  return Done{};
}

Result<Show> loadShow(const std::filesystem::path& path) {
  const auto text = readFile(path);
  if (!text) return text.failure();
  return parseShow(*text, path.string());
}

Outcome saveShow(const std::filesystem::path& path, const Show& show) {
  return writeFileAtomically(path, showText(show));
}

}  // namespace chispa
