// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Window, Gain, Shows, Band, Hard };

/// Loudness `ago` seconds before now.
float heard(const EffectInput& in, double ago) {
  if (!in.music) return in.level * static_cast<float>(0.5 + 0.5 * std::cos(ago * 3));
  const Micros at = in.at - micros(ago);
  if (in.params.choice(Shows) == 0) return MusicFeatures::at(in.music->level, at);
  return MusicFeatures::at(in.music->bands[static_cast<std::size_t>(std::lround(in.params.number(Band))) - 1],
                           at);
}

/// The mean of what was heard in `width` seconds whose middle is `ago` seconds before now.
float heardAround(const EffectInput& in, double ago, double width) {
  constexpr int kSamples = 6;
  float sum = 0;
  for (int n = 0; n < kSamples; ++n)
    sum += heard(in, std::max(0.0, ago + width * ((n + 0.5) / kSamples - 0.5)));
  return sum / kSamples;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double window = in.params.number(Window);
  const float gain = in.params.real(Gain);
  const bool hasRows = in.cells.rows > 1;
  const auto rows = in.cells.along(Axis::Rows);
  const float row = in.params.isOn(Hard) ? kHardEdge : static_cast<float>(cellWidth(in.cells, Axis::Rows));
  // A cell shows what was heard while the music passed through it, and while the eye takes it together.
  const double seen = in.params.isOn(Hard) ? 0 : cellWidth(in) * window + kSeenTogether_s;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    // The music of the last moments stands side by side, the newest at the end.
    const double ago = (1 - static_cast<double>(in.place[i])) * window;
    const float loud = lower((seen > 0 ? heardAround(in, ago, seen) : heard(in, ago)) * gain, 1.f);
    const float lit = hasRows ? past(loud - rows[i], row) : loud;
    return {hasRows ? rows[i] : loud, lit};
  });
}

}  // namespace

Effect skyline() {
  return cellwise({
      .key = "skyline",
      .name = "Skyline",
      .summary = "What was just heard moves through the zone and away.",
      .params = across(Axis::Columns,
                       hardOrSoft({numberParam("window", "Shows", "s", 0.2, 20, 2, 0.1),
                                   numberParam("gain", "Gain", "×", 0.1, 8, 1.2, 0.1),
                                   choiceParam("shows", "Of", {{"level", "all"}, {"band", "one band"}}),
                                   numberParam("band", "Band", "", 1, kBands, 1, 1)})),
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
