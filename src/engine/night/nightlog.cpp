// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/nightlog.h"

#include <algorithm>
#include <utility>

#include <sqlite3.h>

#include "core/files/journal.h"
#include "link/userfolders.h"

namespace chispa::engine {
namespace {

namespace fs = std::filesystem;
using namespace std::chrono_literals;

/// What waits while nothing can be written.
constexpr std::size_t kMaxWaiting = 10'000;
constexpr auto kTryAgain = 2s;
constexpr auto kKept = std::chrono::days(731);

const char* const kTables =
    "PRAGMA journal_mode=WAL;"
    "PRAGMA synchronous=NORMAL;"
    "CREATE TABLE IF NOT EXISTS event (at_ms INTEGER NOT NULL, night TEXT NOT NULL, kind TEXT NOT NULL,"
    " what TEXT NOT NULL, detail TEXT NOT NULL);"
    "CREATE INDEX IF NOT EXISTS event_night ON event (night, at_ms);"
    "CREATE TABLE IF NOT EXISTS night (night TEXT PRIMARY KEY, show TEXT NOT NULL, light_s REAL NOT NULL,"
    " energy_kwh REAL NOT NULL, frames INTEGER NOT NULL, late_frames INTEGER NOT NULL, lost INTEGER NOT NULL,"
    " hottest_c REAL NOT NULL);";

}  // namespace

/// The file, opened; one thread at a time.
class NightFile {
 public:
  explicit NightFile(fs::path path) : path_(std::move(path)) {}
  ~NightFile() { ::sqlite3_close(db_); }
  NightFile(const NightFile&) = delete;
  NightFile& operator=(const NightFile&) = delete;

