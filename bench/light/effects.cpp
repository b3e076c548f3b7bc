// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <functional>

#include "../report.h"
#include "effectrun.h"
#include "lightreport.h"

#include "core/check/flashes.h"
#include "core/render/renderer.h"

namespace chispa::bench {
namespace {

constexpr int kFps = 40;

float luminance(const LightBuffer& light, std::size_t i) {
  return 0.2126f * light.r[i] + 0.7152f * light.g[i] + 0.0722f * light.b[i];
}

struct Figures {
  double lit = 0;
  /// Of all changes of light, the part made of jumps over half of a cell's own range within a frame.
  double steps = 0;
  /// How different neighbours are over the seam, of how different they are elsewhere.
  double seam = 0;
  int flashes = 0;
};

Figures figuresOf(const Effect& effect, const ZoneCells& cells) {
  EffectRun trial(effect, cells);
  const auto count = static_cast<std::size_t>(cells.count());
  const int frames = static_cast<int>(kEffectLength_s * kFps);
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
  const auto all = lightPieces();
  for (const LightPiece& piece : all)
    titles.push_back(std::string(piece.name) + ": lit / in steps" +
                     (piece.cells.count() == 24 ? " / seam" : ""));
  titles.push_back("flashes a second");
  const LightTable table("Effects as they come from the shelf, 8 s at 40 frames a second", titles);
  for (const Effect& effect : effects()) {
    std::vector<std::string> row{effect.name};
    int flashes = 0;
    for (const LightPiece& piece : all) {
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
