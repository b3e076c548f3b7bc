// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "../report.h"
#include "carousel/carousel.h"
#include "lightreport.h"

#include "core/colour/difference.h"
#include "core/colour/palette.h"
#include "core/colour/whitepoint.h"
#include "core/files/stripkinds.h"

namespace chispa::bench {
namespace {

/// What leaves a strip of those chips when its chips are driven so.
Rgb leaving(const StripType& chips, const ChipLight& driven) {
  return chips.mix().colourOf(driven);
}

double difference(Rgb meant, Rgb seen) {
  return deltaE2000(toCieLab(meant), toCieLab(seen));
}

Rgb times(Rgb colour, float share) {
  return {colour.r * share, colour.g * share, colour.b * share};
}

struct Sum {
  double all = 0;
  int count = 0;
  void add(double value) {
    all += value;
    ++count;
  }
  double mean() const { return count > 0 ? all / count : 0; }
};

/// Colours of the demo's palettes at a third of the light, which any strip has room for.
std::vector<Rgb> demoColours() {
  std::vector<Rgb> colours;
  for (const auto& palette : demo::carousel().palettes)
    for (int i = 0; i <= 16; ++i) colours.push_back(times(colourAt(*palette, i / 16.0), 0.33f));
  return colours;
}

/// True if the chips can mix it.
bool isInGamut(const StripType& strip, Rgb colour) {
  return difference(colour, strip.mix().colours->colourOf(strip.mix().colours->chipsOf(colour))) < 0.5;
}

}  // namespace

void reportColour() {
  const LightTable table("Colour: ΔE₀₀ of what leaves the strip from what was meant",
                         {"kind of strip", "demo's colours, chips unknown", "with its chips", "in gamut",
                          "white 2,700–6,500 K, chips unknown", "with its chips", "full red, chips unknown"});
  const auto colours = demoColours();
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order.size() < 3 || !kind.strip.chips) continue;
    StripType unknown = kind.strip;
    unknown.chips.reset();
    unknown.white = {1, 1, 1};
    Sum before, after, whiteBefore, whiteAfter;
    int outside = 0;
    for (const Rgb colour : colours) {
      const bool isIn = isInGamut(kind.strip, colour);
      outside += isIn ? 0 : 1;
      // Without knowing the chips they are driven as a screen's would be.
      const auto plain = unknown.mix().light(colour.r, colour.g, colour.b);
      before.add(difference(colour, leaving(kind.strip, plain)));
      const auto known = kind.strip.mix().light(colour.r, colour.g, colour.b);
      if (isIn) after.add(difference(colour, leaving(kind.strip, known)));
    }
    for (const double kelvin : {2'700.0, 3'000.0, 4'000.0, 5'000.0, 6'500.0}) {
      const Rgb white = times(whiteOfTemperature(kelvin), 0.4f);
      whiteBefore.add(difference(white, leaving(kind.strip, unknown.mix().light(white.r, white.g, white.b))));
      whiteAfter.add(
          difference(white, leaving(kind.strip, kind.strip.mix().light(white.r, white.g, white.b))));
    }
    const Rgb red{0.33f, 0, 0};
    table.row({kind.strip.name, format("%.1f", before.mean()), format("%.2f", after.mean()),
               format("%zu of %zu", colours.size() - static_cast<std::size_t>(outside), colours.size()),
               format("%.1f", whiteBefore.mean()), format("%.2f", whiteAfter.mean()),
               format("%.1f", difference(red, leaving(kind.strip, unknown.mix().light(red.r, 0, 0))))});
  }
}

}  // namespace chispa::bench
