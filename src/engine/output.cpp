// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/output.h"

#include <algorithm>

#include <pthread.h>

#include "core/render/laying.h"

namespace chispa::engine {

void Output::keepRecord(std::size_t most) {
  record_.reserve(most);
  recording_ = true;
}

void Output::replaceProgram(Program* old, Program& next, MonoTime now) noexcept {
  // What fades away was of the pixels of the old one.
  fadeLength_ = MonoTime(0);
  if (!old) return;
  for (const link::DiscoveryBeacon& before : old->beacons)
    for (link::DiscoveryBeacon& beacon : next.beacons) beacon.takeOver(before);
  for (Line& line : old->lines) {
    const auto same = std::find_if(next.lines.begin(), next.lines.end(), [&](const Line& other) {
      return other.sender().controller() == line.sender().controller();
    });
    if (!isLit_)
      line.sender().standDown();
    else if (same == next.lines.end())
      line.sender().endInDark(now);
    else
      same->sender().takeOver(line.sender(), now);
  }
}

void Output::mend(Repair& repair, MonoTime now) noexcept {
  Program* program = program_.current();
  if (!program || program->serial != repair.program) return;
  for (auto& [line, sender] : repair.senders)
    if (line < program->lines.size()) program->lines[line].replaceSender(sender, isLit_, now);
}

/// The light of what played last is worked out once more and kept: a frame is a function of score and time.
void Output::beginFade(Program& program, ScoreId score, MonoTime now) noexcept {
  std::uint64_t wanted = fadeWanted_.load();
  if (wanted >> 32 == 0 || static_cast<std::uint32_t>(wanted) != score.value ||
      !fadeWanted_.compare_exchange_strong(wanted, 0))
    return;
  const CompiledScore* before = program.show->scoreOf(shownScore_);
  if (before)
    program.renderer.render(*before, shownAt_, program.fading);
  else
    program.fading.clear();
  fadeBegun_ = now;
  fadeLength_ = std::chrono::milliseconds(wanted >> 32);
}

void Output::mixFade(Program& program, MonoTime now, PixelFrame& frame) noexcept {
  if (fadeLength_.count() == 0) return;
  const double passed =
      static_cast<double>((now - fadeBegun_).count()) / static_cast<double>(fadeLength_.count());
  // A program that was loaded meanwhile has nothing to fade from.
  if (passed >= 1 || program.fading.r.size() != frame.r.size()) {
    fadeLength_ = MonoTime(0);
    return;
  }
  mixFrames(program.fading, static_cast<float>(std::max(0.0, passed)), frame);
}

void Output::compute(Program& program, const TransportState& at, Micros position, MonoTime now) noexcept {
  PixelFrame& frame = program.frames->filling();
  const std::optional<TestSignal>* signal = signal_.current();
  const bool isTested = signal && *signal;
  const CompiledScore* score = program.show->scoreOf(at.score);
  live_.step(*program.show, score, at, now, program.deskBoxes, program.desk, master_.load());
  if (const auto master = live_.takeMaster()) master_.store(*master);
  if (const auto blackout = live_.takeBlackout()) blackout_.store(*blackout);
  const bool plays = !isTested || (*signal)->restPlays;
  beginFade(program, at.score, now);
  if (score && plays)
    program.renderer.render(*score, position, frame);
  else
    frame.clear();
  mixFade(program, now, frame);
  shownScore_ = at.score;
  shownAt_ = position;
  if (plays) live_.render(program.renderer, *program.show, score, position, program.desk, frame);
  if (isTested) drawSignal(**signal, program, (*signal)->followsSound ? MonoTime(position) : now, frame);
  pointOut(frame, now);
}

namespace {

/// Keeps the light of the pixels, and leaves `rest` 0–1 of all other.
void dimAllBut(const std::vector<std::int32_t>& pixels, float rest, PixelFrame& frame) noexcept {
  // Brought above 1 they are told from the others without a place to mark them in.
  constexpr float kMark = 16;
  for (auto* channel : {&frame.r, &frame.g, &frame.b}) {
    for (const std::int32_t pixel : pixels)
      if (static_cast<std::size_t>(pixel) < channel->size() &&
          (*channel)[static_cast<std::size_t>(pixel)] < kMark)
        (*channel)[static_cast<std::size_t>(pixel)] += kMark;
    for (float& light : *channel) light = light >= kMark ? light - kMark : light * rest;
  }
}

void fill(const std::vector<std::int32_t>& pixels, float light, PixelFrame& frame) noexcept {
  for (auto* channel : {&frame.r, &frame.g, &frame.b})
    for (const std::int32_t pixel : pixels)
      if (static_cast<std::size_t>(pixel) < channel->size())
        (*channel)[static_cast<std::size_t>(pixel)] = light;
}

}  // namespace

void Output::layOver(Program& program, float level) noexcept {
  const ValueOverlay* overlay = overlay_.current();
  if (!overlay) return;
  const auto& all = program.show->patch.universes;
  for (const ValueOverlay::Universe& over : overlay->universes)
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (all[i].universe != over.universe ||
          program.controllers[static_cast<std::size_t>(all[i].controller)] != over.controller)
        continue;
      for (std::size_t c = 0; c < over.values.size(); ++c)
        program.values[i * kUniverseChannels + c] =
            static_cast<std::uint8_t>(static_cast<float>(over.values[c]) * level + 0.5f);
    }
}

