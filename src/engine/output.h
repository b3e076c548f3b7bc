// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <atomic>
#include <cstdint>
#include <memory>
#include <optional>
#include <thread>
#include <vector>

#include <unistd.h>

#include "core/colour/lightness.h"
#include "engine/clock.h"
#include "engine/framebell.h"
#include "engine/handover.h"
#include "engine/liveoutput.h"
#include "engine/program.h"
#include "engine/scorefade.h"
#include "engine/signal.h"
#include "engine/stats.h"
#include "engine/transport.h"

namespace chispa::engine {

/// One universe leaving at one instant of a score; what the rehearsal compares with what arrived.
struct SentRecord {
  Micros position;
  /// Which frame it was for dithering.
  DitherFrame dither;
  std::uint32_t universe;
  /// True for the black frames that go out when light is switched off.
  bool dark;
};

/// Pixels that are told from all others, over whatever plays.
struct Highlight {
  enum class Kind {
    Point,    ///< they shine white, all else is dimmed
    Blink,    ///< they blink white, twice a second, all else is dimmed
    Isolate,  ///< they play on, all else is dark
  };
  Kind kind = Kind::Point;
  std::vector<std::int32_t> pixels;
};

/// Values that are sent instead of what was computed, universe by universe; master and blackout count.
struct ValueOverlay {
  struct Universe {
    ControllerId controller;
    int universe = 0;
    std::array<std::uint8_t, kUniverseChannels> values{};
  };
  std::vector<Universe> universes;
};

/// Computes and sends frames. The window's side hands it programs and switches; step() is the output thread's
/// and takes no lock, allocates nothing, throws nothing and does not wait.
class Output {
 public:
  explicit Output(const Transport& transport) : transport_(transport) {}

  /// Before the first step: the hands that frames are computed with; the caller of step() alone if none are
  /// given. `crew` must live as long.
  void setCrew(Crew& crew) { crew_ = &crew; }
  std::size_t hands() const { return crew_->hands(); }

  // Any thread but the output's, one at a time:

  /// The next frame plays `program`.
  void load(std::unique_ptr<Program> program) {
    pixels_ = static_cast<std::size_t>(program->show->map->count());
    makeFadingRoom();
    program_.give(std::move(program));
  }
  void switchLight(bool on) { lightWanted_.store(on); }
  bool isLightWanted() const { return lightWanted_.load(); }
  /// What `score` (none: no score) shows from when it plays next fades in over the light of what played
  /// before it, which stands still meanwhile.
  void fadeInto(ScoreId score, Micros length) {
    hasFaded_ = true;
    makeFadingRoom();
    lastOrder_ = static_cast<std::uint8_t>(lastOrder_ % 255 + 1);
    const auto ms = std::chrono::duration_cast<std::chrono::milliseconds>(length);
    fadeWanted_.store(FadeOrder{score, ms, lastOrder_}.packed());
  }
  void setMaster(float level) { master_.store(level); }
  float master() const { return master_.load(); }
  /// The share of all light that master and blackout let through, 0–1.
  float lightLevel() const { return isBlackout() ? 0.f : lightOfLevel(evenness_.load(), master()); }
  void setBlackout(bool on) { blackout_.store(on); }
  bool isBlackout() const { return blackout_.load(); }
  /// A test signal instead of the score; nothing ends it.
  void setSignal(std::optional<TestSignal> signal) {
    signal_.give(std::make_unique<std::optional<TestSignal>>(std::move(signal)));
  }
  /// Tells pixels from all others; none ends it.
  void setHighlight(Highlight highlight) {
    highlight_.give(std::make_unique<Highlight>(std::move(highlight)));
  }
  /// Sends these values over all else; none ends it.
  void setOverlay(ValueOverlay overlay) { overlay_.give(std::make_unique<ValueOverlay>(std::move(overlay))); }
  /// Keeps a record of what is sent, up to `most` entries; before the thread starts.
  void keepRecord(std::size_t most);
  const std::vector<SentRecord>& record() const { return record_; }

  /// Rings at each frame that was computed.
  FrameBell& bell() { return bell_; }

  /// What is played by hand.
  LiveOutput& live() { return live_; }
  const LiveOutput& live() const { return live_; }

  /// Output thread: the time until step() is due again.
  MonoTime tick() const noexcept;
  /// Output thread: computes the frame of `now`, if any line takes it or the window waits for one, and sends
  /// it if light is on.
  void step(MonoTime now) noexcept;
  /// Output thread, after step(): how long after the frame's instant something is still to leave, rising.
  std::span<const MonoTime> delays() const noexcept;
  /// Output thread: true if something is to leave `late` after the frame's instant.
  bool isDue(MonoTime late) const noexcept;
  /// Output thread: sends what leaves `late` after the frame's instant.
  void stepLate(MonoTime late, MonoTime now) noexcept;
  /// Output thread, at the end, a step apart while it returns true: black, then the end of the streams, if
  /// light was on.
  bool finish(MonoTime now) noexcept;

