// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/nightwatch.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// How long light takes to go at the end of a slot.
constexpr Micros kLastFade{2'000'000};
/// A clock that is this far from where the steady one says has been set.
constexpr auto kJump = 2s;
/// The almanac is asked at least this often: a clock that creeps is no jump.
constexpr auto kMaxWait = 60s;

/// The order of a shuffled list is that of its night, however often it begins anew.
std::uint64_t seedOf(const Slot& slot) {
  return static_cast<std::uint64_t>(slot.night.time_since_epoch().count()) * 1'000'003u + slot.rule.value;
}

/// Of the hottest part of the machine; −273 where the system does not tell.
double temperature_c() {
  double hottest = -273;
  std::error_code error;
  for (const auto& entry : std::filesystem::directory_iterator("/sys/class/thermal", error)) {
    std::ifstream in(entry.path() / "temp");
    if (double milli = 0; in >> milli) hottest = std::max(hottest, milli / 1000);
  }
  return hottest;
}

}  // namespace

std::optional<Failure> NightWatch::setShow(const Show& show) {
  auto plan = NightPlan::of(show);
  if (!plan) return plan.failure();
  show_ = show;
  plan_ = *std::move(plan);
  performer_.follow(show);
  isShowNew_ = true;
  return std::nullopt;
}

void NightWatch::begin(WallTime now) {
  isWatching_ = true;
  // Whether it is on now is for others to know.
  isLit_ = false;
  now_ = now;
  slot_.reset();
  checkAt_ = {};
  note("watch", show_.name, "begins");
}

void NightWatch::stop(WallTime now, const std::string& why) {
  if (!isWatching_) return;
  now_ = now;
  if (slot_) leave(why);
  if (isBetween_) hand_.endLook(show_.almanac.between);
  isBetween_ = false;
  darkAt_.reset();
  note("watch", show_.name, "ends: " + why);
  isWatching_ = false;
}

void NightWatch::note(const std::string& kind, const std::string& what, const std::string& detail) {
  if (!log_ || !plan_) return;
  log_->add(NightEvent{now_, dateText(plan_->nightOf(secondsOf(now_))), kind, what, detail});
}

void NightWatch::add(NightSum sum) {
  if (!log_ || !plan_) return;
  sum.night = dateText(plan_->nightOf(secondsOf(now_)));
  sum.show = show_.name;
  log_->add(sum);
}

void NightWatch::tick(WallTime now, MonoTime mono) {
  if (!isWatching_ || !plan_) return;
  const bool isFirst = checkAt_ == Instant{};
  const double expected_ms =
      std::chrono::duration<double, std::milli>(mono - mono_).count() * performer_.speed();
  const auto drift = (now - now_) - std::chrono::milliseconds(std::llround(expected_ms));
  // In fast motion a moment more is much.
  const bool hasJumped = !isFirst && std::chrono::abs(drift) > kJump * performer_.speed();
  now_ = now;
  mono_ = mono;
  if (hasJumped)
    note("clock", {},
         "it was set " + std::string(drift.count() < 0 ? "back" : "forward") + " by " +
             std::to_string(std::chrono::abs(drift).count() / 1000) + " s");
  if (isFirst || hasJumped || isShowNew_ || secondsOf(now) >= checkAt_) look(now, mono);
  performer_.tick(mono);
  settleDark(mono);
}

/// Asks the almanac what plays now, and brings about what it says.
void NightWatch::look(WallTime now, MonoTime mono) {
  isShowNew_ = false;
  const Instant at = secondsOf(now);
  Moment moment = plan_->at(at);
  next_ = moment.next;
  if (heldNight_ && *heldNight_ != plan_->nightOf(at)) heldNight_.reset();
  if (heldNight_) moment.slot.reset();
  if (longerUntil_ && at >= *longerUntil_) longerUntil_.reset();
  if (!moment.slot && longerUntil_ && slot_ && !heldNight_) {
    moment.slot = slot_;
    moment.slot->end = *longerUntil_;
  }
  Instant check = at + kMaxWait;
  if (moment.slot) check = std::min(check, moment.slot->end);
  if (moment.next) check = std::min(check, moment.next->start);
  checkAt_ = check;
  const bool isSame = slot_ && moment.slot && slot_->rule == moment.slot->rule &&
                      slot_->night == moment.slot->night &&
                      (slot_->start == moment.slot->start || performer_.isPerforming());
  const bool isOther = isSame && performer_.isPerforming() &&
                       performer_.programme() != Programme::of(*plan_->rule(moment.slot->rule));
  if (isSame && !isOther) {
    slot_ = moment.slot;
    return;
  }
  if (slot_) leave(heldNight_ ? "held off" : moment.slot ? "another begins" : "its time is over");
  if (moment.slot) enter(*moment.slot, mono);
}

