// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/simulatedcamera.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace chispa::vision {
namespace {

/// Grey levels of the middle of an LED at full light: far beyond white, as in a real picture.
constexpr double kFull = 900;
/// The room's light, and the hand, have these periods.
constexpr double kDrift_s = 5.3;
constexpr double kWave_s = 3.1;
/// Noise that is drawn once and shifted from picture to picture.
constexpr std::size_t kNoiseSize = 1'048'573;

double gauss(double square, double sigma) {
  return std::exp(-square / (2 * sigma * sigma));
}

/// Which LEDs are not seen because the body of another stands before them: a ball of radius `body_m` about
/// each.
std::vector<bool> hiddenByOthers(const std::vector<Vec3>& leds, const View& view, double body_m) {
  std::vector<bool> hidden(leds.size(), false);
  if (body_m <= 0) return hidden;
  for (std::size_t i = 0; i < leds.size(); ++i) {
    const Vec3 ray = leds[i] - view.eye;
    const double far = length(ray);
    for (std::size_t k = 0; k < leds.size() && !hidden[i]; ++k) {
      const Vec3 other = leds[k] - view.eye;
      const double along = dot(other, ray) / far;
      // What is as far away stands beside it.
      if (along <= 0 || along > far - 2 * body_m) continue;
      hidden[i] = length(other - ray * (along / far)) < body_m;
    }
  }
  return hidden;
}

}  // namespace

ImageDefects defectsOf(Severity severity) {
  ImageDefects defects;
  if (severity == Severity::Clean) return defects;
  defects = {1.5, 9, 0.04, 4, 20, 8, 0.10, -0.08, 0.01, false, 29.97, 0.12, 0.01, 0.003};
  if (severity == Severity::Medium) return defects;
  return {1.9, 12, 0.06, 8, 45, 20, 0.25, -0.15, 0.04, true, 24, 0.3, 0.05, 0.003};
}

SimulatedCamera::SimulatedCamera(std::vector<Vec3> leds, View view, const ImageDefects& defects,
                                 unsigned seed)
    : view_(view), defects_(defects), random_(seed) {
  view_.lens.k1 = defects.k1;
  const int width = view_.lens.width, height = view_.lens.height;
  std::bernoulli_distribution isHidden(defects.hidden);
  double lowest = 0;
  const std::vector<bool> isBehind = hiddenByOthers(leds, view_, defects.body_m);
  for (std::size_t i = 0; i < leds.size(); ++i) {
    auto spot = view_.project(leds[i]);
    if (spot && (spot->x < 0 || spot->y < 0 || spot->x > width - 1 || spot->y > height - 1)) spot.reset();
    if (spot) lowest = std::max(lowest, spot->y);
    if (isHidden(random_) || isBehind[i]) spot.reset();
    truth_.push_back(spot);
  }
  for (std::size_t i = 0; i < leds.size(); ++i) {
    firstSplat_.push_back(splats_.size());
    const auto seen = view_.project(leds[i]);
    if (truth_[i]) addSplats(*truth_[i], 1);
    // The floor mirrors what something hides from the eye, too.
    if (seen && defects.reflection > 0) addSplats({seen->x, 2 * (lowest + 10) - seen->y}, defects.reflection);
  }
  firstSplat_.push_back(splats_.size());
  std::normal_distribution<float> noise(0, static_cast<float>(defects.noise));
  noise_.resize(kNoiseSize + 4099);
  for (float& one : noise_) one = noise(random_);
}

void SimulatedCamera::addSplats(Spot spot, double share) {
  const int width = view_.lens.width, height = view_.lens.height;
  const double blur = share < 1 ? defects_.blur_px * 1.6 : defects_.blur_px;
  const int reach = static_cast<int>(std::ceil(defects_.bloom_px * 2.2));
  const int cx = static_cast<int>(std::lround(spot.x)), cy = static_cast<int>(std::lround(spot.y));
  for (int y = std::max(0, cy - reach); y <= std::min(height - 1, cy + reach); ++y)
    for (int x = std::max(0, cx - reach); x <= std::min(width - 1, cx + reach); ++x) {
      const double square = (x - spot.x) * (x - spot.x) + (y - spot.y) * (y - spot.y);
      const double light = share * ((1 - defects_.bloomShare) * gauss(square, blur) +
                                    defects_.bloomShare * gauss(square, defects_.bloom_px));
      if (light * kFull < 0.3) continue;
      splats_.push_back(
          {static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x),
           static_cast<float>(light * kFull)});
    }
}