  /// Gives back what the output is done with; a retired program holds sockets and devices open. With load()
  /// and repair(), one thread at a time.
  void collect() {
    program_.collect();
    repair_.collect();
    fading_.collect();
  }
  /// Puts these senders in the place of those of the lines of the program with that number; another program
  /// leaves them alone.
  struct Repair {
    std::uint64_t program = 0;
    std::vector<std::pair<std::size_t, std::unique_ptr<link::ControllerSender>>> senders;
  };
  void repair(Repair repair) { repair_.give(std::make_unique<Repair>(std::move(repair))); }
  /// True if nothing that was sent can still be lit: all black has left. Any thread, a signal handler too.
  bool isDark() const noexcept { return isDark_.load(); }
  /// True on the thread that calls step(). Any thread, a signal handler too.
  bool isOutputThread() const noexcept { return stepper_.load() == ::gettid(); }

 private:
  /// How often black is sent before the streams end: any one packet may be lost.
  static constexpr int kDarkFrames = 3;

  /// Room for the light that fades away, once there is a fade: a large show has much of it.
  void makeFadingRoom() {
    if (!hasFaded_ || std::exchange(pixelsOfFading_, pixels_) == pixels_) return;
    auto room = std::make_unique<PixelFrame>();
    room->resize(pixels_);
    fading_.give(std::move(room));
  }
  bool turn(Program& program, MonoTime now) noexcept;
  void replaceProgram(Program* old, Program& next, MonoTime now) noexcept;
  void mend(Repair& repair, MonoTime now) noexcept;
  /// Light at `when`, which is `now` or ahead of it.
  struct Course {
    TransportState at;
    Micros position{0};
    MonoTime when{0};
    Micros ahead{0};
  };
  Course courseAt(MonoTime now, MonoTime lead) const noexcept;
  /// True if the frame to come is the one that was computed last: the same instant of the same show, and
  /// nobody plays, tests or points by hand.
  bool standsStill(const Program& program, const Course& course) noexcept;
  void compute(Program& program, const Course& course, MonoTime now) noexcept;
  /// `fading` is the room for light that fades away; null, or of another size, before there is any.
  void light(Program& program, const Course& course, MonoTime now, ScoreFade& fade, PixelFrame* fading,
             PixelFrame& frame) noexcept;
  /// A fade was asked for that `fade` has not begun yet.
  bool isFadeDue(const ScoreFade& fade, const Course& course) const noexcept;
  void beginFade(Program& program, const Course& course, ScoreFade& fade, PixelFrame* fading) noexcept;
  /// True if what would be packed is what has been: the light stands still, and all lines hold it.
  bool isSteady(const Program& program, float level) const noexcept;
  void packAll(Program& program, float level, MonoTime now) noexcept;
  void packAhead(Program& program, float level, MonoTime now) noexcept;
  void layOver(Program& program, float level) noexcept;
  void pointOut(PixelFrame& frame, MonoTime now) noexcept;
  /// Hands the values that leave to whoever looks at them.
  void showValues(Program& program) noexcept;
  void sendFrame(Program& program, Micros position, MonoTime now) noexcept;
  void note(const Line& line, Micros position, bool isDark) noexcept;
  void goDark(Program& program, MonoTime now) noexcept;

  Crew& crewFor(const Program& program) noexcept;
  void pack(Program& program, const PixelFrame& frame, float level, std::span<const float> levels,
            std::vector<std::uint8_t>& values) noexcept;

  const Transport& transport_;
  Crew lone_;
  Crew* crew_ = &lone_;
  LiveOutput live_;
  FrameBell bell_;
  Handover<Program> program_;
  Handover<std::optional<TestSignal>> signal_;
  Handover<Highlight> highlight_;
  Handover<ValueOverlay> overlay_;
  /// Light that fades away under what has begun.
  Handover<PixelFrame> fading_;
  Handover<Repair> repair_;
  std::atomic<bool> lightWanted_{false};
  /// Light is sent, or black frames that end it.
  bool isLit_ = false;
  int darkLeft_ = 0;
  std::atomic<bool> isDark_{true};
  std::atomic<pid_t> stepper_{0};
  /// A FadeOrder, packed.
  std::atomic<std::uint64_t> fadeWanted_{0};
  std::uint8_t lastOrder_ = 0;
  /// Of the program that was loaded last, and of what `fading_` has room for.
  std::size_t pixels_ = 0;
  std::size_t pixelsOfFading_ = 0;
  bool hasFaded_ = false;
  ScoreFade fade_;
  std::atomic<float> master_{1};
  std::atomic<Evenness> evenness_{Evenness::ToTheEye};
  /// When a frame was computed last.
  MonoTime computedAt_{-1'000'000'000'000};
  /// What it was of, whether nothing else lay on it, and how many frames in a row have been the same.
  struct Shown {
    std::uint64_t program = 0;
    ScoreId score = {};
    Micros position{0};

    bool operator==(const Shown&) const = default;
  };
  Shown shown_;
  bool isSettled_ = false;
  int stillFrames_ = 0;
  /// How bright the last frame was packed, and what was sent in the place of its values; less than dark after
  /// what was sent for another reason.
  float packedLevel_ = -1;
  /// Frames since values were handed to the reader.
  int unseen_ = 0;
  const ValueOverlay* packedUnder_ = nullptr;
  std::atomic<bool> blackout_{false};
  std::vector<SentRecord> record_;
  bool recording_ = false;
};

/// Runs an Output in its own steps on a thread of its own, on absolute time: an overrun skips whole steps.
class OutputThread {
 public:
  /// `stats` is written by the thread.
  OutputThread(Output& output, Clock& clock, OutputStats& stats);
  ~OutputThread();

 private:
  void run() noexcept;

  Output& output_;
  Clock& clock_;
  OutputStats& stats_;
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::engine