void Output::pointOut(PixelFrame& frame, MonoTime now) noexcept {
  const Highlight* highlight = highlight_.current();
  if (!highlight || highlight->pixels.empty()) return;
  constexpr float kRest = 0.12f;
  constexpr MonoTime kHalfBlink{250'000'000};
  dimAllBut(highlight->pixels, highlight->kind == Highlight::Kind::Isolate ? 0 : kRest, frame);
  if (highlight->kind == Highlight::Kind::Isolate) return;
  const bool isOn = highlight->kind == Highlight::Kind::Point || (now / kHalfBlink) % 2 == 0;
  fill(highlight->pixels, isOn ? 1 : 0, frame);
}

namespace {

std::span<const std::uint8_t> valuesOf(const Program& program, const Line& line) {
  return std::span(program.values)
      .subspan(line.firstUniverse() * kUniverseChannels,
               line.sender().universes().size() * kUniverseChannels);
}

}  // namespace

void Output::note(const Line& line, Micros position, bool isDark) noexcept {
  if (!recording_) return;
  for (std::size_t i = 0; i < line.sender().universes().size() && record_.size() < record_.capacity(); ++i)
    if (line.sender().wasSent(i))
      record_.push_back({position, static_cast<std::uint32_t>(line.firstUniverse() + i), isDark});
}

void Output::sendFrame(Program& program, Micros position, MonoTime now) noexcept {
  const float level = blackout_.load() ? 0.f : master_.load();
  const PixelFrame& frame = program.frames->filling();
  program.show->packer->pack(frame, position, level, program.values, program.power.follow(frame, level, now));
  if (const auto* signal = signal_.current(); signal && *signal)
    drawChannels(**signal, program, level, now, program.values);
  else
    live_.layOver(*program.show, level, program.values);
  layOver(program, level);
  for (Line& line : program.lines)
    if (line.offer(valuesOf(program, line), now)) note(line, position, level == 0.f);
  program.leaving->filling() = program.values;
  program.leaving->publish();
  for (link::DiscoveryBeacon& beacon : program.beacons) beacon.tick(now);
  // All data first, so that what waits for a word changes in one frame everywhere.
  for (Line& line : program.lines)
    if (line.late() == MonoTime(0)) line.sender().sync(now);
}

std::span<const MonoTime> Output::lates() const noexcept {
  const Program* program = program_.current();
  return program && isLit_ ? std::span<const MonoTime>(program->lates) : std::span<const MonoTime>();
}

void Output::stepLate(MonoTime late, MonoTime now) noexcept {
  Program* program = program_.current();
  for (Line& line : program->lines)
    if (line.late() == late && line.leave(now)) line.sender().sync(now);
}

void Output::goDark(Program& program, MonoTime now) noexcept {
  program.show->packer->pack(program.frames->filling(), Micros(0), 0, program.values);
  const bool isLast = --darkLeft_ <= 0;
  for (Line& line : program.lines) {
    line.sendAtOnce(valuesOf(program, line), now);
    note(line, Micros(0), true);
    line.sender().sync(now);
    if (isLast) line.sender().terminate(now);
  }
  if (!isLast) return;
  isLit_ = false;
  isDark_ = true;
}

void Output::step(MonoTime now) noexcept {
  stepper_.store(::gettid(), std::memory_order_relaxed);
  program_.take([&](Program* old, Program& next) { replaceProgram(old, next, now); });
  signal_.take([](auto*, auto&) {});
  highlight_.take([](auto*, auto&) {});
  overlay_.take([](auto*, auto&) {});
  repair_.take([&](auto*, Repair& next) { mend(next, now); });
  Program* program = program_.current();
  if (!program) return;
  const TransportState at = transport_.get().resolvedAt(now);
  const Micros position = at.positionAt(now);
  compute(*program, at, position, now);
  if (lightWanted_.load()) {
    isLit_ = true;
    isDark_ = false;
    darkLeft_ = kDarkFrames;
    sendFrame(*program, position, now);
  } else if (isLit_) {
    goDark(*program, now);
  }
  program->frames->publish();
}

bool Output::finish(MonoTime now) noexcept {
  if (program_.current() && isLit_) goDark(*program_.current(), now);
  return isLit_;
}

OutputThread::OutputThread(Output& output, Clock& clock, double framesPerSecond, OutputStats& stats)
    : output_(output),
      clock_(clock),
      period_(static_cast<std::int64_t>(1e9 / framesPerSecond)),
      stats_(stats),
      thread_([this] { run(); }) {}

OutputThread::~OutputThread() {
  stopping_.store(true);
  thread_.join();
}

void OutputThread::run() noexcept {
  // Where the system does not allow it, frames may be later under load.
  askForRealtime(stats_.grants);
  pthread_setname_np(pthread_self(), "chispa-output");
  MonoTime next = clock_.now();
  while (!stopping_.load()) {
    clock_.sleepUntil(next);
    const MonoTime begun = clock_.now();
    stats_.lateness.add(begun - next);
    output_.step(next);
    for (const MonoTime late : output_.lates()) {
      clock_.sleepUntil(next + late);
      output_.stepLate(late, next + late);
    }
    stats_.frames.fetch_add(1, std::memory_order_relaxed);
    const MonoTime now = clock_.now();
    stats_.lastFrameTook_ns.store((now - begun).count(), std::memory_order_relaxed);
    next += period_;
    if (next < now) {
      // Late by less than a period, the next frame begins at once; only what is past altogether is left out.
      const auto missed = (now - next) / period_;
      stats_.skipped.fetch_add(static_cast<std::uint64_t>(missed), std::memory_order_relaxed);
      next += missed * period_;
    }
  }
  while (output_.finish(clock_.now())) clock_.sleepUntil(clock_.now() + period_);
}

}  // namespace chispa::engine