void SimulatedCamera::addHand(std::vector<float>& light, double time_s) const {
  const int width = view_.lens.width, height = view_.lens.height;
  const double swing = std::sin(2 * std::numbers::pi * time_s / kWave_s);
  const double cx = width * (0.5 + 0.38 * swing),
               cy = height * (0.75 - 0.2 * std::cos(2 * std::numbers::pi * time_s / (2 * kWave_s)));
  const double rx = width * 0.07, ry = height * 0.28;
  constexpr double kReach = 1.15;  // a little more than the root of 1.3
  const int top = std::max(0, static_cast<int>(cy - kReach * ry)),
            bottom = std::min(height, static_cast<int>(cy + kReach * ry) + 1),
            left = std::max(0, static_cast<int>(cx - kReach * rx)),
            right = std::min(width, static_cast<int>(cx + kReach * rx) + 1);
  for (int y = top; y < bottom; ++y)
    for (int x = left; x < right; ++x) {
      const double in = (x - cx) * (x - cx) / (rx * rx) + (y - cy) * (y - cy) / (ry * ry);
      if (in > 1.3) continue;
      // It hides what is behind, and is itself lit by the room.
      const auto cover = static_cast<float>(std::clamp((1.3 - in) / 0.3, 0.0, 1.0));
      float& own =
          light[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)];
      own = own * (1 - cover) + cover * static_cast<float>(defects_.ambient * 1.4);
    }
}

Picture SimulatedCamera::take(std::span<const float> light, double time_s) {
  const int width = view_.lens.width, height = view_.lens.height;
  const auto size = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
  const double room = defects_.ambient + defects_.drift * std::sin(2 * std::numbers::pi * time_s / kDrift_s);
  std::vector<float> grey(size);
  // One side of the room is brighter.
  for (int x = 0; x < width; ++x)
    grey[static_cast<std::size_t>(x)] = static_cast<float>(room * (0.7 + 0.6 * x / width));
  for (int y = 1; y < height; ++y) std::copy_n(grey.begin(), width, grey.begin() + y * width);
  for (std::size_t led = 0; led + 1 < firstSplat_.size() && led < light.size(); ++led) {
    if (light[led] == 0) continue;
    for (std::size_t i = firstSplat_[led]; i < firstSplat_[led + 1]; ++i)
      grey[splats_[i].at] += light[led] * splats_[i].share;
  }
  if (defects_.hasHand) addHand(grey, time_s);
  const std::size_t shift = std::uniform_int_distribution<std::size_t>(0, 4098)(random_);
  Picture picture{width, height, std::vector<std::uint8_t>(size)};
  for (std::size_t first = 0; first < size; first += kNoiseSize) {
    const float* noise = noise_.data() + shift;
    const std::size_t count = std::min(kNoiseSize, size - first);
    for (std::size_t i = 0; i < count; ++i)
      picture.light[first + i] =
          static_cast<std::uint8_t>(std::clamp(grey[first + i] + noise[i] + 0.5f, 0.f, 255.f));
  }
  return picture;
}

Rightness rightnessOf(const SimulatedCamera& camera, const Sightings& seen) {
  constexpr double kWrong_px = 4;
  Rightness right;
  std::vector<double> errors;
  for (const Sighting& one : seen.all) {
    if (!one.doubt.empty()) continue;
    const auto& truth = camera.truth()[static_cast<std::size_t>(one.led)];
    errors.push_back(truth ? std::hypot(truth->x - one.spot.x, truth->y - one.spot.y) : 1e9);
    if (errors.back() > kWrong_px) ++right.wrong;
  }
  std::sort(errors.begin(), errors.end());
  const auto inSight = std::count_if(camera.truth().begin(), camera.truth().end(),
                                     [](const auto& spot) { return spot.has_value(); });
  right.found = static_cast<double>(errors.size()) / static_cast<double>(inSight);
  right.foundOfAll = static_cast<double>(errors.size()) / static_cast<double>(camera.truth().size());
  right.median_px = errors.empty() ? 0 : errors[errors.size() / 2];
  return right;
}

void simulateCapture(SimulatedCamera& camera, const BlinkCode& code, int rounds, double step_s, double level,
                     const std::function<void(Frame)>& take) {
  const ImageDefects& defects = camera.defects();
  std::mt19937 random(7);
  std::bernoulli_distribution isDropped(defects.droppedFrames);
  const double period = 1 / defects.framesPerSecond;
  const double exposure = period / 2;
  // A whole mark behind the last round, as the next would begin.
  const double end = (static_cast<double>(rounds) * roundSteps(code.bits()) + kMarkSteps) * step_s;
  std::vector<std::uint64_t> words;
  for (int led = 0; led < code.leds(); ++led) words.push_back(code.word(led));
  std::vector<float> light(words.size());
  for (double t = 0.37 * period; t < end; t += period) {
    constexpr int kParts = 6;
    std::fill(light.begin(), light.end(), 0.f);
    for (int part = 0; part < kParts; ++part) {
      const auto step = static_cast<std::int64_t>((t + exposure * (part + 0.5) / kParts) / step_s);
      for (std::size_t i = 0; i < words.size(); ++i)
        if (isBlinkLit(words[i], code.bits(), step)) light[i] += static_cast<float>(level / kParts);
    }
    Picture picture = camera.take(light, t);
    if (!isDropped(random)) take({std::move(picture), t + exposure / 2 + defects.lag_s});
  }
}

}  // namespace chispa::vision
