// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/showfile.h"

#include <fstream>

#include <fcntl.h>
#include <unistd.h>

#include "core/files/pendingfile.h"
#include "core/files/showjson.h"

namespace chispa {

Result<std::string> readFile(const std::filesystem::path& path, std::size_t most) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error))
    return Failure{"This is a folder, not a file.", path.string(), "Choose a file."};
  // A pipe would keep the program waiting for who writes into it.
  if (std::filesystem::exists(path, error) && !std::filesystem::is_regular_file(path, error))
    return Failure{"This is no regular file.", path.string(), "Choose a file on a disk."};
  std::ifstream in(path, std::ios::binary);
  if (!in)
    return systemFailure("The file cannot be opened", path, "Check its name and that you may read it.");
  const auto size = std::filesystem::file_size(path, error);
  if (!error && size > most)
    return Failure{"The file is too large to be of this kind.", path.string(), "Choose another."};
  std::string text((std::istreambuf_iterator<char>(in)), {});
  if (in.bad()) return systemFailure("The file cannot be read", path, "Check the disk.");
  return text;
}

Outcome writeFileAtomically(const std::filesystem::path& path, const std::string& text,
                            const std::function<bool()>& mayCommit) {
  auto pending = PendingFile::begin(path);
  if (!pending) return pending.failure();
  PendingFile file = *std::move(pending);
  const int fd = ::open(file.path().c_str(), O_WRONLY | O_NOFOLLOW | O_CLOEXEC);
  bool isWritten = fd >= 0 && writeAll(fd, text);
  Failure why = systemFailure("The file cannot be written", path, "Check that the disk has room.");
  if (fd >= 0 && ::close(fd) != 0 && isWritten) {
    isWritten = false;
    why = systemFailure("The file cannot be written", path, "Check that the disk has room.");
  }
  if (!isWritten) return why;
  if (mayCommit && !mayCommit())
    return Failure{"Writing was called off.", path.string(), "What was there before stays as it was."};
  return file.commit();
}

Result<Show> loadShow(const std::filesystem::path& path) {
  const auto text = readFile(path);
  if (!text) return text.failure();
  return parseShow(*text, path.string());
}

Outcome saveShow(const std::filesystem::path& path, const Show& show,
                 const std::function<bool()>& mayCommit) {
  return writeFileAtomically(path, showText(show), mayCommit);
}

}  // namespace chispa
