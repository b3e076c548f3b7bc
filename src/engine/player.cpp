// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/player.h"

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
constexpr MonoTime kTroubleLasts = 3s;

std::string troubleText(int error) {
  if (error == ECONNREFUSED) return "nobody listens at its address";
  return std::strerror(error);
}

}  // namespace

Player::Player(Options options)
    : source_(std::move(options.source)),
      sound_(options.sound ? std::move(options.sound) : makeSilence("no sound was asked for")) {
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
  problems_.clear();
  compiled_ = compiled;
  auto program = makeProgram(show, std::move(compiled), source_, problems_);
  frames_ = program->frames;
  counters_.clear();
  for (const auto& line : program->lines)
    counters_.emplace_back(line.sender->controller(), line.sender->sharedCounters());
  output_.load(std::move(program));
}

void Player::setSound(std::shared_ptr<const AudioClip> clip) {
  const std::scoped_lock lock(mutex_);
  clip_ = std::move(clip);
}

void Player::startAt(ScoreId score, Micros from) {
  const MonoTime now = clock_.now();
  waitingForSound_ = clip_ != nullptr && !sound_->isSilent();
  startedAt_ = now;
  if (clip_) sound_->play(clip_, from);
  // With sound, light stands still until the first sample is heard, then leaves together with it.
  const MonoTime since = waitingForSound_ ? now + kMostWaitForSound : now;
  transport_.set({score, from, since, true});
}

void Player::play(ScoreId score, Micros from, Micros length, bool loop) {
  {
    const std::scoped_lock lock(mutex_);
    length_ = length;
    loop_ = loop;
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
  loop_ = loop;
}

bool Player::isPlaying() const { return transport_.get().playing; }

Micros Player::position() const { return transport_.get().positionAt(clock_.now()); }

const PixelFrame& Player::latestFrame() {
  static const PixelFrame none;
  return frames_ ? frames_->latest() : none;
}

std::vector<LineState> Player::lines() const {
  std::vector<LineState> states;
  const MonoTime now = clock_.now();
  for (const auto& [controller, counters] : counters_) {
    LineState state{controller, counters->packets, counters->bytes, counters->errors, true, {}};
    const MonoTime since = now - MonoTime(counters->lastErrorAt_ns.load());
    if (counters->lastError != 0 && since < kTroubleLasts) {
      state.reached = false;
      state.trouble = troubleText(counters->lastError);
    }
    states.push_back(std::move(state));
  }
  for (const LineProblem& problem : problems_) states.push_back({problem.controller, 0, 0, 0, false, problem.failure.what});
  return states;
}

void Player::follow() {
  std::unique_lock lock(mutex_);
  while (!stopping_) {
    const TransportState state = transport_.get();
    if (!state.playing) {
      wake_.wait_for(lock, 100ms);
      continue;
    }
    const MonoTime now = clock_.now();
    correctToSound(now);
    const TransportState corrected = transport_.get();
    if (length_.count() > 0 && corrected.positionAt(now) >= length_) {
      if (loop_) {
        startAt(corrected.score, Micros(0));
      } else {
        transport_.set({corrected.score, length_, now, false});
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
  const Micros off = *heard - state.positionAt(now);
  const bool jump = waitingForSound_ || off > kJump || off < -kJump;
  waitingForSound_ = false;
  constexpr int kEase = 16;
  state.from = jump ? *heard : state.positionAt(now) + off / kEase;
  state.since = now;
  transport_.set(state);
}

}  // namespace chispa::engine
