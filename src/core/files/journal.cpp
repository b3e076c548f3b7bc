// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/journal.h"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fstream>
#include <optional>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include "core/base/boundedjson.h"
#include "core/files/pendingfile.h"
#include "core/files/showjson.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;
namespace fs = std::filesystem;

constexpr const char* kEnding = ".jsonl";

Failure journalFailure(const fs::path& file) {
  return systemFailure("Unsaved work cannot be kept safe", file, "Make room on the disk, and save the show.");
}

bool isHeldByAnother(const fs::path& file) {
  const int fd = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
  if (fd < 0) return true;
  const bool held = ::flock(fd, LOCK_EX | LOCK_NB) != 0;
  ::close(fd);
  return held;
}

std::optional<Json> parsedLine(const std::string& line, const fs::path& file) {
  auto json = parseJson(line, "The journal", file.string(), "Delete it.");
  return json ? std::optional(*std::move(json)) : std::nullopt;
}

/// A patch puts nothing deeper than its own path and value are deep; a sum of many cannot either.
bool isWithinDepth(const Json& patch) {
  return patch.is_array() && std::all_of(patch.begin(), patch.end(), [](const Json& step) {
           const auto path = step.is_object() ? step.find("path") : step.end();
           const auto value = step.is_object() ? step.find("value") : step.end();
           if (!step.is_object() || path == step.end() || !path->is_string()) return false;
           const auto& words = path->get_ref<const std::string&>();
           return std::count(words.begin(), words.end(), '/') + (value == step.end() ? 0 : depthOf(*value)) <=
                  kMaxJsonDepth;
         });
}

/// Moving and copying could nest without end; our own patches only add, remove and replace.
bool isPlainPatch(const Json& patch) {
  return isWithinDepth(patch) && std::all_of(patch.begin(), patch.end(), [](const Json& step) {
           const auto op = step.find("op");
           return op != step.end() && (*op == "add" || *op == "remove" || *op == "replace");
         });
}

Result<LeftJournal> readJournal(const fs::path& file) {
  const Failure noBeginning{"A copy of unsaved work has no beginning that can be read.", file.string(),
                            "It is kept; there is nothing more to do."};
  std::ifstream in(file, std::ios::binary);
  std::string line;
  std::getline(in, line);
  const auto head = parsedLine(line, file);
  if (!head || !head->is_object() || !head->contains("show")) return noBeginning;
  LeftJournal left;
  left.file = file;
  const auto path = head->find("path");
  if (path != head->end() && path->is_string()) left.showPath = *path;
  const auto before = head->find("changes");
  if (before != head->end() && before->is_number_integer())
    left.changes = std::clamp(before->get<int>(), 0, 1'000'000'000);
  Json now = (*head)["show"];
  while (std::getline(in, line)) {
    // A line without its end was cut off by the crash itself.
    const bool isWhole = !in.eof();
    const auto change = parsedLine(line, file);
    left.isDamaged = isWhole;
    if (!change || !isPlainPatch(*change)) break;
    try {
      now = now.patch(*change);
    } catch (const std::exception&) {
      break;  // What follows a change that does not fit cannot be trusted.
    }
    left.isDamaged = false;
    ++left.changes;
  }
  auto show = showOfJson(now, file.string());
  if (!show) return show.failure();
  left.show = *std::move(show);
  return left;
}

fs::path setAside(const fs::path& file) {
  fs::path aside = file;
  aside.replace_extension(".damaged");
  std::error_code error;
  fs::rename(file, aside, error);
  return error ? file : aside;
}

}  // namespace

Journal::Journal(fs::path folder, std::string path) : folder_(std::move(folder)), path_(std::move(path)) {}

Journal::~Journal() {
  if (fd_ < 0) return;
  if (!isKept_) ::unlink(file_.c_str());
  ::close(fd_);
}

Result<std::unique_ptr<Journal>> Journal::begin(const fs::path& folder, const std::string& path,
                                                const Show& show) {
  std::unique_ptr<Journal> journal(new Journal(folder, path));
  if (const Outcome opened = journal->open(toJson(show), 0); !opened) return opened.failure();
  return journal;
}

Outcome Journal::open(const Json& show, int changes) {
  std::error_code error;
  fs::create_directories(folder_, error);
  std::string name = (folder_ / ("journal-XXXXXX" + std::string(kEnding))).string();
  const int fd = ::mkostemps(name.data(), static_cast<int>(std::strlen(kEnding)), O_CLOEXEC | O_APPEND);
  if (fd < 0) return journalFailure(folder_);
  const std::string line = Json({{"path", path_}, {"changes", changes}, {"show", show}})
                               .dump(-1, ' ', false, Json::error_handler_t::replace) +
                           "\n";
  if (::flock(fd, LOCK_EX | LOCK_NB) != 0 || !writeAll(fd, line) || ::fdatasync(fd) != 0) {
    const Failure failure = journalFailure(folder_);
    ::unlink(name.c_str());
    ::close(fd);
    return failure;
  }
  syncFolder(folder_);
  // Only now, as the new one is whole, the old one is in the way.
  if (fd_ >= 0) {
    ::unlink(file_.c_str());
    ::close(fd_);
  }
  fd_ = fd;
  isTorn_ = false;
  file_ = name;
  size_ = static_cast<std::int64_t>(line.size());
  changes_ = changes;
  last_ = std::make_unique<Json>(show);
  return Done{};
}

bool Journal::appendLine(const Json& json) {
  const std::string line = json.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
  // Where taking a cut-off line back failed as well, it is tried again before anything is written behind it.
  if (isTorn_ && ::ftruncate(fd_, size_) != 0) return false;
  isTorn_ = true;
  if (writeAll(fd_, line) && ::fdatasync(fd_) == 0) {
    isTorn_ = false;
    size_ += static_cast<std::int64_t>(line.size());
    return true;
  }
  const int reason = errno;
  // A cut-off line would make one with the next, and hide it.
  isTorn_ = ::ftruncate(fd_, size_) != 0;
  errno = reason;
  return false;
}

Outcome Journal::append(const Show& show) {
  Json next = toJson(show);
  const Json change = Json::diff(*last_, next);
  if (change.empty()) return Done{};
  if (!appendLine(change)) return open(next, changes_ + 1);
  ++changes_;
  *last_ = std::move(next);
  return Done{};
}

std::vector<fs::path> leftJournalFiles(const fs::path& folder) {
  std::vector<fs::path> files;
  std::error_code error;
  for (const auto& entry : fs::directory_iterator(folder, error))
    if (entry.path().extension() == kEnding && entry.is_regular_file(error) && !isHeldByAnother(entry.path()))
      files.push_back(entry.path());
  return files;
}

LeftJournals findLeftJournals(const fs::path& folder) {
  LeftJournals found;
  std::error_code error;
  for (const fs::path& file : leftJournalFiles(folder)) {
    auto left = readJournal(file);
    if (!left) {
      Failure why = left.failure();
      why.where = setAside(file).string();
      found.unreadable.push_back(std::move(why));
    } else if (left->changes > 0 || left->isDamaged) {
      found.left.push_back(*std::move(left));
    } else {
      fs::remove(file, error);
    }
  }
  return found;
}

void disposeOf(const LeftJournal& journal) {
  std::error_code error;
  if (journal.isDamaged)
    setAside(journal.file);
  else
    fs::remove(journal.file, error);
}

}  // namespace chispa
