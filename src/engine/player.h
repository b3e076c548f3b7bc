// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <condition_variable>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "core/live/followcode.h"
#include "engine/desklistener.h"
#include "engine/helpercrew.h"
#include "engine/output.h"
#include "engine/sound.h"

namespace chispa::engine {

/// How a controller is doing.
struct LineState {
  ControllerId controller;
  std::uint64_t packets = 0;
  std::uint64_t bytes = 0;
  std::uint64_t errors = 0;
  std::uint64_t frames = 0;
  /// False if the last seconds brought "nobody listens there", or nothing can be sent.
  bool reached = true;
  /// In words, if it is not reached.
  std::string trouble;
};

/// How a supply is doing.
struct SupplyState {
  SupplyId supply;
  double amps = 0;
  /// 1, or less while its budget holds the light back.
  double level = 1;
};

/// Where a sound lies in its score: its beginning is heard at `begins`, and `rate` seconds of the score pass
/// in each of its own.
struct SoundPlace {
  Micros begins{0};
  double rate = 1;

  Micros inScore(Micros heard) const {
    return begins + Micros(static_cast<std::int64_t>(static_cast<double>(heard.count()) * rate));
  }
  Micros inSound(Micros position) const {
    return Micros(static_cast<std::int64_t>(static_cast<double>((position - begins).count()) / rate));
  }
};

/// A part of a score that plays, its end not in it, and whether it begins again.
struct PlayedPart {
  Micros begin{0};
  Micros end{0};
  bool isLooped = false;
  /// Its last light stays lit once it is over; else the score is where it ends.
  bool holdsLast = false;
};

/// Plays shows: owns the output thread, the sound and the transport. All members are for one thread (the
/// window's or the command line's); nothing here waits for the output thread.
class Player {
 public:
  struct Options {
    /// The steady clock if there is none.
    std::shared_ptr<Clock> clock = {};
    /// Without threads nothing happens but in advance(): for tests that run faster than time.
    bool runsThreads = true;
    /// Threads that help the output's with large shows; −1 for as many as the machine has processors to
    /// spare.
    int helpers = -1;
    std::unique_ptr<Sound> sound;
    link::E131Source source;
    /// Entries of the record of sent universes; 0 keeps none.
    std::size_t recordEntries = 0;
  };

  explicit Player(Options options);
  ~Player();

  /// Plays `compiled` (of `show`) from the next frame on.
  void setShow(const Show& show, std::shared_ptr<const CompiledShow> compiled);
  /// Where sound is heard from the next play on; see Sound::setDevice.
  void setSoundDevice(const std::string& name);
  /// Sound of the score that plays next; null for a silent one, which plays at the place's rate too.
  void setSound(std::shared_ptr<const AudioClip> clip, SoundPlace place = {});

  /// Names are looked up, and sockets and devices opened, only once light is wanted.
  void switchLight(bool on);
  void play(ScoreId score, Micros from, PlayedPart part);
  /// When the part that plays comes to its end, this one goes on from its beginning, without a gap in the
  /// sound; whatever else is asked for meanwhile, no score among it, takes that back.
  void follow(ScoreId score, std::shared_ptr<const AudioClip> clip, PlayedPart part);
  /// How often that has happened.
  std::uint64_t followed() const;
  void pause();
  /// Shows the light at `position`, playing on from there if it was playing.
  void seek(ScoreId score, Micros position);
  /// As seek(); where it does not play, a moment of the sound there is heard, until hush().
  void scrub(ScoreId score, Micros position);
  void hush();
  void setLoop(bool loop);
  bool isPlaying() const;
  /// What score position is heard and seen now.
  Micros position() const;

  /// Of a player without threads: what its threads would do at this moment of its clock.
  void advance();

  /// Plays by hand; one thread a source. The next frame has it; false if the queue is full.
  bool live(LiveSource source, const LiveEvent& event) { return output_.live().push(source, event); }

  /// What is to be done now so that a score of `length` follows the time code of `request`.
  CodeStep codeStep(const LiveRequest& request, Micros length);