  Outcome open() {
    if (db_) return Done{};
    std::error_code ignored;
    // If it cannot be made, opening says so.
    fs::create_directories(path_.parent_path(), ignored);
    if (::sqlite3_open(path_.c_str(), &db_) != SQLITE_OK) return close();
    ::sqlite3_busy_timeout(db_, 2'000);
    if (::sqlite3_exec(db_, kTables, nullptr, nullptr, nullptr) != SQLITE_OK) return close();
    return Done{};
  }

  /// False if there is no log yet.
  bool openToRead() {
    return db_ || ::sqlite3_open_v2(path_.c_str(), &db_, SQLITE_OPEN_READONLY, nullptr) == SQLITE_OK;
  }

  Outcome write(const std::deque<NightEvent>& events, const std::deque<NightSum>& sums) {
    if (const Outcome opened = open(); !opened) return opened.failure();
    bool isFine = run("BEGIN IMMEDIATE");
    for (const NightEvent& event : events) isFine = isFine && insert(event);
    for (const NightSum& sum : sums) isFine = isFine && insert(sum);
    isFine = isFine && prune(events);
    if (isFine && run("COMMIT")) return Done{};
    const Failure failure = failed();
    run("ROLLBACK");
    return failure;
  }

  std::vector<NightSum> nights(int count) {
    std::vector<NightSum> all;
    Statement select(
        db_,
        "SELECT night, show, light_s, energy_kwh, frames, late_frames, lost, hottest_c FROM night"
        " ORDER BY night DESC LIMIT ?");
    select.bind(1, std::int64_t{count});
    while (select.step() == SQLITE_ROW)
      all.push_back({select.text(0), select.text(1), select.number(2), select.number(3),
                     static_cast<std::uint64_t>(select.whole(4)), static_cast<std::uint64_t>(select.whole(5)),
                     static_cast<int>(select.whole(6)), select.number(7)});
    std::reverse(all.begin(), all.end());
    return all;
  }

  std::vector<NightEvent> events(const std::string& night) {
    std::vector<NightEvent> all;
    Statement select(db_,
                     "SELECT at_ms, kind, what, detail FROM event WHERE night = ? ORDER BY at_ms, rowid");
    select.bind(1, night);
    while (select.step() == SQLITE_ROW)
      all.push_back({WallTime(std::chrono::milliseconds(select.whole(0))), night, select.text(1),
                     select.text(2), select.text(3)});
    return all;
  }

 private:
  class Statement {
   public:
    Statement(sqlite3* db, const char* text) { ::sqlite3_prepare_v2(db, text, -1, &own_, nullptr); }
    ~Statement() { ::sqlite3_finalize(own_); }
    Statement(const Statement&) = delete;
    Statement& operator=(const Statement&) = delete;
    void bind(int place, std::int64_t value) { ::sqlite3_bind_int64(own_, place, value); }
    void bind(int place, double value) { ::sqlite3_bind_double(own_, place, value); }
    void bind(int place, const std::string& value) {
      ::sqlite3_bind_text(own_, place, value.c_str(), static_cast<int>(value.size()), SQLITE_TRANSIENT);
    }
    int step() { return own_ ? ::sqlite3_step(own_) : SQLITE_ERROR; }
    std::string text(int column) const {
      const auto* raw = ::sqlite3_column_text(own_, column);
      return raw ? reinterpret_cast<const char*>(raw) : std::string();
    }
    double number(int column) const { return ::sqlite3_column_double(own_, column); }
    std::int64_t whole(int column) const { return ::sqlite3_column_int64(own_, column); }

   private:
    sqlite3_stmt* own_ = nullptr;
  };

  bool run(const char* text) { return ::sqlite3_exec(db_, text, nullptr, nullptr, nullptr) == SQLITE_OK; }

  bool insert(const NightEvent& event) {
    Statement insert(db_, "INSERT INTO event VALUES (?, ?, ?, ?, ?)");
    insert.bind(1, std::int64_t{event.at.time_since_epoch().count()});
    insert.bind(2, event.night);
    insert.bind(3, event.kind);
    insert.bind(4, event.what);
    insert.bind(5, event.detail);
    return insert.step() == SQLITE_DONE;
  }

  bool insert(const NightSum& sum) {
    Statement insert(db_,
                     "INSERT INTO night VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (night) DO UPDATE SET"
                     " show = excluded.show, light_s = light_s + excluded.light_s,"
                     " energy_kwh = energy_kwh + excluded.energy_kwh, frames = frames + excluded.frames,"
                     " late_frames = late_frames + excluded.late_frames, lost = lost + excluded.lost,"
                     " hottest_c = max(hottest_c, excluded.hottest_c)");
    insert.bind(1, sum.night);
    insert.bind(2, sum.show);
    insert.bind(3, sum.light_s);
    insert.bind(4, sum.energy_kwh);
    insert.bind(5, static_cast<std::int64_t>(sum.frames));
    insert.bind(6, static_cast<std::int64_t>(sum.lateFrames));
    insert.bind(7, std::int64_t{sum.lostControllers});
    insert.bind(8, sum.hottest_c);
    return insert.step() == SQLITE_DONE;
  }

  /// What lies two years behind the newest goes.
  bool prune(const std::deque<NightEvent>& events) {
    if (events.empty()) return true;
    const auto oldest = events.back().at - kKept;
    Statement old(db_, "DELETE FROM event WHERE at_ms < ?");
    old.bind(1, std::int64_t{oldest.time_since_epoch().count()});
    Statement nights(
        db_, "DELETE FROM night WHERE night NOT IN (SELECT night FROM night ORDER BY night DESC LIMIT 731)");
    return old.step() == SQLITE_DONE && nights.step() == SQLITE_DONE;
  }

  Failure failed() const {
    return {sentence("The log of nights cannot be written (%1).",
                     (db_ ? ::sqlite3_errmsg(db_) : "the file cannot be opened")),
            path_.string(), "See that there is room on the disk; it is tried again."};
  }
  Outcome close() {
    const Failure failure = failed();
    ::sqlite3_close(db_);
    db_ = nullptr;
    return failure;
  }

  fs::path path_;
  sqlite3* db_ = nullptr;
};

fs::path NightLog::usualFile() {
  return link::stateFolder() / "nights.sqlite";
}

NightLog::NightLog(std::unique_ptr<NightFile> file) : file_(std::move(file)), thread_([this] { run(); }) {}

Result<std::unique_ptr<NightLog>> NightLog::open(const fs::path& path) {
  auto file = std::make_unique<NightFile>(path);
  if (const Outcome opened = file->open(); !opened) return opened.failure();
  return std::unique_ptr<NightLog>(new NightLog(std::move(file)));
}

NightLog::~NightLog() {
  {
    const std::scoped_lock lock(mutex_);
    isEnding_ = true;
  }
  wake_.notify_all();
  thread_.join();
}

template <class T>
void NightLog::push(std::deque<T>& queue, T value, std::size_t most) {
  {
    const std::scoped_lock lock(mutex_);
    if (queue.size() >= most) {
      queue.pop_front();
      ++dropped_;
    }
    queue.push_back(std::move(value));
  }
  wake_.notify_all();
}

void NightLog::add(NightEvent event) {
  push(events_, std::move(event), kMaxWaiting);
}

void NightLog::add(const NightSum& more) {
  push(sums_, more, kMaxWaiting);
}

void NightLog::run() {
  std::unique_lock lock(mutex_);
  for (;;) {
    wake_.wait(lock, [this] { return isEnding_ || !events_.empty() || !sums_.empty(); });
    if (events_.empty() && sums_.empty()) break;
    auto events = std::exchange(events_, {});
    auto sums = std::exchange(sums_, {});
    isWriting_ = true;
    lock.unlock();
    const Outcome written = file_->write(events, sums);
    lock.lock();
    isWriting_ = false;
    trouble_ = written ? std::string() : written.failure().text();
    if (!written) {
      // They go back to where they were.
      events_.insert(events_.begin(), events.begin(), events.end());
      sums_.insert(sums_.begin(), sums.begin(), sums.end());
    }
    written_.notify_all();
    if (!written && isEnding_) break;
    if (!written) wake_.wait_for(lock, kTryAgain, [this] { return isEnding_; });
  }
}

void NightLog::flush() {
  std::unique_lock lock(mutex_);
  written_.wait(lock,
                [this] { return !isWriting_ && ((events_.empty() && sums_.empty()) || !trouble_.empty()); });
}

std::string NightLog::trouble() const {
  const std::scoped_lock lock(mutex_);
  return trouble_;
}

std::uint64_t NightLog::dropped() const {
  const std::scoped_lock lock(mutex_);
  return dropped_;
}

NightReader::NightReader(const fs::path& file) : file_(std::make_unique<NightFile>(file)) {}
NightReader::~NightReader() = default;

std::vector<NightSum> NightReader::nights(int count) {
  return file_->openToRead() ? file_->nights(count) : std::vector<NightSum>();
}

std::vector<NightEvent> NightReader::events(const std::string& night) {
  return file_->openToRead() ? file_->events(night) : std::vector<NightEvent>();
}

}  // namespace chispa::engine
