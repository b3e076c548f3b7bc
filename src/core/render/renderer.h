// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/render/compiled.h"

namespace chispa {

/// Computes light. Holds only scratch space: the frame at `t` depends on the score and `t` alone, so that
/// scrubbing, playing and exporting give the same frame, bit for bit. One thread at a time.
class Renderer {
 public:
  /// Makes room for `show`; the only call that allocates.
  void prepare(const CompiledShow& show);

  /// Light of `score` at `t` into `frame`, which has a place for each of the show's pixels. Dark beyond the end.
  void render(const CompiledScore& score, Micros t, PixelFrame& frame) noexcept;

  /// Light of one clip on its zone's cells into clipLight(), with its fades and strength.
  void renderClip(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid,
                  const MusicFeatures* features, Micros t) noexcept;
  const LightBuffer& clipLight() const { return clip_; }

 private:
  /// What the clips of the present instant have in common.
  struct Instant {
    double beat;
    double bar;
    double beatInBar;
    float level;
    std::array<float, kBands> bands;
  };
  static Instant instantAt(const MusicGrid& grid, const MusicFeatures* features, Micros t);
  void runEffect(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid, const Instant& now,
                 Micros t) noexcept;
  void renderStave(const CompiledStave& stave, const MusicGrid& grid, const Instant& now, Micros t,
                   PixelFrame& frame) noexcept;

  LightBuffer clip_;
  LightBuffer zone_;
};

/// 0–1: how far a clip is faded in at `t`, and not yet out, times its strength.
float presenceAt(const CompiledClip& clip, Micros t);

}  // namespace chispa
