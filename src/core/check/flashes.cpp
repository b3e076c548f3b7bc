// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/flashes.h"

#include <algorithm>
#include <cstdio>

#include "core/render/renderer.h"

namespace chispa {
namespace {

/// WCAG 2.2: a change of ten per cent of the maximum relative luminance, where the darker image is below
/// 0.80.
constexpr float kLeastChange = 0.1f;
constexpr float kDarkBelow = 0.8f;
/// A quarter of what is seen.
constexpr float kLeastShare = 0.25f;
/// Changes within so much time are one: light that rises over some frames rises once.
constexpr Micros kTogether{100'000};
constexpr Micros kSecond{1'000'000};
constexpr Micros kFrame{25'000};

/// Relative luminance of linear light (IEC 61966-2-1; WCAG 2.2).
float luminanceOf(const PixelFrame& frame, std::size_t i) {
  return 0.2126f * frame.r[i] + 0.7152f * frame.g[i] + 0.0722f * frame.b[i];
}

std::string timeWords(Micros t) {
  char text[32];
  std::snprintf(text, sizeof text, "%lld:%05.2f", static_cast<long long>(t.count() / 60'000'000),
                seconds(t % Micros(60'000'000)));
  return text;
}

}  // namespace

FlashCounter::FlashCounter(std::vector<float> weights)
    : weights_(std::move(weights)), swings_(weights_.size()) {
  for (const float weight : weights_) whole_ += weight;
}

FlashCounter::Change FlashCounter::changeOf(Micros t, const PixelFrame& frame) {
  Change change{t, 0, 0};
  for (std::size_t i = 0; i < swings_.size(); ++i) {
    Swing& swing = swings_[i];
    const float now = luminanceOf(frame, i);
    // It has turned round once it is far enough from where it was brightest, or darkest.
    swing.low = std::min(swing.low, now);
    swing.high = std::max(swing.high, now);
    if (swing.isUp && swing.high - now >= kLeastChange && now < kDarkBelow) {
      swing = {now, now, false};
      change.down += weights_[i];
    } else if (!swing.isUp && now - swing.low >= kLeastChange && swing.low < kDarkBelow) {
      swing = {now, now, true};
      change.up += weights_[i];
    }
  }
  return change;
}

int FlashCounter::add(Micros t, const PixelFrame& frame) {
  changes_.push_back(changeOf(t, frame));
  while (changes_.front().t <= t - kTogether) changes_.pop_front();
  float net = 0;
  for (const Change& change : changes_) net += change.up - change.down;
  const int now = net >= kLeastShare * whole_ ? 1 : net <= -kLeastShare * whole_ ? -1 : 0;
  if (whole_ > 0 && now != 0 && now != last_) {
    // A rise and the fall after it are a flash.
    if (now < 0 && last_ > 0) flashes_.push_back(t);
    last_ = now;
    changes_.clear();
  }
  while (!flashes_.empty() && flashes_.front() <= t - kSecond) flashes_.pop_front();
  return static_cast<int>(flashes_.size());
}

std::vector<FlashRun> findFlashes(const CompiledShow& show, const CompiledScore& score,
                                  const Progress& progress) {
  Renderer renderer;
  renderer.prepare(show);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(show.map->count()));
  FlashCounter counter(show.map->lampSize);
  std::vector<FlashRun> runs;
  Micros lastEnd{-10'000'000};
  for (Micros t{0}; t <= score.length; t += kFrame) {
    if (progress && t % kSecond == Micros(0) && !progress(seconds(t) / std::max(1e-6, seconds(score.length))))
      break;
    renderer.render(score, t, frame);
    const int flashes = counter.add(t, frame);
    if (flashes <= kMaxFlashes) continue;
    const Micros begins = counter.recent().front();
    if (begins > lastEnd)
      runs.push_back({begins, flashes});
    else
      runs.back().flashes = std::max(runs.back().flashes, flashes);
    lastEnd = t;
  }
  return runs;
}

std::vector<Problem> flashProblems(const Show& show, const CompiledShow& compiled, const Progress& progress) {
  // Pixels times frames, and as much for each frame as for some thousand pixels: ten seconds' work at most.
  constexpr std::int64_t kMaxWork = 800'000'000;
  constexpr std::int64_t kFrameWork = 2'500;
  std::vector<Problem> problems;
  std::int64_t work = 0;
  for (const CompiledScore& score : compiled.scores) {
    const Score* own = find(show.scores, score.id);
    if (!own) continue;
    bool wasCut = false;
    const Progress within = [&](double share) {
      work += kSecond / kFrame * (compiled.map->count() + kFrameWork);
      wasCut = work > kMaxWork;
      return !wasCut && (!progress || progress(share));
    };
    for (const FlashRun& run : findFlashes(compiled, score, within))
      problems.push_back({Severity::Warning,
                          sentence("The light flashes %1 times within a second; more than %2 can harm people "
                                   "with photosensitive epilepsy.",
                                   run.flashes, kMaxFlashes),
                          sentence("%1, at %2", own->name, timeWords(run.at)),
                          "Let fewer clips flash at once, or more slowly.", own->id});
    if (wasCut)
      problems.push_back({Severity::Note,
                          "It is too long and too large to be looked through whole for flashes.", own->name,
                          "Look through it in parts, as scores of their own.", own->id});
  }
  return problems;
}

}  // namespace chispa
