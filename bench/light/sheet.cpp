// SPDX-License-Identifier: GPL-3.0-or-later
// Effects as pictures, for whoever makes them: what stands still in a table moves here.
#include <algorithm>
#include <cstdio>

#include "effectrun.h"
#include "lightreport.h"
#include <opencv2/imgproc.hpp>

#include "core/base/pngwriter.h"
#include "core/colour/rgb.h"

namespace chispa::bench {
namespace {

constexpr int kHeight = 150;
constexpr int kGap = 10;
constexpr int kTitle = 16;

cv::Vec3b colourOf(const LightBuffer& light, std::size_t i) {
  const Srgb8 seen = toSrgb8({light.r[i], light.g[i], light.b[i]});
  return {seen.b, seen.g, seen.r};
}

/// A cell a column, time from above down: what glides is a slanting line, what jumps a broken one.
void drawThroughTime(cv::Mat picture, EffectRun& run) {
  const int count = picture.cols;
  for (int y = 0; y < picture.rows; ++y) {
    const LightBuffer& light = run.at(kEffectLength_s * y / picture.rows);
    const auto cells = static_cast<int>(light.size());
    for (int x = 0; x < count; ++x)
      picture.at<cv::Vec3b>(y, x) = colourOf(light, static_cast<std::size_t>(x * cells / count));
  }
}

/// The instant of most light in the two seconds from `from_s` on.
double brightest(EffectRun& run, double from_s) {
  double found_s = from_s;
  double most = -1;
  for (double t_s = from_s; t_s < from_s + 2; t_s += 0.025) {
    const LightBuffer& light = run.at(t_s);
    double sum = 0;
    for (std::size_t i = 0; i < light.size(); ++i)
      sum += static_cast<double>(light.r[i] + light.g[i] + light.b[i]);
    if (sum > most) {
      most = sum;
      found_s = t_s;
    }
  }
  return found_s;
}

/// The matrix in three parts of the time: where each is brightest, and a tenth and two tenths of a second
/// later.
void drawMatrix(cv::Mat picture, EffectRun& run, const ZoneCells& cells) {
  constexpr int kAcross = 3, kDown = 3;
  const int scale = 3;
  double begin_s = 0;
  for (int n = 0; n < kAcross * kDown; ++n) {
    if (n % kAcross == 0) begin_s = brightest(run, kEffectLength_s * n / (kAcross * kDown));
    const LightBuffer& light = run.at(begin_s + 0.1 * (n % kAcross));
    const cv::Point corner(n % kAcross * (cells.columns * scale + 4), n / kAcross * (cells.rows * scale + 2));
    for (std::size_t i = 0; i < light.size(); ++i) {
      const cv::Rect dot(corner.x + cells.column[i] * scale,
                         corner.y + (cells.rows - 1 - cells.row[i]) * scale, scale, scale);
      cv::rectangle(picture, dot, cv::Scalar(colourOf(light, i)), cv::FILLED);
    }
  }
}

/// The carousel from the front and from above, at four instants.
void drawCarousel(cv::Mat picture, EffectRun& run, const ZoneCells& cells) {
  constexpr int kShots = 4;
  const int side = picture.cols / kShots;
  double reach = 0.1;
  for (const Vec3& at : cells.position_m)
    reach = std::max({reach, std::abs(at.x), std::abs(at.y), std::abs(at.z) / 2});
  for (int n = 0; n < kShots; ++n) {
    const LightBuffer& light = run.at(0.6 + 1.3 * n);
    for (std::size_t i = 0; i < light.size(); ++i) {
      const Vec3& at = cells.position_m[i];
      const double seen = at.z + at.y * 0.35;
      const cv::Point dot(n * side + static_cast<int>((0.5 + 0.48 * at.x / reach) * side),
                          static_cast<int>((0.85 - 0.36 * seen / reach) * picture.rows));
      cv::circle(picture, dot, 1, cv::Scalar(colourOf(light, i)), cv::FILLED);
    }
  }
}

}  // namespace

bool drawEffects(const std::string& file, const std::vector<std::string>& keys) {
  const auto pieces = lightPieces();
  const std::array<int, 4> widths{300, 120, 3 * (48 * 3 + 4), 520};
  int width = kGap;
  for (const int one : widths) width += one + kGap;
  std::vector<const Effect*> drawn;
  for (const std::string& key : keys) {
    const Effect* effect = findEffect(key);
    if (!effect) {
      std::fprintf(stderr, "There is no effect “%s”.\n", key.c_str());
      return false;
    }
    drawn.push_back(effect);
  }
  if (drawn.empty())
    for (const Effect& effect : effects()) drawn.push_back(&effect);
  cv::Mat sheet(static_cast<int>(drawn.size()) * (kHeight + kTitle + kGap), width, CV_8UC3,
                cv::Scalar(24, 20, 18));
  for (std::size_t n = 0; n < drawn.size(); ++n) {
    const int top = static_cast<int>(n) * (kHeight + kTitle + kGap);
    cv::putText(sheet, drawn[n]->name, {kGap, top + 12}, cv::FONT_HERSHEY_SIMPLEX, 0.42, {200, 200, 200}, 1,
                cv::LINE_AA);
    int left = kGap;
    for (std::size_t p = 0; p < pieces.size(); ++p) {
      cv::Mat part = sheet(cv::Rect(left, top + kTitle, widths[p], kHeight));
      EffectRun run(*drawn[n], pieces[p].cells);
      if (p < 2)
        drawThroughTime(part, run);
      else if (p == 2)
        drawMatrix(part, run, pieces[p].cells);
      else
        drawCarousel(part, run, pieces[p].cells);
      left += widths[p] + kGap;
    }
  }
  cv::cvtColor(sheet, sheet, cv::COLOR_BGR2RGB);
  const PictureBytes picture{sheet.cols, sheet.rows, {sheet.datastart, sheet.dataend}};
  const std::string why = writePng(file, picture, PictureColours::Rgb);
  if (why.empty()) return true;
  std::fprintf(stderr, "“%s” cannot be written: %s.\n", file.c_str(), why.c_str());
  return false;
}

}  // namespace chispa::bench
