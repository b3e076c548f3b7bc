// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/output.h"

#include <algorithm>

#include "core/render/laying.h"

namespace chispa::engine {

void Output::keepRecord(std::size_t most) {
  record_.reserve(most);
  recording_ = true;
}

void Output::replaceProgram(Program* old, Program& next, MonoTime now) noexcept {
  // What fades away was of the pixels of the old one.
  fade_.length = MonoTime(0);
  for (Ahead& ahead : next.aheads) ahead.fade = fade_;
  evenness_.store(next.show->light.fades);
  // What it shows is computed at once, whether or not a line takes it.
  computedAt_ = MonoTime(-1'000'000'000'000);
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
      same->takeOver(line, now);
  }
}

void Output::mend(Repair& repair, MonoTime now) noexcept {
  Program* program = program_.current();
  if (!program || program->serial != repair.program) return;
  for (auto& [line, sender] : repair.senders)
    if (line < program->lines.size()) program->lines[line].replaceSender(sender, isLit_, now);
}

bool Output::isFadeDue(const ScoreFade& fade, const Course& course) const noexcept {
  const FadeOrder order = FadeOrder::of(fadeWanted_.load());
  return order.length.count() > 0 && order.score == course.at.score && order.number != fade.followed;
}

/// Renders the light of the score that played last once more, at the instant where it ended, and keeps it in
/// `fading`: the new score is mixed over it.
void Output::beginFade(Program& program, const Course& course, ScoreFade& fade, PixelFrame* fading) noexcept {
  // An order that came in before the room for it is followed with the next frame.
  const auto pixels = static_cast<std::size_t>(program.show->map->count());
  if (!isFadeDue(fade, course) || !fading || fading->size() != pixels) return;
  const FadeOrder order = FadeOrder::of(fadeWanted_.load());
  fade.followed = order.number;
  if (const CompiledScore* before = program.show->scoreOf(fade.shown))
    program.renderer.own().render(*before, fade.shownAt, *fading);
  else
    fading->clear();
  fade.begun = course.when;
  fade.length = order.length;
}

namespace {

void mixFade(ScoreFade& fade, const PixelFrame* fading, MonoTime when, Evenness evenness,
             PixelFrame& frame) noexcept {
  if (fade.length.count() == 0) return;
  const double passed =
      static_cast<double>((when - fade.begun).count()) / static_cast<double>(fade.length.count());
  // A program that was loaded meanwhile has nothing to fade from.
  if (passed >= 1 || !fading || fading->size() != frame.size()) {
    fade.length = MonoTime(0);
    return;
  }
  mixFrames(*fading, static_cast<float>(std::max(0.0, passed)), evenness, frame);
}

}  // namespace

Output::Course Output::courseAt(MonoTime now, MonoTime lead) const noexcept {
  Course course;
  course.when = now + lead;
  course.ahead = std::chrono::duration_cast<Micros>(lead);
  course.at = transport_.get().resolvedAt(course.when);
  course.position = course.at.positionAt(course.when);
  return course;
}

void Output::light(Program& program, const Course& course, MonoTime now, ScoreFade& fade, PixelFrame* fading,
                   PixelFrame& frame) noexcept {
  const std::optional<TestSignal>* signal = signal_.current();
  const bool isTested = signal && *signal;
  const bool plays = !isTested || (*signal)->restPlays;
  const CompiledScore* score = program.show->scoreOf(course.at.score);
  beginFade(program, course, fade, fading);
  if (score && plays)
    program.renderer.render(*score, course.position, frame, crewFor(program));
  else
    frame.clear();
  mixFade(fade, fading, course.when, evenness_.load(), frame);
  fade.shown = course.at.score;
  fade.shownAt = course.position;
  if (plays)
    live_.render(program.renderer.own(), *program.show, score, course.position, program.desk, frame,
                 course.ahead);
  if (isTested)
    drawSignal(**signal, program, (*signal)->followsSound ? MonoTime(course.position) : now, frame);
  pointOut(frame, now);
}

bool Output::standsStill(const Program& program, const Course& course) noexcept {
  const auto* signal = signal_.current();
  const Highlight* highlight = highlight_.current();
  const bool isTouched = (signal && *signal) || (highlight && !highlight->pixels.empty());
  const bool isSettled = !isTouched && fade_.length.count() == 0 && !isFadeDue(fade_, course) &&
                         live_.isAtRest(*program.show) && !program.show->media.hasLive();
  const bool wasSettled = std::exchange(isSettled_, isSettled);
  const Shown here{program.serial, course.at.score, course.position};
  const bool wasHere = std::exchange(shown_, here) == here;
  return isSettled && wasSettled && wasHere;
}

