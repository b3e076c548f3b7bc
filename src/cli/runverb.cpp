// SPDX-License-Identifier: GPL-3.0-or-later
#include <future>
#include <iostream>
#include <thread>

#include "cli/interrupt.h"
#include "cli/playing.h"
#include "cli/statsfile.h"
#include "core/base/relativepath.h"
#include "core/files/showfile.h"
#include "core/media/audio.h"
#include "core/music/stretch.h"
#include "engine/midihub.h"
#include "engine/night/nightwatch.h"
#include "engine/night/playerhand.h"
#include "engine/night/systemd.h"
#include "link/osc.h"

namespace chispa::cli {
namespace {

using namespace std::chrono_literals;
using engine::MonoTime;
using engine::Programme;

/// What plays by hand while a show runs without a window.
class Inputs {
 public:
  Inputs(engine::Player& player, const Words& words) {
    if (!words.listen) return;
    engine::DeskListener::Options desks;
    if (!words.interface.empty()) desks.address = words.interface;
    if (const Outcome opened = player.listenToDesks(desks); !opened)
      std::cerr << opened.failure().text() << "\n";
    midi_ = std::make_unique<engine::MidiHub>(
        link::systemMidi(),
        [&player](const LiveEvent& event) { player.live(engine::LiveSource::Midi, event); },
        [](const link::ControlHeard&) {});
    auto osc =
        link::OscServer::open(desks.address, link::OscServer::kPort, [&player](const link::OscHeard& heard) {
          player.live(engine::LiveSource::Osc,
                      controlEvent({.kind = SourceKind::Osc, .address = heard.address}, heard.value));
        });
    if (osc)
      osc_ = *std::move(osc);
    else
      std::cerr << osc.failure().text() << "\n";
  }
  void refresh() {
    if (midi_) midi_->refresh();
  }

 private:
  std::unique_ptr<engine::MidiHub> midi_;
  std::unique_ptr<link::OscServer> osc_;
};
/// Tells when the file of a show has become another, and reads it beside what plays.
class FileWatch {
 public:
  struct Read {
    Show show;
    std::shared_ptr<const CompiledShow> compiled;
  };
  explicit FileWatch(std::filesystem::path path) : path_(std::move(path)), seen_(stampOf()) {}

  /// The show as it is now, once it has changed and could be read; why not, if it could not.
  std::optional<Result<Read>> poll() {
    if (reading_.valid()) {
      if (reading_.wait_for(0s) != std::future_status::ready) return std::nullopt;
      return reading_.get();
    }
    if (const Stamp now = stampOf(); now != seen_ && now.size > 0) {
      seen_ = now;
      reading_ = std::async(std::launch::async, [path = path_] { return read(path); });
    }
    return std::nullopt;
  }

 private:
  struct Stamp {
    std::filesystem::file_time_type changed{};
    std::uintmax_t size = 0;
    bool operator==(const Stamp&) const = default;
  };
  static Result<Read> read(const std::filesystem::path& path) {
    auto show = loadShow(path);
    if (!show) return show.failure();
    OpenedShow opened{path, *std::move(show)};
    auto compiled = opened.compiled();
    return Read{std::move(opened.show), std::move(compiled)};
  }
  Stamp stampOf() const {
    std::error_code gone;
    Stamp stamp{std::filesystem::last_write_time(path_, gone), 0};
    const auto size = std::filesystem::file_size(path_, gone);
    if (!gone) stamp.size = size;
    return stamp;
  }

