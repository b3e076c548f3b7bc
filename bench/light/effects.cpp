// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <functional>

#include "../report.h"
#include "carousel/carousel.h"
#include "effecttrial.h"
#include "lightreport.h"

#include "core/check/flashes.h"
#include "core/effect/effect.h"
#include "core/render/renderer.h"
#include "core/zone/cells.h"

namespace chispa::bench {
namespace {

constexpr int kFps = 40;
constexpr double kLength_s = 8;
constexpr double kBeat_s = 0.5;
constexpr double kBar_s = 1.5;

struct Piece {
  const char* name;
  ZoneCells cells;
};

std::vector<Piece> pieces() {
  std::vector<Piece> all;
  all.push_back({"line of 300", test::cellsFor(LineShape{300, 1 / 60.0})});
  all.push_back({"ring of 24", test::cellsFor(ArcShape{24, 0.25})});
  all.push_back({"matrix 48 × 16", test::cellsFor(GridShape{48, 16, 0.03, 0.03})});
  const Show carousel = demo::carousel();
  all.push_back(
      {"carousel", cellsOf(carousel, mapPixels(carousel), *findNamed(carousel.zones, "Everything"))});
  return all;
}

float luminance(const LightBuffer& light, std::size_t i) {
  return 0.2126f * light.r[i] + 0.7152f * light.g[i] + 0.0722f * light.b[i];
}

/// An effect as it is when it is taken from the shelf, on three quarters of a beat of music.
class Trial {
 public:
  Trial(const Effect& effect, const ZoneCells& cells)
      : effect_(effect),
        cells_(cells),
        params_(effect.params, {}),
        place_(static_cast<std::size_t>(cells.count())) {
    if (effect.prepare) prepared_ = effect.prepare(params_, {});
    light_.resize(static_cast<std::size_t>(cells.count()));
  }

  const LightBuffer& at(double t_s) {
    static const PaletteTable colours(
        {PaletteId{1}, "Trial", {{0, {255, 60, 20}}, {0.5, {255, 220, 120}}, {1, {40, 90, 255}}}});
    EffectInput in{cells_, params_, colours};
    const Axis axis = effect_.hasAcross() ? params_.axis(0) : Axis::Along;
    if (axis == Axis::Plane)
      planePlaces(cells_, params_.number(params_.count() - 2), params_.number(params_.count() - 1), place_);
    in.place = axis == Axis::Plane ? std::span<const float>(place_) : cells_.along(axis);
    in.prepared = prepared_.get();
    in.seed = 5;
    in.t_s = t_s;
    in.at = micros(t_s);
    in.length_s = kLength_s;
    in.beats = t_s / kBeat_s;
    in.bars = t_s / kBar_s;
    in.beatInBar = std::fmod(in.beats, kBar_s / kBeat_s);
    // Loud on the beat, falling after it.
    in.level = static_cast<float>(0.25 + 0.6 * std::exp(-3 * (in.beats - std::floor(in.beats))));
    in.bands.fill(in.level * 0.8f);
    effect_.render(in, light_);
    return light_;
  }

 private:
  const Effect& effect_;
  const ZoneCells& cells_;
  ParamPack params_;
  std::shared_ptr<const Prepared> prepared_;
  std::vector<float> place_;
  LightBuffer light_;
};

struct Figures {
  double lit = 0;
  /// Of all changes of light, the part made of jumps over half of a cell's own range within a frame.
  double steps = 0;
  /// How different neighbours are over the seam, of how different they are elsewhere.
  double seam = 0;
  int flashes = 0;
};

Figures figuresOf(const Effect& effect, const ZoneCells& cells) {
  Trial trial(effect, cells);
  const auto count = static_cast<std::size_t>(cells.count());
  const int frames = static_cast<int>(kLength_s * kFps);
  std::vector<std::vector<float>> seen;
  FlashCounter counter(std::vector<float>(count, 1.f));
  PixelFrame frame;
  frame.resize(count);
  Figures figures;
  double lit = 0, seam = 0, inside = 0;
  for (int f = 0; f < frames; ++f) {
    const LightBuffer& light = trial.at(static_cast<double>(f) / kFps);
    auto& now = seen.emplace_back(count);
    for (std::size_t i = 0; i < count; ++i) {
      now[i] = luminance(light, i);
      lit += now[i] > 0.02f;
      frame.r[i] = light.r[i];
      frame.g[i] = light.g[i];
      frame.b[i] = light.b[i];
      if (i > 0) inside += std::abs(now[i] - now[i - 1]) / static_cast<double>(count - 1);
    }
    seam += std::abs(now.front() - now.back());
    figures.flashes = std::max(figures.flashes, counter.add(micros(static_cast<double>(f) / kFps), frame));
  }
  double jumps = 0, changes = 0;
  for (std::size_t i = 0; i < count; ++i) {
    float low = 1, high = 0;
    for (const auto& now : seen) {
      low = std::min(low, now[i]);
      high = std::max(high, now[i]);
    }
    if (high - low < 0.02f) continue;
    for (std::size_t f = 1; f < seen.size(); ++f) {
      const float change = std::abs(seen[f][i] - seen[f - 1][i]);
      changes += change;
      if (change > 0.5f * (high - low)) jumps += change;
    }
  }
  figures.lit = lit / (static_cast<double>(frames) * static_cast<double>(count));
  figures.steps = changes > 0 ? jumps / changes : 0;
  figures.seam = inside > 0 ? seam / inside : 0;
  return figures;
}

}  // namespace

void reportEffects() {
  std::vector<std::string> titles{"effect"};
  const auto all = pieces();
  for (const Piece& piece : all)
    titles.push_back(std::string(piece.name) + ": lit / in steps" +
                     (piece.cells.count() == 24 ? " / seam" : ""));
  titles.push_back("flashes a second");
  const LightTable table("Effects as they come from the shelf, 8 s at 40 frames a second", titles);
  for (const Effect& effect : effects()) {
    std::vector<std::string> row{effect.name};
    int flashes = 0;
    for (const Piece& piece : all) {
      const Figures f = figuresOf(effect, piece.cells);
      flashes = std::max(flashes, f.flashes);
      row.push_back(format("%.0f %% / %.0f %%", f.lit * 100, f.steps * 100) +
                    (piece.cells.count() == 24 ? format(" / %.1f", f.seam) : std::string()));
    }
    row.push_back(std::to_string(flashes));
    table.row(row);
  }
}

}  // namespace chispa::bench
