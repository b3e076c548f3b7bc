// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/player.h"

#include <algorithm>
#include <cerrno>
#include <cstring>

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

constexpr auto kFollowEvery = 10ms;
constexpr MonoTime kHealEvery = 1s;

/// "no answer from 10.0.0.9 since 12 s".
std::string troubleText(int error, const std::string& host, MonoTime since) {
  const bool isSilent = error == ECONNREFUSED || error == EHOSTUNREACH || error == ETIMEDOUT;
  const std::string what = isSilent ? "no answer from " + host
                                    : "nothing can be sent to " + host + " (" + std::strerror(error) + ")";
  const auto seconds = std::chrono::duration_cast<std::chrono::seconds>(since).count();
  return seconds < 1 ? what : what + " since " + std::to_string(seconds) + " s";
}

}  // namespace

Player::Player(Options options)
    : clock_(options.clock ? std::move(options.clock) : std::make_shared<SteadyClock>()),
      sound_(options.sound ? std::move(options.sound) : makeSilence("no sound was asked for")) {
  setup_.source = std::move(options.source);
  setup_.lookup = [this](const std::string& host, int port) { return hosts_.lookup(host, port); };
  setup_.opensLines = false;
  setup_.desks = &desks_;
  if (options.recordEntries > 0) output_.keepRecord(options.recordEntries);
  if (!options.runsThreads) return;
  crew_ = std::make_unique<HelperCrew>(options.helpers);
  output_.setCrew(*crew_);
  setup_.hands = crew_->hands();
  thread_ = std::make_unique<OutputThread>(output_, *clock_, stats_);
  follower_ = std::thread([this] { follow(); });
}

Player::~Player() {
  {
    const std::scoped_lock lock(mutex_);
    stopping_ = true;
  }
  wake_.notify_all();
  if (follower_.joinable()) follower_.join();
  thread_.reset();
}

void Player::advance() {
  const MonoTime now = clock_->now();
  heal(now);
  {
    const std::scoped_lock lock(mutex_);
    followOnce(now);
  }
  output_.step(now);
}

void Player::setShow(const Show& show, std::shared_ptr<const CompiledShow> compiled) {
  const std::scoped_lock lock(loading_);
  show_ = show;
  compiled_ = std::move(compiled);
  setup_.frames.reset();
  setup_.opensLines = output_.isLightWanted();
  // Universes that nobody listens to any more are let go of.
  const auto& wanted = compiled_->live->deskUniverses;
  std::erase_if(desks_, [&](const auto& entry) {
    return std::find(wanted.begin(), wanted.end(), entry.first) == wanted.end();
  });
  load();
  // What could not be opened is told by deskTrouble().
  if (deskOptions_ && (!deskListener_ || deskListener_->boxes() != desks_)) (void)openDesks();
}

Outcome Player::openDesks() {
  deskListener_.reset();
  deskTrouble_.clear();
  if (!deskOptions_ || desks_.empty()) return Done{};
  auto listener = DeskListener::open(*deskOptions_, desks_, clock_);
  if (!listener) {
    deskTrouble_ = listener.failure().text();
    return listener.failure();
  }
  deskListener_ = *std::move(listener);
  return Done{};
}

Outcome Player::listenToDesks(std::optional<DeskListener::Options> options) {
  const std::scoped_lock lock(loading_);
  deskOptions_ = std::move(options);
  return openDesks();
}

std::vector<link::ReceivedUniverse> Player::heardFromDesks() const {
  const std::scoped_lock lock(loading_);
  return deskListener_ ? deskListener_->heard() : std::vector<link::ReceivedUniverse>();
}

void Player::switchLight(bool on) {
  {
    const std::scoped_lock lock(loading_);
    if (on && compiled_ && !std::exchange(setup_.opensLines, true)) load();
  }
  output_.switchLight(on);
}

void Player::load() {
  problems_.clear();
  hostsVersion_ = hosts_.version();
  auto program = makeProgram(show_, compiled_, setup_, problems_);
  if (!setup_.frames) setup_.frames = program->frames;
  power_ = program->power.live();
  leaving_ = program->leaving;
  program_ = program->serial;
  lines_.clear();
  for (const Line& line : program->lines)
    lines_.push_back({line.sender().controller(), line.sender().universes(), line.sender().sharedCounters()});
  output_.load(std::move(program));
}

