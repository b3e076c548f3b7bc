// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/render/compiled.h"
#include "core/render/livestate.h"

namespace chispa {

/// Computes light. Holds only scratch space: the frame at `t` depends on the score and `t` alone, so that
/// scrubbing, playing and exporting give the same frame, bit for bit. One thread at a time.
class Renderer {
 public:
  /// Cells of a large zone worked out at a time, so that their layers stay in the second-level cache from one
  /// to the next.
  static constexpr std::size_t kTile = 4096;

  Renderer();

  /// Makes room for zones of `cells` cells; with the largest of a show, render() allocates nothing.
  void prepare(std::size_t cells);
  void prepare(const CompiledShow& show) { prepare(show.maxCells); }
  /// True if a clip lights each range of its zone's cells without the others. The places of a plane are known
  /// of all at once only.
  static bool canBeTiled(const CompiledClip& clip) noexcept;

  /// Light of `score` at `t` into `frame`, which has a place for each of the show's pixels. Dark beyond the
  /// end.
  void render(const CompiledScore& score, Micros t, PixelFrame& frame) noexcept;

  /// Light of clips of one zone, lowest layer first, into zoneLight(). `score` gives grid and music, and the
  /// other zones that clips may show. Room must have been made.
  void renderClips(const CompiledScore& score, std::span<const CompiledClip> clips, const ZoneCells& cells,
                   Micros t) noexcept;
  /// Lays what is played by hand on the light that is in `frame`: looks, the earliest first; then the levels
  /// of zones; then desks. `playing` gives the music, or is null; `position` is where it is. `desk` has a
  /// place for each universe that the show listens to.
  void renderLive(const CompiledShow& show, const CompiledScore* playing, Micros position,
                  const LiveState& state, const LiveInstant& now, std::span<const DeskValues> desk,
                  PixelFrame& frame) noexcept;

  const LightBuffer& zoneLight() const { return scratch_[0].zone; }

 private:
  friend class CrewRenderer;
  /// When a look's layers are, in place of a score's time.
  struct LayerTime {
    const LiveState* state;
    Micros now;
    double elapsed_s;
    double beats;
    double bars;
    float presence;
  };
  /// What the clips of the present instant have in common.
  struct Instant {
    Micros t;
    double beat;
    double bar;
    double beatInBar;
    double beatsOfBar;
    /// Of the music's section; nothing where it has none.
    std::optional<double> section;
    float level;
    std::array<float, kBands> bands;
    /// For the layers of looks.
    const LayerTime* layer = nullptr;
  };
  /// Room for one zone; a second one serves the zone that an echo shows.
  struct Scratch {
    LightBuffer clip;
    LightBuffer before;
    LightBuffer zone;
    std::vector<float> place;
    ParamPack params;
  };
  static constexpr std::size_t kDepths = 2;

  static Instant instantAt(const CompiledScore& score, Micros t) noexcept;
  /// True if all that play at `t` can be tiled.
  static bool canTile(std::span<const CompiledClip> clips, Micros t) noexcept;
  static bool isLit(const CompiledStave& stave, Micros t) noexcept;
  /// All of a stave, or some of its cells, onto what lies below in `frame`.
  void renderStave(const CompiledScore& score, const CompiledStave& stave, const Instant& now,
                   PixelFrame& frame) noexcept;
  void renderTile(const CompiledScore& score, const CompiledStave& stave, const CellRange& range,
                  const Instant& now, PixelFrame& frame) noexcept;
  /// The same where nothing lies below, on a plain zone: what stands on its pixels is written over.
  void renderFirstTile(const CompiledScore& score, const CompiledStave& stave, const CellRange& range,
                       const Instant& now, PixelFrame& frame) noexcept;
  /// The light of `range` of the zone into the first of the depth's `zone`; false if no clip plays, and
  /// nothing is written. With `below`, clips that do not just cover what lies below act on those pixels, and
  /// what they have acted on is written there; what is left in `zone` is to be laid on it.
  bool renderZone(const CompiledScore& score, std::span<const CompiledClip> clips, const ZoneCells& cells,
                  const CellRange& range, const Instant& now, std::size_t depth,
                  PixelFrame* below = nullptr) noexcept;
  /// One layer, the clip `i` with the one that it takes over from, into the depth's `clip`; returns how
  /// present it is, 0–1.
  float renderLayer(const CompiledScore& score, std::span<const CompiledClip> clips, std::size_t i,
                    float taken, const ZoneCells& cells, const CellRange& range, const Instant& now,
                    std::size_t depth) noexcept;
  /// Runs the effect for `range` into the first of the depth's `clip`; returns how present the clip is, 0–1.
  float runEffect(const CompiledScore& score, const CompiledClip& clip, const ZoneCells& cells,
                  const CellRange& range, const Instant& now, std::size_t depth) noexcept;
  /// Bars of its own since the clip began.
  static double barsOf(const CompiledScore& score, const CompiledClip& clip, const Instant& now) noexcept;
  static void setTime(const CompiledScore& score, const CompiledClip& clip, const Instant& now,
                      EffectInput& in) noexcept;
  /// What moves a clip besides the numbers of its effect.
  struct Moved {
    float strength = 1;
    /// How far the palette is turned, where something moves that.
    std::optional<double> palettePlace;

    /// Takes the value of what moves: a CompiledMotion::param.
    void set(std::size_t param, double value, ParamPack& params) noexcept;
  };
  static void applyAdjust(const CompiledAdjust& adjust, const Instant& now, Moved& moved,
                          ParamPack& params) noexcept;
  /// One zone of a look that passes from the layers `from` to the layers `to`.
  void renderLook(const CompiledScore& score, const CompiledStave* from, const CompiledStave* to, float share,
                  const Instant& now, PixelFrame& frame) noexcept;
  /// A layer that passes from one clip to another, or from or to none, into the depth's `clip`; `share` 0–1
  /// is what `to` has of it. Returns how present it is.
  float renderPassing(const CompiledScore& score, const CompiledClip* from, const CompiledClip* to,
                      float share, const ZoneCells& cells, const CellRange& range, const Instant& now,
                      std::size_t depth) noexcept;
  void renderDesk(const CompiledShow& show, const LiveInstant& now, std::span<const DeskValues> desk,
                  PixelFrame& frame) noexcept;
  Moved applyMotions(const CompiledScore& score, const CompiledClip& clip, const Instant& now,
                     ParamPack& params) noexcept;
  std::span<const float> placesOf(const CompiledClip& clip, const ParamPack& params, const ZoneCells& cells,
                                  std::vector<float>& room) noexcept;
  OtherLight otherLight(const CompiledScore& score, const CompiledClip& clip, const ParamPack& params,
                        const Instant& now, std::size_t depth) noexcept;

  std::array<Scratch, kDepths> scratch_;
  std::size_t cells_ = 0;
};

/// True if a score draws the clip at `t` by itself, not with the one that takes over from it.
bool isShown(const CompiledClip& clip, Micros t) noexcept;

/// The axis that a clip runs through on `cells`: what would stand still where there are no rows or no columns
/// runs along the zone.
Axis axisOf(const CompiledClip& clip, const ParamPack& params, const ZoneCells& cells) noexcept;

/// 0–1: how far a clip is faded in at `t`, and not yet out, without its strength.
float fadeAt(const CompiledClip& clip, Micros t) noexcept;

}  // namespace chispa
