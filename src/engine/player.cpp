// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/player.h"

#include <algorithm>
#include <cerrno>
#include <cstring>

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

constexpr auto kFollowEvery = 10ms;
/// A sound device that has not begun by then does not hold the light up.
constexpr auto kMostWaitForSound = 500ms;
/// Differences beyond this are jumped, smaller ones eased away.
constexpr Micros kJump{40'000};
constexpr MonoTime kHealEvery = 1s;

/// "no answer from 10.0.0.9 since 12 s".
std::string troubleText(int error, const std::string& host, MonoTime since) {
  const bool isSilent = error == ECONNREFUSED || error == EHOSTUNREACH || error == ETIMEDOUT;
  const std::string what = isSilent ? "no answer from " + host : "nothing can be sent to " + host + " (" + std::strerror(error) + ")";
  const auto seconds = std::chrono::duration_cast<std::chrono::seconds>(since).count();
  return seconds < 1 ? what : what + " since " + std::to_string(seconds) + " s";
}

}  // namespace

Player::Player(Options options)
    : sound_(options.sound ? std::move(options.sound) : makeSilence("no sound was asked for")) {
  setup_.source = std::move(options.source);
  setup_.lookup = [this](const std::string& host, int port) { return hosts_.lookup(host, port); };
  setup_.period = MonoTime(static_cast<std::int64_t>(1e9 / options.framesPerSecond));
  if (options.recordEntries > 0) output_.keepRecord(options.recordEntries);
  thread_ = std::make_unique<OutputThread>(output_, clock_, options.framesPerSecond);
  follower_ = std::thread([this] { follow(); });
}

Player::~Player() {
  {
    const std::scoped_lock lock(mutex_);
    stopping_ = true;
  }
  wake_.notify_all();
  follower_.join();
  thread_.reset();
}

void Player::setShow(const Show& show, std::shared_ptr<const CompiledShow> compiled) {
  const std::scoped_lock lock(loading_);
  show_ = show;
  compiled_ = std::move(compiled);
  setup_.frames.reset();
  load();
}

void Player::load() {
  problems_.clear();
  hostsVersion_ = hosts_.version();
  auto program = makeProgram(show_, compiled_, setup_, problems_);
  if (!setup_.frames) setup_.frames = program->frames;
  power_ = program->power.live();
  leaving_ = program->leaving;
  counters_.clear();
  for (const Line& line : program->lines) counters_.emplace_back(line.sender().controller(), line.sender().sharedCounters());
  output_.load(std::move(program));
}

bool Player::canOpenMore() const {
  return std::any_of(problems_.begin(), problems_.end(), [this](const LineProblem& problem) {
    const Controller* controller = find(show_.controllers, problem.controller);
    return controller && link::ControllerSender::open(*controller, {}, setup_.source, setup_.lookup);
  });
}

void Player::heal(MonoTime now) {
  if (now - healedAt_ < kHealEvery) return;
  healedAt_ = now;
  const std::scoped_lock lock(loading_);
  if (!compiled_) return;
  // A socket that cannot send although the other side may be well has lost its own network: it is opened anew.
  const bool isCutOff = std::any_of(counters_.begin(), counters_.end(), [now](const auto& line) {
    const int error = line.second->lastError;
    const bool isOurs = error == ENETUNREACH || error == EADDRNOTAVAIL || error == EINVAL || error == ENETDOWN || error == EPERM;
    return isOurs && now - MonoTime(line.second->lastErrorAt_ns.load()) < link::kTroubleLasts;
  });
  if (isCutOff || hosts_.version() != hostsVersion_ || canOpenMore()) load();
}

void Player::setSound(std::shared_ptr<const AudioClip> clip, SoundPlace place) {
  const std::scoped_lock lock(mutex_);
  clip_ = std::move(clip);
  place_ = place;
}

void Player::startAt(ScoreId score, Micros from) {
  const MonoTime now = clock_.now();
  const Micros inSound = std::max(Micros(0), place_.inSound(from));
  const bool isHeard = clip_ && inSound < clip_->length();
  waitingForSound_ = isHeard && !sound_->isSilent();
  startedAt_ = now;
  if (isHeard)
    sound_->play(clip_, inSound);
  else
    sound_->stop();
  // With sound, light stands still until the first sample is heard, then leaves together with it.
  const MonoTime since = waitingForSound_ ? now + kMostWaitForSound : now;
  transport_.set({score, from, since, true, place_.rate});
}

