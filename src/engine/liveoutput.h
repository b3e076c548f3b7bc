// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <memory>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "core/live/livenote.h"
#include "core/live/livestep.h"
#include "core/render/renderer.h"
#include "engine/heardnow.h"
#include "engine/liveclock.h"
#include "engine/spscqueue.h"
#include "engine/triplebuffer.h"

namespace chispa::engine {

/// Threads that play by hand; each has a queue of its own.
enum class LiveSource { Window, Midi, Osc, Phone, SetList };
inline constexpr std::size_t kLiveSources = 5;

/// What is played by hand, as of a frame.
struct LiveSnapshot {
  LiveState state;
  LiveInstant now;
};

/// A universe of a desk, from the thread that hears it to the one that sends.
struct DeskBox {
  struct Heard {
    std::array<std::uint8_t, 512> values{};
    bool isHeard = false;
    bool isLost = false;
    MonoTime lostAt{0};

    void resize(std::size_t) {}
  };
  TripleBuffer<Heard> box;
  /// The writer's: what was heard last.
  std::array<std::uint8_t, 512> last{};
  bool isHeard = false;
};

/// The part of the output that is played by hand. push() and what follows it are for any thread, one a
/// source; the rest is the output thread's, takes no lock and allocates nothing.
class LiveOutput {
 public:
  /// The next frame has it; false, and counted, if the queue is full.
  bool push(LiveSource source, const LiveEvent& event) noexcept {
    return queues_[static_cast<std::size_t>(source)].tryPush(event);
  }
  std::uint64_t dropped() const noexcept;
  /// What is heard now goes in here; looks without a score follow it.
  const std::shared_ptr<HeardBox>& heardBox() const noexcept { return heard_; }
  /// Owner of the player: what was asked for and is not light.
  std::optional<LiveRequest> takeRequest() noexcept { return requests_.tryPop(); }
  std::optional<LiveNote> takeNote() noexcept { return notes_.tryPop(); }
  /// One reader: what plays as of the last frame; valid until the next call.
  const LiveSnapshot& snapshot() noexcept { return snapshots_.latest(); }

  /// Takes all events in and lets time pass, up to the frame at `now`.
  void step(const CompiledShow& show, const CompiledScore* score, const TransportState& at, MonoTime now,
            std::span<const std::shared_ptr<DeskBox>> boxes, std::vector<DeskValues>& desk,
            float master) noexcept;
  /// Lays it on the light in `frame`, as it will be `ahead` of the last step if nobody touches anything.
  void render(Renderer& renderer, const CompiledShow& show, const CompiledScore* score, Micros position,
              std::span<const DeskValues> desk, PixelFrame& frame, Micros ahead) noexcept;
  /// True if render() changes nothing, now and until somebody plays.
  bool isAtRest(const CompiledShow& show) const noexcept {
    return state_.plays.isEmpty() && state_.zones.isEmpty() && show.live->deskInputs.empty();
  }
  /// True if something may drive channels as they leave.
  static bool drivesChannels(const CompiledShow& show) noexcept;
  /// Channels that are driven as they leave.
  void layOver(const CompiledShow& show, float level, std::span<std::uint8_t> values) noexcept;
  /// True once after a binding has moved it: the master, and whether all is dark.
  std::optional<float> takeMaster() noexcept { return std::exchange(master_, std::nullopt); }
  std::optional<bool> takeBlackout() noexcept { return std::exchange(blackout_, std::nullopt); }

 private:
  static constexpr std::size_t kEvents = 4096;
  static constexpr std::size_t kNotes = 1024;
  /// Events of a queue that a frame takes in; the rest wait for the next.
  static constexpr int kMaxOfFrame = 1024;

  void listen(std::span<const std::shared_ptr<DeskBox>> boxes, std::vector<DeskValues>& desk,
              MonoTime now) noexcept;
  void noteChanges(const CompiledShow& show, ScoreId score) noexcept;
  void note(LiveNote::Kind kind, const LookPlay& play, const CompiledLook& look, ScoreId score) noexcept;

  std::array<SpscQueue<LiveEvent, kEvents>, kLiveSources> queues_;
  SpscQueue<LiveRequest, 64> requests_;
  SpscQueue<LiveNote, kNotes> notes_;
  /// Takes the beat of what is heard as the tempo.
  void followHeard(const HeardNow& heard, MonoTime now) noexcept;

  TripleBuffer<LiveSnapshot> snapshots_;
  std::shared_ptr<HeardBox> heard_ = makeHeardBox();
  /// What is heard as music to a score without clips.
  CompiledScore heardScore_;
  Micros heardAt_{0};
  LiveClock clock_;
  LiveState state_;
  LiveInstant now_;
  std::optional<float> master_;
  std::optional<bool> blackout_;
  /// What notes told last.
  struct Noted {
    std::uint32_t serial = 0;
    LookId look;
    float level = 1;
    bool isEnding = false;
  };
  InlineList<Noted, LiveState::kMaxPlays> noted_;
};

}  // namespace chispa::engine