void Output::compute(Program& program, const Course& course, MonoTime now) noexcept {
  const CompiledScore* score = program.show->scoreOf(course.at.score);
  live_.step(*program.show, score, course.at, now, program.deskBoxes, program.desk, master_.load());
  if (const auto master = live_.takeMaster()) master_.store(*master);
  if (const auto blackout = live_.takeBlackout()) blackout_.store(*blackout);
  stillFrames_ = standsStill(program, course) ? stillFrames_ + 1 : 0;
  // The first that is the same stays with the output, to be packed from then on; the window has it already.
  if (stillFrames_ < 2) light(program, course, now, fade_, fading_.current(), program.frames->filling());
  if (!lightWanted_.load()) return;
  for (Ahead& ahead : program.aheads) {
    if (!ahead.isTurn) continue;
    const Course later = courseAt(now, ahead.lead);
    ahead.position = later.position;
    light(program, later, now, ahead.fade, &ahead.fading, ahead.frame);
  }
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

std::span<std::uint8_t> valuesOf(Program& program, const Line& line) {
  return std::span(program.values)
      .subspan(line.firstUniverse() * kUniverseChannels,
               line.sender().universes().size() * kUniverseChannels);
}

}  // namespace

void Output::note(const Line& line, Micros position, bool isDark) noexcept {
  if (!recording_) return;
  for (std::size_t i = 0; i < line.sender().universes().size() && record_.size() < record_.capacity(); ++i)
    if (line.sender().wasSent(i)) {
      const ShownFrame shown = line.shownBy(i, position);
      record_.push_back(
          {shown.position, shown.dither, static_cast<std::uint32_t>(line.firstUniverse() + i), isDark});
    }
}

Crew& Output::crewFor(const Program& program) noexcept {
  // Below that the frame is done before a helper is awake.
  constexpr int kLeastShared = 16'384;
  return program.show->map->count() < kLeastShared ? lone_ : *crew_;
}

void Output::pack(Program& program, const PixelFrame& frame, float level, std::span<const float> levels,
                  std::vector<std::uint8_t>& values) noexcept {
  // A job takes about as long as a tile of light.
  constexpr std::size_t kStepsOfJob = 48;
  const Packer& packer = *program.show->packer;
  const std::size_t steps = packer.stepCount();
  auto job = [&](std::size_t number, std::size_t) {
    const std::size_t first = number * kStepsOfJob;
    packer.packSteps(first, std::min(kStepsOfJob, steps - first), frame, program.dither, level, values,
                     levels);
  };
  crewFor(program).run((steps + kStepsOfJob - 1) / kStepsOfJob, job);
}

/// Lines that bring light forward take their values from the frame that is as far ahead.
void Output::packAhead(Program& program, float level, MonoTime now) noexcept {
  for (Ahead& ahead : program.aheads) {
    if (!ahead.isTurn) continue;
    pack(program, ahead.frame, level, ahead.power.follow(ahead.frame, level, now), ahead.values);
    for (const Line& line : program.lines) {
      if (line.lead() != ahead.lead) continue;
      const auto first = static_cast<std::ptrdiff_t>(line.firstUniverse() * kUniverseChannels);
      const auto count = static_cast<std::ptrdiff_t>(line.sender().universes().size() * kUniverseChannels);
      std::copy_n(ahead.values.begin() + first, count, program.values.begin() + first);
    }
  }
}

bool Output::isSteady(const Program& program, float level) const noexcept {
  return stillFrames_ >= 2 && level == packedLevel_ && overlay_.current() == packedUnder_ &&
         program.aheads.empty() && !program.show->budget->hasLimits() &&
         !LiveOutput::drivesChannels(*program.show) &&
         std::all_of(program.lines.begin(), program.lines.end(),
                     [](const Line& line) { return line.isSteady(); });
}

void Output::packAll(Program& program, float level, MonoTime now) noexcept {
  const PixelFrame& frame = program.frames->filling();
  pack(program, frame, level, program.power.follow(frame, level, now), program.values);
  packAhead(program, level, now);
  packedLevel_ = level;
  packedUnder_ = overlay_.current();
}

