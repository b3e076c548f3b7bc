// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/journal.h"

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/files/showfile.h"
#include "core/files/showjson.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;
namespace fs = std::filesystem;

Failure journalFailure(const fs::path& file) {
  return {"Unsaved work cannot be kept safe (" + std::string(std::strerror(errno)) + ").", file.string(),
          "Check that the disk has room, and save the show."};
}

bool appendLine(int fd, const Json& json) {
  const std::string line = json.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
  std::size_t done = 0;
  while (done < line.size()) {
    const ssize_t now = ::write(fd, line.data() + done, line.size() - done);
    if (now < 0 && errno != EINTR) return false;
    if (now > 0) done += static_cast<std::size_t>(now);
  }
  return ::fdatasync(fd) == 0;
}

bool isHeldByAnother(const fs::path& file) {
  const int fd = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
  if (fd < 0) return true;
  const bool held = ::flock(fd, LOCK_EX | LOCK_NB) != 0;
  ::close(fd);
  return held;
}

Result<LeftJournal> readJournal(const fs::path& file) {
  const auto text = readFile(file);
  if (!text) return text.failure();
  std::istringstream lines(*text);
  std::string line;
  std::getline(lines, line);
  const Json head = Json::parse(line, nullptr, false);
  if (!head.is_object() || !head.contains("show"))
    return Failure{"The journal has no beginning.", file.string(), "Delete it."};
  LeftJournal left;
  left.file = file;
  left.showPath = head.value("path", "");
  Json now = head["show"];
  while (std::getline(lines, line)) {
    const Json change = Json::parse(line, nullptr, false);
    if (change.is_discarded()) break;
    try {
      now = now.patch(change);
    } catch (const std::exception&) {
      break;  // What follows a change that does not fit cannot be trusted.
    }
    ++left.changes;
  }
  auto show = parseShow(now.dump(), file.string());
  if (!show) return show.failure();
  left.show = *std::move(show);
  return left;
}

}  // namespace

Journal::Journal(int fd, fs::path file) : fd_(fd), file_(std::move(file)) {}

Journal::~Journal() {
  ::unlink(file_.c_str());
  ::close(fd_);
}

Result<std::unique_ptr<Journal>> Journal::begin(const fs::path& folder, const std::string& path, const Show& show) {
  std::error_code error;
  fs::create_directories(folder, error);
  std::string name = (folder / "journal-XXXXXX.jsonl").string();
  const int fd = ::mkostemps(name.data(), 6, O_CLOEXEC | O_APPEND);
  if (fd < 0 || ::flock(fd, LOCK_EX | LOCK_NB) != 0) {
    const Failure failure = journalFailure(folder);
    if (fd >= 0) ::close(fd);
    return failure;
  }
  std::unique_ptr<Journal> journal(new Journal(fd, name));
  journal->last_ = std::make_unique<Json>(toJson(show));
  if (!appendLine(fd, {{"path", path}, {"show", *journal->last_}})) return journalFailure(name);
  return journal;
}

Outcome Journal::append(const Show& show) {
  Json next = toJson(show);
  Json change = Json::diff(*last_, next);
  if (change.empty()) return Done{};
  if (!appendLine(fd_, change)) return journalFailure(file_);
  *last_ = std::move(next);
  return Done{};
}

std::vector<LeftJournal> findLeftJournals(const fs::path& folder) {
  std::vector<LeftJournal> found;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder, error)) {
    if (entry.path().extension() != ".jsonl" || isHeldByAnother(entry.path())) continue;
    auto left = readJournal(entry.path());
    if (left && left->changes > 0)
      found.push_back(*std::move(left));
    else if (left)
      fs::remove(entry.path(), error);
  }
  return found;
}

fs::path journalFolder() {
  if (const char* state = std::getenv("XDG_STATE_HOME"); state && *state) return fs::path(state) / "chispa";
  const char* home = std::getenv("HOME");
  return fs::path(home ? home : "/tmp") / ".local/state/chispa";
}

}  // namespace chispa