bool Player::needsHealing(std::size_t line, MonoTime now, bool namesMoved) const {
  const LoadedLine& own = lines_[line];
  if (std::any_of(problems_.begin(), problems_.end(),
                  [&](const LineProblem& problem) { return problem.controller == own.controller; }))
    return true;
  const Controller* controller = find(show_.controllers, own.controller);
  if (namesMoved && controller && isNetworked(controller->protocol) &&
      !link::isNumericAddress(controller->host))
    return true;
  // A socket that cannot send although the other side may be well has lost its own network: it is opened
  // anew.
  const int error = own.counters->lastError;
  const bool isOurs = error == ENETUNREACH || error == EADDRNOTAVAIL || error == EINVAL ||
                      error == ENETDOWN || error == EPERM;
  return isOurs && now - MonoTime(own.counters->lastErrorAt_ns.load()) < link::kTroubleLasts;
}

/// Each line by itself: what is well is not disturbed by what is not.
void Player::heal(MonoTime now) {
  const std::scoped_lock lock(loading_);
  output_.collect();
  if (now - healedAt_ < kHealEvery) return;
  healedAt_ = now;
  if (!compiled_ || !setup_.opensLines) return;
  const bool namesMoved = hosts_.version() != hostsVersion_;
  hostsVersion_ = hosts_.version();
  Output::Repair repair{program_, {}};
  for (std::size_t i = 0; i < lines_.size(); ++i) {
    const Controller* controller = find(show_.controllers, lines_[i].controller);
    if (!controller || !needsHealing(i, now, namesMoved)) continue;
    std::vector<LineProblem> problems;
    auto sender = openSender(show_, *controller, lines_[i].universes, setup_, problems);
    std::erase_if(problems_,
                  [&](const LineProblem& problem) { return problem.controller == controller->id; });
    problems_.insert(problems_.end(), problems.begin(), problems.end());
    if (!problems.empty()) continue;
    lines_[i].counters = sender->sharedCounters();
    repair.senders.emplace_back(i, std::move(sender));
  }
  if (!repair.senders.empty()) output_.repair(std::move(repair));
}

/// With what goes on by itself at the end of the part: the output needs nobody to tell it then.
void Player::publish(TransportState state) {
  state.end = part_.end;
  state.then = following_ ? following_->score : part_.isLooped ? state.score : ScoreId{};
  state.thenFrom = following_ ? Micros(0) : part_.begin;
  state.holdsLast = part_.holdsLast;
  transport_.set(state);
}

void Player::startAt(ScoreId score, Micros from) {
  const MonoTime now = clock_->now();
  const Micros inSound = std::max(Micros(0), place_.inSound(from));
  const bool isHeard = clip_ && inSound < clip_->length();
  following_.reset();
  clipBegan_ = Micros(0);
  waitingForSound_ = isHeard && !sound_->isSilent();
  startedAt_ = now;
  if (isHeard)
    sound_->play(clip_, inSound);
  else
    sound_->stop();
  // With sound, light stands still until the first sample is heard, then leaves together with it.
  const MonoTime since = waitingForSound_ ? now + kMaxWaitForSound : now;
  publish({score, from, since, true, place_.rate});
}

void Player::play(ScoreId score, Micros from, PlayedPart part) {
  {
    const std::scoped_lock lock(mutex_);
    part_ = part;
    startAt(score, from);
  }
  wake_.notify_all();
}

void Player::follow(ScoreId score, std::shared_ptr<const AudioClip> clip, PlayedPart part) {
  const std::scoped_lock lock(mutex_);
  following_.reset();
  if (!score) {
    publish(transport_.get());
    return sound_->follow(nullptr, Micros(0));
  }
  if (part_.isLooped || part_.end.count() == 0) return;
  sound_->follow(clip, clipBegan_ + place_.inSound(part_.end));
  following_ = {score, std::move(clip), part};
  publish(transport_.get());
}