void Output::showValues(Program& program) noexcept {
  // Where it takes long, copies that nobody looks at are made now and then only.
  constexpr std::size_t kCheap = 1 << 16;
  constexpr int kUnseen = 8;
  if (program.values.size() > kCheap && !program.leaving->isTaken() && ++unseen_ < kUnseen) return;
  unseen_ = 0;
  program.leaving->filling() = program.values;
  program.leaving->publish();
}

void Output::sendFrame(Program& program, Micros position, MonoTime now) noexcept {
  const float level = lightLevel();
  const bool holdsStill = isSteady(program, level);
  if (!holdsStill) packAll(program, level, now);
  if (const auto* signal = signal_.current(); signal && *signal)
    drawChannels(**signal, program, level, now, program.values);
  else
    live_.layOver(*program.show, level, program.values);
  layOver(program, level);
  // Each line has a socket of its own.
  auto send = [&](std::size_t number, std::size_t) {
    Line& line = program.lines[number];
    // What holds still is there as it was held.
    if (!holdsStill) line.settle(valuesOf(program, line), position);
    program.wasOffered[number] = line.offer(valuesOf(program, line), now);
  };
  crewFor(program).run(program.lines.size(), send);
  for (std::size_t i = 0; i < program.lines.size(); ++i)
    if (program.wasOffered[i]) note(program.lines[i], position, level == 0.f);
  showValues(program);
  for (link::DiscoveryBeacon& beacon : program.beacons) beacon.tick(now);
  // All data first, so that what waits for a word changes in one frame everywhere.
  for (Line& line : program.lines)
    if (line.late() == MonoTime(0)) line.sender().sync(now);
}

std::span<const MonoTime> Output::delays() const noexcept {
  const Program* program = program_.current();
  return program && isLit_ ? std::span<const MonoTime>(program->delays) : std::span<const MonoTime>();
}

bool Output::isDue(MonoTime late) const noexcept {
  const Program* program = program_.current();
  return program && std::any_of(program->lines.begin(), program->lines.end(),
                                [late](const Line& line) { return line.late() == late || line.hasMore(); });
}

void Output::stepLate(MonoTime late, MonoTime now) noexcept {
  Program* program = program_.current();
  for (Line& line : program->lines) {
    const bool hasLeft = line.late() == late && line.leave(now);
    if (!hasLeft && !line.hasMore()) continue;
    if (!hasLeft) line.sender().sendMore(now);
    line.sender().sync(now);
  }
}

void Output::goDark(Program& program, MonoTime now) noexcept {
  program.show->packer->pack(program.frames->filling(), DitherFrame(), 0, program.values);
  packedLevel_ = -1;
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
  fading_.take([](auto*, auto&) {});
  repair_.take([&](auto*, Repair& next) { mend(next, now); });
  Program* program = program_.current();
  if (!program || !turn(*program, now)) return;
  const Course course = courseAt(now, MonoTime(0));
  compute(*program, course, now);
  if (lightWanted_.load()) {
    isLit_ = true;
    isDark_ = false;
    darkLeft_ = kDarkFrames;
    sendFrame(*program, course.position, now);
  } else if (isLit_) {
    goDark(*program, now);
  }
  if (stillFrames_ == 0) program->frames->publish();
  bell_.ring();
}

/// Notes which lines take the frame of `now`. True if one does, or the last frame is long enough ago for the
/// window to want one.
bool Output::turn(Program& program, MonoTime now) noexcept {
  bool isAny = false;
  for (Ahead& ahead : program.aheads) ahead.isTurn = false;
  for (Line& line : program.lines) {
    isAny |= line.turn(now) || line.isLeaving(now);
    program.dither[line.index()] = line.dither();
    for (Ahead& ahead : program.aheads) ahead.isTurn |= line.isTurn() && ahead.lead == line.lead();
  }
  // While light is off only the window looks.
  const bool isSent = isAny && (isLit_ || lightWanted_.load());
  if (!isSent && now - computedAt_ < kUsualPeriod - program.tick / 4) return false;
  computedAt_ = now;
  return true;
}

MonoTime Output::tick() const noexcept {
  const Program* program = program_.current();
  return program ? program->tick : kUsualPeriod;
}

bool Output::finish(MonoTime now) noexcept {
  if (program_.current() && isLit_) goDark(*program_.current(), now);
  return isLit_;
}

}  // namespace chispa::engine