void Player::play(ScoreId score, Micros from, PlayedPart part) {
  {
    const std::scoped_lock lock(mutex_);
    part_ = part;
    startAt(score, from);
  }
  wake_.notify_all();
}

void Player::pause() {
  const std::scoped_lock lock(mutex_);
  TransportState state = transport_.get();
  state.from = state.positionAt(clock_.now());
  state.playing = false;
  transport_.set(state);
  sound_->stop();
}

void Player::seek(ScoreId score, Micros position) {
  const std::scoped_lock lock(mutex_);
  if (transport_.get().playing)
    startAt(score, position);
  else
    transport_.set({score, position, clock_.now(), false});
}

void Player::setLoop(bool loop) {
  const std::scoped_lock lock(mutex_);
  part_.isLooped = loop;
}

bool Player::isPlaying() const { return transport_.get().playing; }

Micros Player::position() const { return transport_.get().positionAt(clock_.now()); }

const PixelFrame& Player::latestFrame() {
  static const PixelFrame none;
  return setup_.frames ? setup_.frames->latest() : none;
}

const std::vector<std::uint8_t>& Player::latestValues() {
  static const std::vector<std::uint8_t> none;
  // The follower may load anew meanwhile; what the reader holds is its own until the next call.
  const std::scoped_lock lock(loading_);
  reading_ = leaving_;
  return reading_ ? reading_->latest() : none;
}

std::vector<LineState> Player::lines() const {
  const std::scoped_lock lock(loading_);
  std::vector<LineState> states;
  const MonoTime now = clock_.now();
  for (const auto& [controller, counters] : counters_) {
    LineState state{controller, counters->packets, counters->bytes, counters->errors, counters->frames, true, {}};
    if (counters->lastError != 0 && now - MonoTime(counters->lastErrorAt_ns.load()) < link::kTroubleLasts) {
      const Controller* own = find(show_.controllers, controller);
      state.reached = false;
      state.trouble = troubleText(counters->lastError, own ? own->host : std::string(), now - MonoTime(counters->troubleSince_ns.load()));
    }
    states.push_back(std::move(state));
  }
  for (const LineProblem& problem : problems_) states.push_back({problem.controller, 0, 0, 0, 0, false, problem.failure.what});
  return states;
}

std::vector<SupplyState> Player::supplies() const {
  const std::scoped_lock lock(loading_);
  std::vector<SupplyState> states;
  for (std::size_t i = 0; compiled_ && i < compiled_->budget->supplyCount(); ++i)
    states.push_back({compiled_->budget->supplyAt(i), static_cast<double>(power_->amps[i].load()), static_cast<double>(power_->levels[i].load())});
  return states;
}

void Player::follow() {
  std::unique_lock lock(mutex_);
  while (!stopping_) {
    lock.unlock();
    heal(clock_.now());
    lock.lock();
    if (stopping_) break;
    const TransportState state = transport_.get();
    if (!state.playing) {
      wake_.wait_for(lock, 100ms);
      continue;
    }
    const MonoTime now = clock_.now();
    correctToSound(now);
    const TransportState corrected = transport_.get();
    if (part_.end.count() > 0 && corrected.positionAt(now) >= part_.end) {
      if (part_.isLooped) {
        startAt(corrected.score, part_.begin);
      } else {
        transport_.set({corrected.score, part_.end, now, false});
        sound_->stop();
      }
    }
    wake_.wait_for(lock, kFollowEvery);
  }
}

void Player::correctToSound(MonoTime now) {
  if (!clip_) return;
  const auto heard = sound_->heard();
  if (!heard || *heard > clip_->length()) {
    // No sound to follow: after the wait, the clock alone counts.
    if (waitingForSound_ && now - startedAt_ > kMostWaitForSound) waitingForSound_ = false;
    return;
  }
  TransportState state = transport_.get();
  const Micros at = place_.inScore(*heard);
  const Micros off = at - state.positionAt(now);
  const bool jump = waitingForSound_ || off > kJump || off < -kJump;
  waitingForSound_ = false;
  constexpr int kEase = 16;
  state.from = jump ? at : state.positionAt(now) + off / kEase;
  state.since = now;
  transport_.set(state);
}

}  // namespace chispa::engine
