// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <string>

#include "core/board/terms.h"
#include "core/effect/edges.h"
#include "core/render/compiled.h"

namespace chispa::board {

/// What one cell shows, said as terms: a place in a palette and how much it covers; or colours of its own.
struct CellLight {
  Term place;
  Term light;
  /// What the colour is multiplied by without covering less.
  std::optional<Term> level = {};
  bool goesRound = false;
  /// In place of the palette: linear light, not multiplied by what it covers.
  std::optional<std::array<Term, 3>> colour = {};
  /// In place of the clip's own palette.
  std::optional<BoardPalette> palette = {};
};

/// The course of time of the clips of a scene.
struct SceneTime {
  /// A look's: it never ends, beats pass evenly, and what has a beginning and an end comes round again.
  bool isLook = false;
  double beat_s = 0.5;
  int beatsOfBar = 4;
  /// A score's.
  MusicGrid grid;
};

/// The instant and the parameters of a clip as terms, for cells that lie on the board. What it cannot say it
/// refuses, with a reason.
class ClipTerms {
 public:
  /// `kept` are the cells that are wanted, in order. All must live as long.
  ClipTerms(Graph& graph, const CompiledClip& clip, const ZoneCells& cells,
            const std::vector<std::size_t>& kept, const SceneTime& time);

  Graph& graph() { return graph_; }
  const CompiledClip& clip() const { return clip_; }
  const ZoneCells& cells() const { return cells_; }
  /// As cellWidth() of effects.
  double cellWidth() const { return chispa::cellWidth(cells_, cells_.usable(clip_.params.axis(0))); }
  bool hasRows() const { return cells_.rows > 1; }
  std::uint32_t seed() const { return clip_.seed; }

  Term number(double value) { return graph_.constant(value); }
  /// A parameter, which may move.
  Term param(std::size_t i);
  /// One that shapes the program and so must stand still; else the clip is refused.
  double fixed(std::size_t i);
  int fixedChoice(std::size_t i) { return static_cast<int>(fixed(i)); }
  /// The clip's strength, which may move, without its fades.
  Term strength();
  /// Something moves the turn of its palette.
  bool movesPalette() const;

  /// Seconds, beats and bars since the clip began; beats into the bar of the music.
  Term seconds();
  Term beats();
  Term bars();
  Term beatInBar();
  /// As paceOf() of effects: how far something has come, and how fast it is on the mean.
  Term paceDone(std::size_t pace, double units, Term byMusic);
  double pacePerSecond(std::size_t pace, double units, double byMusic);
  /// Beats of the bar that the clip begins in.
  double beatsOfBar() const;
  /// How long what it runs over is, in its own seconds; and how far it is along, 0–1.
  double length_s() const;
  Term share();
  /// Seconds since the scene began.
  Term sceneSeconds() { return graph_.ramp(0, 1); }

  /// The whole number below a time, and the part behind the point. At the very instant of a step it has been
  /// taken.
  static Term stepOf(Term time);
  static Term partOf(Term time);

  /// A value for each cell that does not change, worked out here: `valueOf` takes the cell's number.
  Term cellwise(const std::function<double(std::size_t)>& valueOf);
  /// A place 0–1 along the axis of the parameter "across", as a term and for one cell.
  Term place() {
    return cellwise([this](std::size_t i) { return placeOf(i); });
  }
  double placeOf(std::size_t cell) const { return static_cast<double>(places_[cell]); }
  Term along(Axis axis);
  Term x() {
    return cellwise([this](std::size_t i) { return xOf(i); });
  }
  Term y() {
    return cellwise([this](std::size_t i) { return yOf(i); });
  }
  double xOf(std::size_t cell) const { return static_cast<double>(cells_.x[cell]); }
  double yOf(std::size_t cell) const { return static_cast<double>(cells_.y[cell]); }

  void refuse(std::string why);
  /// Edges that are hard do not fit the numbers of a board.
  void refuseIfHard(std::size_t hard);
  /// Why the clip cannot be said, if it cannot.
  const std::optional<std::string>& refusal() const { return refusal_; }

 private:
  void findPlaces();
  Term moved(const Motion& motion);
  Term alongClip();
  Term inTime(const std::function<double(Micros)>& position, double perSecond);

  Graph& graph_;
  const CompiledClip& clip_;
  const ZoneCells& cells_;
  const std::vector<std::size_t>& kept_;
  const SceneTime& time_;
  std::vector<float> places_;
  std::optional<std::string> refusal_;
};

/// The light of a clip's effect in terms, without strength and fades; nothing if it cannot be said: then
/// `clip` tells why. Twenty-nine effects can, within 6/255 of what they show in Chispa (a jump may come a
/// millisecond early or late).
std::optional<CellLight> say(ClipTerms& clip);

/// As past() of edges; `perWidth` is 1 over the width.
Term pastTerm(Term beyond, Term perWidth);

/// The light, 0–1, of a fade of that shape at `u` 0–1 of its way; see fadedLight().
Term fadeTerm(FadeShape shape, Evenness fades, bool givesWay, Term u);
/// Light that is `share` 0–1 of the way from `from` to `to`, as mixLight() has it.
Term mixTerm(Term from, Term to, Term share, Evenness fades);

/// The palette as a board looks it up.
BoardPalette paletteOf(const PaletteTable& table, bool goesRound);

/// Whether the effect `key` can ever be said in terms.
bool isSayable(const std::string& key);

}  // namespace chispa::board