  /// Hears the desks that the show listens to, here and in later shows; none hears nothing. What could not be
  /// opened is said, and by deskTrouble() from then on.
  Outcome listenToDesks(std::optional<DeskListener::Options> options);
  bool listensToDesks() const { return deskOptions_.has_value(); }
  /// Why no desk is heard; empty if they are, or need not be.
  const std::string& deskTrouble() const { return deskTrouble_; }
  /// What desks send now; empty while nothing is listened to.
  std::vector<link::ReceivedUniverse> heardFromDesks() const;

  Output& output() { return output_; }
  const Output& output() const { return output_; }
  Clock& clock() { return *clock_; }
  const std::shared_ptr<Clock>& sharedClock() const { return clock_; }
  float master() const { return output_.master(); }
  bool isBlackout() const { return output_.isBlackout(); }
  const OutputStats& stats() const { return stats_; }
  std::vector<LineState> lines() const;
  /// All supplies of the show, as of the last frame that left.
  std::vector<SupplyState> supplies() const;
  std::string soundDescription() const { return sound_->description(); }
  /// Latest frame computed, in the order of the compiled show's pixels. Valid until the next call.
  const PixelFrame& latestFrame();
  /// Values that left, 512 for each of the compiled show's universes: of a large show some frames old where
  /// nobody has looked for a while, else the latest. Valid until the next call.
  const std::vector<std::uint8_t>& latestValues();

 private:
  /// A sound device that has not begun by then does not hold the light up.
  static constexpr MonoTime kMaxWaitForSound = std::chrono::milliseconds(500);
  void follow();
  void followOnce(MonoTime now);
  void publish(TransportState state);
  void load();
  void heal(MonoTime now);
  bool needsHealing(std::size_t line, MonoTime now, bool namesMoved) const;
  void reviveSound(MonoTime now);
  void correctToSound(MonoTime now);
  void startAt(ScoreId score, Micros from);
  void beginFollowing(Micros late, MonoTime now);
  Outcome openDesks();

  std::shared_ptr<Clock> clock_;
  OutputStats stats_;
  Transport transport_;
  Output output_{transport_};
  link::HostResolver hosts_;
  ProgramSetup setup_;
  DeskBoxes desks_;
  std::optional<DeskListener::Options> deskOptions_;
  std::unique_ptr<DeskListener> deskListener_;
  std::string deskTrouble_;

  /// Guards what is loaded: the caller loads shows, and the follower the same show anew when the network has
  /// changed.
  mutable std::mutex loading_;
  Show show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<PowerLive> power_;
  std::shared_ptr<ValueBox> leaving_;
  std::shared_ptr<ValueBox> reading_;
  std::uint64_t hostsVersion_ = 0;
  MonoTime healedAt_{0};
  /// A line of the program that was loaded last.
  struct LoadedLine {
    ControllerId controller;
    std::vector<int> universes;
    std::shared_ptr<const link::SendCounters> counters;
  };
  std::uint64_t program_ = 0;
  std::vector<LoadedLine> lines_;
  std::vector<LineProblem> problems_;

  /// Guards what the follower shares with the caller: the transport's writer side and the sound.
  mutable std::mutex mutex_;
  std::condition_variable wake_;
  std::unique_ptr<Sound> sound_;
  std::shared_ptr<const AudioClip> clip_;
  SoundPlace place_;
  PlayedPart part_;
  struct Following {
    ScoreId score;
    std::shared_ptr<const AudioClip> clip;
    PlayedPart part;
  };
  std::optional<Following> following_;
  std::uint64_t followed_ = 0;
  /// Where in what is heard the present clip began.
  Micros clipBegan_{0};
  bool waitingForSound_ = false;
  MonoTime startedAt_{0};
  MonoTime soundTriedAt_{0};
  bool stopping_ = false;

  /// Its helpers outlive the thread that gives them work.
  std::unique_ptr<HelperCrew> crew_;
  std::unique_ptr<OutputThread> thread_;
  std::thread follower_;
};

}  // namespace chispa::engine
