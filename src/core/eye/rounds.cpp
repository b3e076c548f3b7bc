// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/eye/rounds.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/base/median.h"
#include "core/eye/blinkcode.h"
#include "core/eye/cvpicture.h"

namespace chispa::eye {
namespace {

/// Spots stand out of their surroundings: a narrow blur less a wide one.
cv::Mat spotsOf(const cv::Mat& grey) {
  constexpr double kNarrow = 0.8;
  constexpr double kWide = 4;
  cv::Mat narrow, wide, spots;
  cv::GaussianBlur(grey, narrow, {}, kNarrow);
  cv::GaussianBlur(grey, wide, {}, kWide);
  cv::subtract(narrow, wide, spots, cv::noArray(), CV_16S);
  return spots;
}

/// A stretch of frames that show all spots lit: their first and the one behind the last.
struct LitRun {
  std::size_t first;
  std::size_t end;
};

std::vector<LitRun> litRuns(std::span<const double> brightness) {
  constexpr double kLit = 0.8;
  std::vector<LitRun> runs;
  for (std::size_t i = 0; i < brightness.size(); ++i) {
    if (brightness[i] < kLit) continue;
    // A frame that something covered, or that was lost, does not end a stretch.
    if (!runs.empty() && i - runs.back().end <= 1)
      runs.back().end = i + 1;
    else
      runs.push_back({i, i + 1});
  }
  return runs;
}

/// The instant between the frame before `i` and frame `i` at which half of the change has passed; nothing if
/// no frame was taken about then.
std::optional<double> edgeAt(std::span<const double> brightness, std::span<const Frame> frames, std::size_t i,
                             double usual_s) {
  constexpr double kHalf = 0.5;
  constexpr double kMostFrames = 2.5;
  if (i == 0 || i >= frames.size()) return std::nullopt;
  const double gap_s = frames[i].time_s - frames[i - 1].time_s;
  if (gap_s > kMostFrames * usual_s) return std::nullopt;
  const double before = brightness[i - 1];
  const double after = brightness[i];
  const double share =
      std::abs(after - before) < 1e-6 ? 0.5 : std::clamp((kHalf - before) / (after - before), 0.0, 1.0);
  return frames[i - 1].time_s + share * gap_s;
}

/// When all was lit for three steps, as far as frames were taken then.
struct Mark {
  std::optional<double> begins_s;
  std::optional<double> ends_s;
};

std::vector<Mark> marksIn(std::span<const double> brightness, std::span<const Frame> frames) {
  std::vector<double> gaps;
  for (std::size_t i = 1; i < frames.size(); ++i) gaps.push_back(frames[i].time_s - frames[i - 1].time_s);
  const double usual_s = median(gaps);
  std::vector<Mark> marks;
  for (const LitRun& run : litRuns(brightness)) {
    // What was lit from the first frame on may have been lit since long ago; what still is may just have
    // begun.
    if (run.first == 0) continue;
    const auto ends_s = run.end == frames.size() ? std::optional(frames.back().time_s)
                                                 : edgeAt(brightness, frames, run.end, usual_s);
    marks.push_back({edgeAt(brightness, frames, run.first, usual_s), ends_s});
  }
  return marks;
}

/// The length of a step as the longest mark tells it: what is lit longest are the marks.
double stepOfLongest(const std::vector<Mark>& marks) {
  double longest_s = 0;
  for (const Mark& mark : marks)
    if (mark.begins_s && mark.ends_s) longest_s = std::max(longest_s, *mark.ends_s - *mark.begins_s);
  return longest_s / kLitMarkSteps;
}

/// The length of a step if a round of `steps`, each about `wanted_s` long, lies between two marks; nothing if
/// it cannot.
std::optional<double> stepBetween(const Mark& from, const Mark& to, int steps, double wanted_s) {
  double step_s = 0;
  if (from.begins_s && to.begins_s)
    step_s = (*to.begins_s - *from.begins_s) / steps;
  else if (from.ends_s && to.ends_s)
    step_s = (*to.ends_s - *from.ends_s) / steps;
  else if (from.begins_s && to.ends_s)
    step_s = (*to.ends_s - *from.begins_s) / (steps + kLitMarkSteps);
  else if (from.ends_s && to.begins_s)
    step_s = (*to.begins_s - *from.ends_s) / (steps - kLitMarkSteps);
  else
    return std::nullopt;
  // Pulses of one or two steps are words, and what is lit for longer is none of ours.
  const auto isOurs = [wanted_s](const Mark& mark) {
    if (!mark.begins_s || !mark.ends_s) return true;
    const double lit = (*mark.ends_s - *mark.begins_s) / wanted_s;
    return lit > 0.75 * kLitMarkSteps && lit < 1.3 * kLitMarkSteps;
  };
  constexpr double kAgrees = 0.15;
  if (std::abs(step_s - wanted_s) > kAgrees * wanted_s) return std::nullopt;
  return isOurs(from) && isOurs(to) ? std::optional(step_s) : std::nullopt;
}

}  // namespace

/// The spots of each frame, in a smaller picture: enough to see when they are lit.
struct SpotBrightness::Small {
  std::vector<cv::Mat> frames;
};

SpotBrightness::SpotBrightness() : small_(std::make_unique<Small>()) {}
SpotBrightness::~SpotBrightness() = default;
SpotBrightness::SpotBrightness(SpotBrightness&&) noexcept = default;
SpotBrightness& SpotBrightness::operator=(SpotBrightness&&) noexcept = default;

void SpotBrightness::add(const Picture& picture, const Area& area) {
  constexpr double kWidth = 480;
  const cv::Mat part = cropped(picture, area);
  const double scale = std::min(1.0, kWidth / std::max(1, part.cols));
  cv::Mat small;
  cv::resize(part, small, {}, scale, scale, cv::INTER_AREA);
  small_->frames.push_back(spotsOf(small));
}

void SpotBrightness::drop(std::size_t count) {
  small_->frames.erase(small_->frames.begin(), small_->frames.begin() + static_cast<std::ptrdiff_t>(std::min(
                                                                            count, small_->frames.size())));
}

std::vector<double> SpotBrightness::all() const {
  const auto& spots = small_->frames;
  if (spots.empty()) return {};
  cv::Mat most = spots.front().clone();
  for (const cv::Mat& one : spots) most = cv::max(most, one);
  double brightest = 0;
  cv::minMaxLoc(most, nullptr, &brightest);
  const cv::Mat mask = most > std::max(6.0, brightest * 0.35);
  const double full = cv::mean(most, mask)[0];
  std::vector<double> brightness;
  for (const cv::Mat& one : spots) brightness.push_back(full > 0 ? cv::mean(one, mask)[0] / full : 0);
  // The brightest that each spot ever was is a little more than what all lit together show.
  std::vector<double> sorted = brightness;
  std::sort(sorted.begin(), sorted.end());
  const double top = sorted[sorted.size() - 1 - sorted.size() / 50];
  if (top > 0)
    for (double& one : brightness) one /= top;
  return brightness;
}

std::vector<Round> findRounds(std::span<const double> brightness, std::span<const Frame> frames, int bits,
                              double step_s) {
  const auto marks = marksIn(brightness, frames);
  const double wanted_s = step_s > 0 ? step_s : stepOfLongest(marks);
  std::vector<Round> rounds;
  for (std::size_t i = 0; i < marks.size();) {
    // The next that is as far away as the marks' own length says; what is lit between them is no mark.
    std::size_t next = i + 1;
    std::optional<double> found_s;
    while (next < marks.size() && !(found_s = stepBetween(marks[i], marks[next], roundSteps(bits), wanted_s)))
      ++next;
    if (found_s) {
      const double begins_s =
          marks[i].begins_s.value_or(marks[i].ends_s.value_or(0) - kLitMarkSteps * *found_s);
      rounds.push_back({begins_s + (kLitMarkSteps + 1) * *found_s, *found_s});
    }
    i = found_s ? next : i + 1;
  }
  return rounds;
}

}  // namespace chispa::eye