  std::filesystem::path path_;
  Stamp seen_;
  std::future<Result<Read>> reading_;
};

/// What the words ask for, without the almanac; said on stderr if the show has no such thing.
std::optional<Programme> programmeOf(const OpenedShow& opened, const Words& words) {
  const auto named = [&](const auto& items, const std::string& name, const char* kind,
                         const char* verb) -> decltype(items.front().get()) {
    const auto* found = findNamed(items, name);
    if (!found)
      failed(
          {std::string("The show has no ") + kind + " called “" + name + "”.", opened.path.string(), verb});
    return found;
  };
  if (!words.look.empty()) {
    const Look* look =
        named(opened.show.looks, words.look, "look", "chispa-cli looks prints those that it has.");
    return look ? std::optional(Programme{.kind = PieceKind::Look, .look = look->id}) : std::nullopt;
  }
  if (!words.setList.empty()) {
    const SetList* list =
        named(opened.show.setLists, words.setList, "set list", "The window shows those that it has, in Run.");
    return list ? std::optional(Programme{.kind = PieceKind::SetList, .list = list->id}) : std::nullopt;
  }
  // A show without scores may be played by hand.
  if (words.score.empty() && opened.show.scores.empty()) return Programme{.kind = PieceKind::Silence};
  const Score* score = opened.score(words.score);
  return score ? std::optional(Programme{.kind = PieceKind::Score, .score = score->id}) : std::nullopt;
}

std::shared_ptr<const AudioClip> soundOf(const std::filesystem::path& show, const Score& score) {
  auto clip = decodeAudio(resolvedBeside(show, score.audio));
  if (clip) return shifted(*clip, score.audioStart);
  std::cerr << clip.failure().text() << "\n";
  return nullptr;
}

/// A show that runs by itself, until it is stopped.
class Running {
 public:
  Running(OpenedShow opened, const Words& words)
      : opened_(std::move(opened)),
        words_(words),
        player_(optionsFor(words)),
        hand_(player_, [path = opened_.path](const Score& score) { return soundOf(path, score); }),
        inputs_(player_, words),
        file_(opened_.path) {}

  int go() {
    if (words_.almanac) openLog();
    watch_.setLog(log_.get());
    take(opened_.show, opened_.compiled());
    if (const auto trouble = watch_.setShow(opened_.show)) return failed(*trouble);
    if (!setClock()) return kUsageError;
    if (const int status = begin(); status != kDone) return status;
    loop();
    watch_.stop(clock_->now(), "it was stopped");
    manager_.stopping();
    if (!words_.stats.empty())
      if (const Outcome written = writeStats(words_.stats, opened_.show, player_); !written)
        return failed(written.failure());
    return kDone;
  }

 private:
  static engine::Player::Options optionsFor(const Words& words) {
    auto options = playerOptions(words);
    std::error_code error;
    if (words.almanac)
      options.source.cid = engine::steadyCid(std::filesystem::absolute(words.file, error).string());
    return options;
  }

  void openLog() {
    auto log = engine::NightLog::open(engine::NightLog::usualFile());
    // The night goes on without it.
    if (log)
      log_ = *std::move(log);
    else
      std::cerr << log.failure().text() << "\n";
  }

  bool setClock() {
    if (words_.when.empty() && words_.speed == 1) {
      clock_ = std::make_unique<engine::SystemWallClock>();
      return true;
    }
    engine::WallTime begin = engine::SystemWallClock().now();
    if (!words_.when.empty()) {
      const auto then = parseLocal(words_.when, watch_.plan()->zone());
      if (!then) {
        std::cerr << "--at " << words_.when << " is no time; write it like 2026-12-24T19:30:00.\n";
        return false;
      }
      begin = *then;
    }
    clock_ = std::make_unique<engine::RehearsalClock>(begin, words_.speed);
    return true;
  }

  int begin() {
    watch_.performer().setSpeed(words_.speed);
    if (words_.almanac) {
      // What sleeps does not wake up at dusk.
      auto guard = engine::SleepGuard::take("plays the almanac of " + opened_.show.name);
      if (guard)
        guard_ = *std::move(guard);
      else
        std::cerr << guard.failure().text() << "\n";
      watch_.begin(clock_->now());
    } else {
      const auto programme = programmeOf(opened_, words_);
      if (!programme) return kShowError;
      player_.switchLight(true);
      const auto seed = static_cast<std::uint64_t>(clock_->now().time_since_epoch().count());
      watch_.performer().begin(opened_.show, *programme, seed, Micros(0), player_.clock().now());
    }
    manager_.ready(state());
    return kDone;
  }

  void loop() {
    const auto begun = std::chrono::steady_clock::now();
    const auto until = begun + std::chrono::duration<double>(words_.length_s);
    while (!isInterrupted() && (words_.length_s <= 0 || std::chrono::steady_clock::now() < until)) {
      const MonoTime now = player_.clock().now();
      if (words_.almanac)
        watch_.tick(clock_->now(), now);
      else
        watch_.performer().tick(now);
      while (const auto request = player_.output().live().takeRequest()) answer(*request);
      if (now - checkedAt_ >= 1s) {
        checkedAt_ = now;
        check(now);
      }
      std::this_thread::sleep_for(5ms);
    }
  }

