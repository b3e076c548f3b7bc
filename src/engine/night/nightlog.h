// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <condition_variable>
#include <deque>
#include <filesystem>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "core/base/result.h"
#include "engine/night/wallclock.h"

namespace chispa::engine {

/// Something that happened in a night.
struct NightEvent {
  WallTime at{};
  /// "2026-12-24": the day whose evening it belongs to.
  std::string night;
  /// One of: watch, slot, piece, dark, lost, back, clock, show, trouble.
  std::string kind;
  /// What it is about: a piece, a controller.
  std::string what;
  std::string detail;

  bool operator==(const NightEvent&) const = default;
};

/// The figures of a night, added up from all that ran in it.
struct NightSum {
  std::string night;
  std::string show;
  double light_s = 0;
  /// As computed from what the strips draw.
  double energy_kwh = 0;
  std::uint64_t frames = 0;
  std::uint64_t lateFrames = 0;
  int lostControllers = 0;
  /// Highest temperature of the machine; below −200 where it does not tell.
  double hottest_c = -273;

  bool operator==(const NightSum&) const = default;
};

/// Reads a log of nights; one that is not there is empty. One thread.
class NightReader {
 public:
  explicit NightReader(const std::filesystem::path& file);
  ~NightReader();

  /// The last `count` nights, the newest last; of all shows.
  std::vector<NightSum> nights(int count);
  std::vector<NightEvent> events(const std::string& night);

 private:
  std::unique_ptr<class NightFile> file_;
};

/// What happened in which night, in a file of SQLite that holds two years. Writing is done on a thread of its
/// own; what cannot be written waits, within bounds, and is tried again. Any thread.
class NightLog {
 public:
  /// $XDG_STATE_HOME/chispa/nights.sqlite, or that in ~/.local/state.
  static std::filesystem::path usualFile();
  static Result<std::unique_ptr<NightLog>> open(const std::filesystem::path& file);
  ~NightLog();

  void add(NightEvent event);
  /// Adds these figures to those of their night.
  void add(const NightSum& more);
  /// Waits until all that was added is written, or cannot be.
  void flush();
  /// Why the last writing failed; empty if it did not.
  std::string trouble() const;
  /// What was given up because too much waited.
  std::uint64_t dropped() const;

 private:
  explicit NightLog(std::unique_ptr<NightFile> file);
  void run();
  template <class T>
  void push(std::deque<T>& queue, T value, std::size_t most);

  std::unique_ptr<NightFile> file_;
  mutable std::mutex mutex_;
  std::condition_variable wake_;
  std::condition_variable written_;
  std::deque<NightEvent> events_;
  std::deque<NightSum> sums_;
  std::string trouble_;
  std::uint64_t dropped_ = 0;
  bool isWriting_ = false;
  bool isEnding_ = false;
  std::thread thread_;
};

}  // namespace chispa::engine
