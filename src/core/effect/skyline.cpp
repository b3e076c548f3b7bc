// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <array>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Window, Gain, Shows, Band, Hard };

/// How often loudness swings where there is no music to hear.
constexpr double kSwings_hz = 0.48;

/// Loudness `ago` seconds before now.
float heard(const EffectInput& in, double ago) {
  if (!in.music) return in.level * (0.5f + 0.5f * cosineOfTurns(static_cast<float>(ago * kSwings_hz)));
  const Micros at = in.at - micros(ago);
  if (in.params.choice(Shows) == 0) return MusicFeatures::at(in.music->level, at);
  return MusicFeatures::at(in.music->bands[static_cast<std::size_t>(std::lround(in.params.number(Band))) - 1],
                           at);
}

/// What was heard, summed up from now backwards, so that the mean of any stretch is a difference of two sums.
class Heard {
 public:
  /// Of `length` seconds, in about as many steps as the zone can show.
  CHISPA_INLINED inline Heard(const EffectInput& in, double length) noexcept
      : steps_(std::clamp(4 * in.cells.count(), 256, kMaxSteps)),
        perSecond_(static_cast<float>(steps_ / length)) {
    sums_[0] = 0;
    for (int n = 0; n < steps_; ++n) {
      const float now = heard(in, length * (n + 0.5) / steps_);
      if (n == 0) newest_ = now;
      sums_[static_cast<std::size_t>(n) + 1] = sums_[static_cast<std::size_t>(n)] + now;
    }
  }
  /// The mean of `width` seconds whose middle is `ago` seconds before now; what is to come sounds as now.
  CHISPA_INLINED inline float around(float ago, float width) const noexcept {
    const float steps = width * perSecond_;
    const float from = ago * perSecond_ - steps / 2;
    return (sumUpTo(from + steps) - sumUpTo(from)) / steps;
  }

 private:
  static constexpr int kMaxSteps = 2048;

  CHISPA_INLINED inline float sumUpTo(float at) const noexcept {
    const float held = within(0, static_cast<float>(steps_) - 0.001f, at);
    const auto step = static_cast<std::int32_t>(held);
    const float before = sums_[static_cast<std::size_t>(step)];
    const float next = sums_[static_cast<std::size_t>(step) + 1];
    return before + (next - before) * (held - static_cast<float>(step)) + (at < 0 ? at * newest_ : 0.f);
  }

  int steps_;
  float perSecond_;
  float newest_ = 0;
  std::array<float, kMaxSteps + 1> sums_;
};

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double window = in.params.number(Window);
  const float gain = in.params.real(Gain);
  const bool hasRows = in.cells.rows > 1;
  const auto rows = in.cells.along(Axis::Rows);
  const float row = in.params.isOn(Hard) ? kHardEdge : static_cast<float>(cellWidth(in.cells, Axis::Rows));
  // A cell shows what was heard while the music passed through it, and while the eye takes it together.
  const double seen = in.params.isOn(Hard) ? 0 : cellWidth(in) * window + kSeenTogether_s;
  const auto shadeOf = [&](std::size_t i, float loudness) CHISPA_INLINED -> Shade {
    const float loud = lower(loudness * gain, 1.f);
    return {hasRows ? rows[i] : loud, hasRows ? past(loud - rows[i], row) : loud};
  };
  // The music of the last moments stands side by side, the newest at the end.
  if (seen <= 0)
    return shadeCells(in, out, [&](std::size_t i) -> Shade {
      return shadeOf(i, heard(in, (1 - static_cast<double>(in.place[i])) * window));
    });
  const Heard before(in, window + seen);
  shadeCells(in, out, [&](std::size_t i) CHISPA_INLINED -> Shade {
    return shadeOf(i,
                   before.around((1 - in.place[i]) * static_cast<float>(window), static_cast<float>(seen)));
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