std::uint64_t Player::followed() const {
  const std::scoped_lock lock(mutex_);
  return followed_;
}

void Player::beginFollowing(Micros late, MonoTime now) {
  const Following next = *std::move(following_);
  following_.reset();
  clipBegan_ += place_.inSound(part_.end);
  place_ = {};
  clip_ = next.clip;
  part_ = next.part;
  ++followed_;
  publish({next.score, late, now, true, 1});
}

CodeStep Player::codeStep(const LiveRequest& request, Micros length) {
  const bool runs = request.value > 0;
  // What was asked for has gone on running since.
  const Micros since = runs ? output_.live().snapshot().now.t - request.asked : Micros(0);
  return followCode(request.at + since, runs, isPlaying(), position(), length);
}

void Player::pause() {
  const std::scoped_lock lock(mutex_);
  following_.reset();
  TransportState state = transport_.get();
  state.from = state.positionAt(clock_->now());
  state.playing = false;
  publish(state);
  sound_->stop();
}

void Player::seek(ScoreId score, Micros position) {
  const std::scoped_lock lock(mutex_);
  if (transport_.get().playing)
    startAt(score, position);
  else
    publish({score, position, clock_->now(), false});
}

void Player::scrub(ScoreId score, Micros position) {
  seek(score, position);
  const std::scoped_lock lock(mutex_);
  const Micros inSound = place_.inSound(position);
  if (!transport_.get().playing && clip_ && inSound >= Micros(0) && inSound < clip_->length())
    sound_->touch(clip_, inSound);
}

void Player::setLoop(bool loop) {
  const std::scoped_lock lock(mutex_);
  part_.isLooped = loop;
  publish(transport_.get());
}

bool Player::isPlaying() const {
  return transport_.get().playing;
}

Micros Player::position() const {
  return transport_.get().positionAt(clock_->now());
}

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
  const MonoTime now = clock_->now();
  for (const LoadedLine& line : lines_) {
    const link::SendCounters& counters = *line.counters;
    LineState state{
        line.controller, counters.packets, counters.bytes, counters.errors, counters.frames, true, {}};
    const auto problem = std::find_if(problems_.begin(), problems_.end(), [&](const LineProblem& one) {
      return one.controller == line.controller;
    });
    if (problem != problems_.end()) {
      state.reached = false;
      state.trouble = problem->failure.what.text();
    } else if (counters.lastError != 0 &&
               now - MonoTime(counters.lastErrorAt_ns.load()) < link::kTroubleLasts) {
      const Controller* own = find(show_.controllers, line.controller);
      state.reached = false;
      state.trouble = troubleText(counters.lastError, own ? own->host : std::string(),
                                  now - MonoTime(counters.troubleSince_ns.load()));
    }
    states.push_back(std::move(state));
  }
  return states;
}

std::vector<SupplyState> Player::supplies() const {
  const std::scoped_lock lock(loading_);
  std::vector<SupplyState> states;
  for (std::size_t i = 0; compiled_ && i < compiled_->budget->supplyCount(); ++i)
    states.push_back({compiled_->budget->supplyAt(i), static_cast<double>(power_->amps[i].load()),
                      static_cast<double>(power_->levels[i].load())});
  return states;
}

void Player::follow() {
  std::unique_lock lock(mutex_);
  while (!stopping_) {
    lock.unlock();
    heal(clock_->now());
    lock.lock();
    if (stopping_) break;
    followOnce(clock_->now());
    wake_.wait_for(lock, transport_.get().playing ? kFollowEvery : 100ms);
  }
}

void Player::followOnce(MonoTime now) {
  if (!transport_.get().playing) return;
  reviveSound(now);
  correctToSound(now);
  const TransportState corrected = transport_.get();
  if (part_.end.count() == 0 || corrected.positionAt(now) < part_.end) return;
  if (following_) {
    beginFollowing(corrected.positionAt(now) - part_.end, now);
  } else if (part_.isLooped) {
    startAt(corrected.score, part_.begin);
  } else {
    publish({corrected.score, part_.end - (part_.holdsLast ? Micros(1) : Micros(0)), now, false});
    sound_->stop();
  }
}

}  // namespace chispa::engine
