// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <set>

#include "../report.h"
#include "lightreport.h"

#include "core/colour/lightness.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/render/compiled.h"
#include "core/wire/pack.h"

namespace chispa::bench {
namespace {

constexpr int kFps = 40;

struct Way {
  const char* name;
  double response;
  int bits;
};

/// A piece on a controller, and what its LEDs show for one light everywhere.
class Piece {
 public:
  Piece(const Shape& shape, const Way& way) : response_{way.response}, isWide_(way.bits == 16) {
    Show show;
    StripType strip;
    strip.id = show.newId<StripTypeId>();
    strip.order = "RGB";
    strip.response = response_;
    strip.channelBits = way.bits;
    put(show.stripTypes, strip);
    const FixtureId fixture = addFixture(show, shape, {}, {}, strip.id);
    const int count = pixelCount(*find(show.fixtures, fixture));
    const ControllerId box = addController(show, 1);
    hang(show, {fixture, 0, count}, {box, 0, 0});
    compiled_ = compile(show);
    frame_.resize(static_cast<std::size_t>(count));
    values_.resize(compiled_->packer->bufferSize());
  }

  int pixels() const { return static_cast<int>(frame_.size()); }

  /// Light of the red chip of each pixel in the next frame, data order.
  std::vector<double> next(double light) {
    for (auto* channel : {&frame_.r, &frame_.g, &frame_.b})
      std::fill(channel->begin(), channel->end(), static_cast<float>(light));
    compiled_->packer->pack(frame_, ditherFrame(sent_++, kFps), 1, values_);
    std::vector<double> shown;
    const std::size_t bytes = isWide_ ? 6 : 3;
    for (std::size_t u = 0; u < compiled_->packer->universeCount(); ++u)
      for (std::size_t at = 0; at + bytes <= static_cast<std::size_t>(compiled_->packer->channelsOf(u));
           at += bytes) {
        const std::uint8_t* value = &values_[u * kUniverseChannels + at];
        shown.push_back(
            response_.lightOf(isWide_ ? (value[0] * 256 + value[1]) / 65535.0 : value[0] / 255.0));
      }
    return shown;
  }

 private:
  Response response_;
  bool isWide_;
  std::shared_ptr<const CompiledShow> compiled_;
  PixelFrame frame_;
  std::vector<std::uint8_t> values_;
  std::uint64_t sent_ = 0;
};

double meanOf(const std::vector<double>& values) {
  double sum = 0;
  for (const double value : values) sum += value;
  return sum / static_cast<double>(values.size());
}

constexpr double kFull = 0.02;
constexpr double kFade_s = 10;

/// A fade from dark to 2 % in ten seconds, in light: mean over the piece and over a tenth of a second.
struct FadeFigures {
  double first_s = 0;
  std::size_t levels = 0;
  double worst = 0;
};
FadeFigures fadeFigures(Piece& piece) {
  constexpr int kWindow = kFps / 10;
  FadeFigures figures;
  std::set<long> levels;
  for (int frame = 0; frame < kFps * kFade_s; frame += kWindow) {
    double shown = 0, meant = 0;
    for (int k = 0; k < kWindow; ++k) {
      const double light = kFull * (frame + k) / (kFps * kFade_s);
      shown += meanOf(piece.next(light)) / kWindow;
      meant += light / kWindow;
    }
    if (shown == 0) figures.first_s = static_cast<double>(frame + kWindow) / kFps;
    figures.worst = std::max(figures.worst, std::abs(shown - meant) / kFull);
    levels.insert(std::lround(shown / kFull * 1e5));
  }
  figures.levels = levels.size();
  return figures;
}

/// The lowest frequency at which an LED of the piece blinks while the light stands, over two seconds.
double slowest_hz(Piece& piece, double light) {
  constexpr int kFrames = 2 * kFps;
  std::vector<std::vector<double>> frames;
  for (int f = 0; f < kFrames; ++f) frames.push_back(piece.next(light));
  double slowest = 1e9;
  for (std::size_t pixel = 0; pixel < frames[0].size(); ++pixel) {
    double mean = 0;
    for (const auto& frame : frames) mean += frame[pixel] / kFrames;
    for (int k = 1; k <= kFrames / 2; ++k) {
      std::complex<double> sum = 0;
      for (int f = 0; f < kFrames; ++f)
        sum += (frames[static_cast<std::size_t>(f)][pixel] - mean) *
               std::polar(1.0, -2 * std::numbers::pi * k * f / kFrames);
      if (std::abs(sum) < 1e-6 * mean * kFrames) continue;
      slowest = std::min(slowest, k / 2.0);
      break;
    }
  }
  return slowest;
}

/// Correlation of neighbours in data order within a frame.
double correlation(Piece& piece, double light) {
  double sum = 0, squares = 0;
  for (int f = 0; f < 8; ++f) {
    const auto shown = piece.next(light);
    const double mean = meanOf(shown);
    for (std::size_t i = 0; i + 1 < shown.size(); ++i) {
      sum += (shown[i] - mean) * (shown[i + 1] - mean);
      squares += (shown[i] - mean) * (shown[i] - mean);
    }
  }
  return squares > 0 ? sum / squares : 0;
}

}  // namespace

void reportDimLight() {
  const LightTable table(
      "Dim light: a fade from dark to 2 % in 10 s, and light that stands between 0 and 2 %",
      {"piece", "strip", "first light after", "levels of 100", "largest error of the mean",
       "slowest blinking", "neighbours' correlation"});
  GridShape matrix{48, 16};
  for (const Way& way : {Way{"8 bit, response 1", 1, 8}, Way{"8 bit, response 2.2", 2.2, 8},
                         Way{"16 bit, response 1", 1, 16}, Way{"16 bit, response 2.2", 2.2, 16}}) {
    const auto print = [&](const char* name, const Shape& shape) {
      Piece piece(shape, way);
      const FadeFigures fade = fadeFigures(piece);
      double slowest = 1e9, alike = 0;
      constexpr int kLevels = 12;
      for (int i = 1; i <= kLevels; ++i) {
        slowest = std::min(slowest, slowest_hz(piece, kFull * (i - 0.37) / kLevels));
        alike += correlation(piece, kFull * (i - 0.37) / kLevels) / kLevels;
      }
      table.row({name, way.name, format("%.1f s", fade.first_s), std::to_string(fade.levels),
                 format("%.2f %% of 2 %%", fade.worst * 100),
                 slowest < 1e8 ? format("%.1f Hz", slowest) : std::string("none"), format("%.2f", alike)});
    };
    print("line of 160", LineShape{160, 0.01});
    print("matrix 48 × 16", matrix);
  }
}

void reportFades() {
  const LightTable table("Fades and the master, half way",
                         {"even", "light", "lightness L*", "largest deviation of L* from a straight line"});
  for (const auto& [name, evenness] :
       {std::pair("to the eye", Evenness::ToTheEye), std::pair("in light", Evenness::InLight)}) {
    double worst = 0;
    for (int i = 0; i <= 100; ++i) {
      const float level = static_cast<float>(i) / 100;
      worst = std::max(
          worst, std::abs(static_cast<double>(lightnessOf(lightOfLevel(evenness, level)) - level) * 100));
    }
    const float half = lightOfLevel(evenness, 0.5f);
    table.row({name, format("%.3f", static_cast<double>(half)),
               format("%.1f", static_cast<double>(lightnessOf(half)) * 100), format("%.1f", worst)});
  }
}

}  // namespace chispa::bench
