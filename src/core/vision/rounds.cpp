// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/rounds.h"

#include <algorithm>
#include <cmath>

#include "core/vision/blinkcode.h"
#include "core/vision/cvpicture.h"

namespace chispa::vision {
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

/// The instant between the frame before `i` and frame `i` at which half of the change has passed.
double edgeAt(std::span<const double> brightness, std::span<const Frame> frames, std::size_t i, double half) {
  if (i == 0 || i >= frames.size()) return frames[std::min(i, frames.size() - 1)].time_s;
  const double before = brightness[i - 1];
  const double after = brightness[i];
  const double share =
      std::abs(after - before) < 1e-6 ? 0.5 : std::clamp((half - before) / (after - before), 0.0, 1.0);
  return frames[i - 1].time_s + share * (frames[i].time_s - frames[i - 1].time_s);
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

std::vector<Round> findRounds(std::span<const double> brightness, std::span<const Frame> frames, int bits) {
  std::vector<Round> rounds;
  const auto runs = litRuns(brightness);
  std::vector<double> lengths;
  for (const LitRun& run : runs) lengths.push_back(frames[run.end - 1].time_s - frames[run.first].time_s);
  const double longest = lengths.empty() ? 0 : *std::max_element(lengths.begin(), lengths.end());
  // A mark begins where it is half lit.
  std::vector<double> marks;
  for (std::size_t i = 0; i < runs.size(); ++i)
    if (lengths[i] > 0.6 * longest) marks.push_back(edgeAt(brightness, frames, runs[i].first, 0.5));
  for (std::size_t i = 0; i + 1 < marks.size(); ++i) {
    const double step = (marks[i + 1] - marks[i]) / roundSteps(bits);
    const double lit = longest / kLitMarkSteps;
    // A mark that was missed makes two rounds look like one.
    if (step < 0.6 * lit || step > 1.7 * lit) continue;
    rounds.push_back({marks[i] + (kLitMarkSteps + 1) * step, step});
  }
  return rounds;
}

}  // namespace chispa::vision