void NightWatch::enter(const Slot& slot, MonoTime mono) {
  slot_ = slot;
  darkAt_.reset();
  if (isBetween_) hand_.endLook(show_.almanac.between);
  isBetween_ = false;
  if (!isLit_) hand_.switchLight(true);
  isLit_ = true;
  const Rule& rule = *plan_->rule(slot.rule);
  note("slot", rule.name, whatOf(show_, rule));
  const auto late = std::chrono::duration_cast<Micros>(now_ - slot.start);
  performer_.begin(show_, Programme::of(rule), seedOf(slot), std::max(Micros(0), late), mono);
}

MonoTime NightWatch::lastFade() const {
  const double scaled_ns = std::chrono::duration<double, std::nano>(kLastFade).count() / performer_.speed();
  return MonoTime(std::llround(scaled_ns));
}

void NightWatch::leave(const std::string& why) {
  const Rule* rule = slot_ && plan_ ? plan_->rule(slot_->rule) : nullptr;
  performer_.end(kLastFade);
  note("dark", rule ? rule->name : std::string(), why);
  slot_.reset();
  darkAt_ = mono_ + lastFade();
}

/// Between the rules: dark, or a look.
void NightWatch::settleDark(MonoTime mono) {
  if (slot_) return;
  const LookId between = heldNight_ ? LookId{} : show_.almanac.between;
  if (between && find(show_.looks, between)) {
    if (isBetween_) return;
    isBetween_ = true;
    darkAt_.reset();
    if (!isLit_) hand_.switchLight(true);
    isLit_ = true;
    return hand_.lightLook(between);
  }
  if (isBetween_) {
    isBetween_ = false;
    hand_.endLook(show_.almanac.between);
    darkAt_ = mono + lastFade();
  }
  if (!isLit_ || (darkAt_ && mono < *darkAt_)) return;
  darkAt_.reset();
  isLit_ = false;
  hand_.switchLight(false);
}

void NightWatch::hold(bool on) {
  if (!plan_) return;
  heldNight_ = on ? std::optional(plan_->nightOf(secondsOf(now_))) : std::nullopt;
  if (isWatching_) note("watch", {}, on ? "light is held off tonight" : "light is no longer held off");
  checkAt_ = {};
}

void NightWatch::playLonger(std::chrono::minutes by) {
  if (!slot_) return;
  longerUntil_ = std::max(slot_->end, longerUntil_.value_or(slot_->end)) + by;
  note("watch", {}, "plays " + std::to_string(by.count()) + " min longer tonight");
  slot_->end = *longerUntil_;
}

void NightMeter::tick(const Show& show, MonoTime mono) {
  const OutputStats& stats = player_.stats();
  const std::uint64_t frames = stats.frames.load();
  const std::uint64_t skipped = stats.skipped.load();
  NightSum sum;
  if (last_) {
    const double passed_s = std::chrono::duration<double>(mono - *last_).count() * watch_.performer().speed();
    const bool isLit = player_.output().isLightWanted();
    if (isLit) {
      sum.light_s = passed_s;
      double watts = 0;
      for (const SupplyState& supply : player_.supplies())
        if (const Supply* own = find(show.supplies, supply.supply)) watts += supply.amps * own->volts;
      sum.energy_kwh = watts * passed_s / 3.6e6;
    }
    sum.frames = frames - frames_;
    sum.lateFrames = skipped - skipped_;
  }
  last_ = mono;
  frames_ = frames;
  skipped_ = skipped;
  for (const LineState& line : player_.lines()) {
    const Controller* controller = find(show.controllers, line.controller);
    const auto before = reached_.emplace(line.controller, true).first;
    if (!controller || before->second == line.reached) continue;
    before->second = line.reached;
    if (!line.reached) ++sum.lostControllers;
    watch_.note(line.reached ? "back" : "lost", controller->name, line.trouble);
  }
  sum.hottest_c = temperature_c();
  watch_.add(sum);
}

}  // namespace chispa::engine