  /// Once a second.
  void check(MonoTime now) {
    if (words_.almanac) meter_.tick(opened_.show, now);
    if (now - refreshedAt_ >= 2s) {
      refreshedAt_ = now;
      inputs_.refresh();
    }
    if (auto read = file_.poll()) {
      if (*read)
        reread(std::move(**read));
      else
        tell("show", read->failure().text());
    }
    if (log_)
      if (const std::string trouble = log_->trouble(); trouble != logTrouble_) {
        logTrouble_ = trouble;
        if (!trouble.empty()) std::cerr << trouble << "\n";
      }
    // It is the output that has to live: as long as frames leave, all is well.
    const std::uint64_t frames = player_.stats().frames.load();
    if (manager_.watchdog() && frames != framesFed_) manager_.feed();
    framesFed_ = frames;
    if (const std::string now_ = state(); now_ != said_) manager_.say(said_ = now_);
  }

  void reread(FileWatch::Read read) {
    hand_.setShow(read.show);
    if (const auto trouble = watch_.setShow(read.show)) {
      hand_.setShow(opened_.show);
      return tell("show", trouble->text());
    }
    opened_.show = read.show;
    take(read.show, std::move(read.compiled));
    tell("show", "it was changed on the disk, and goes on as it is now");
  }

  void take(const Show& show, std::shared_ptr<const CompiledShow> compiled) {
    hand_.setShow(show);
    player_.setShow(show, std::move(compiled));
  }

  void tell(const std::string& kind, const std::string& words) {
    std::cerr << words << "\n";
    watch_.note(kind, opened_.show.name, words);
  }

  /// In one line, for whoever looks at the service.
  std::string state() const {
    const auto& piece = watch_.performer().piece();
    if (piece) return "plays " + engine::nameOfPiece(opened_.show, *piece);
    const auto& next = watch_.next();
    return next ? "dark until " + rfc3339(next->start, watch_.plan()->zone()) : std::string("dark");
  }

  /// What bindings ask for besides light.
  void answer(const LiveRequest& request) {
    const auto& piece = watch_.performer().piece();
    const Score* score = piece ? find(opened_.show.scores, piece->score) : nullptr;
    switch (request.kind) {
      case LiveRequest::Kind::Light:
        return player_.switchLight(!player_.output().isLightWanted());
      case LiveRequest::Kind::Play:
        if (!score) return;
        return player_.isPlaying()
                   ? player_.pause()
                   : player_.play(score->id, player_.position(), {Micros(0), score->length, !piece->length});
      case LiveRequest::Kind::Stop:
        if (score) player_.pause(), player_.seek(score->id, Micros(0));
        return;
      case LiveRequest::Kind::SetListOn:
        return watch_.performer().skip(player_.clock().now());
      case LiveRequest::Kind::SetListBack:
        return watch_.performer().back(player_.clock().now());
      case LiveRequest::Kind::GoTo:
        if (score) player_.seek(score->id, request.at);
        return;
      case LiveRequest::Kind::Follow:
        if (score) follow(*score, !piece->length, request);
        return;
      default:
        return;
    }
  }

  void follow(const Score& score, bool isLooped, const LiveRequest& request) {
    const CodeStep step = player_.codeStep(request, score.length);
    if (step.kind == CodeStep::Kind::Pause && player_.isPlaying()) player_.pause();
    if (step.kind == CodeStep::Kind::Play)
      player_.play(score.id, step.at, {Micros(0), score.length, isLooped});
    else if (step.kind != CodeStep::Kind::Nothing)
      player_.seek(score.id, step.at);
  }

  OpenedShow opened_;
  const Words& words_;
  std::unique_ptr<engine::NightLog> log_;
  engine::Player player_;
  engine::PlayerHand hand_;
  engine::NightWatch watch_{hand_, nullptr};
  engine::NightMeter meter_{player_, watch_};
  Inputs inputs_;
  FileWatch file_;
  engine::ServiceManager manager_;
  std::optional<engine::SleepGuard> guard_;
  std::unique_ptr<engine::WallClock> clock_;
  MonoTime checkedAt_{0};
  MonoTime refreshedAt_{0};
  std::uint64_t framesFed_ = 0;
  std::string logTrouble_;
  std::string said_;
};

}  // namespace

int runShow(const Words& words) {
  auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  noteInterrupts();
  return Running(*std::move(opened), words).go();
}

}  // namespace chispa::cli
