// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/stack.h"

#include <algorithm>

#include "core/board/condense.h"

namespace chispa::board {
namespace {

/// Light of a layer and what it covers, both multiplied by how present it is.
struct LayerTerms {
  std::array<Term, 3> light;
  Term coverage;
  Term presence;
};

class StackMaker {
 public:
  StackMaker(Graph& graph, const BoardScene& scene, const CompiledStave& stave,
             const std::vector<std::size_t>& kept, bool condenses)
      : graph_(graph),
        scene_(scene),
        stave_(stave),
        kept_(kept),
        condenses_(condenses),
        base_{zero(), zero(), zero()} {}

  StackLight make(const std::vector<std::size_t>& shown) {
    for (const std::size_t i : shown) {
      const auto layer = layerOf(i);
      if (!layer) return {std::nullopt, refusal_};
      blend(*layer, stave_.clips()[i].blend);
    }
    return {base_, {}};
  }

 private:
  Term zero() { return graph_.constant(0); }

  /// A clip with the one that it takes over from.
  std::optional<LayerTerms> layerOf(std::size_t i) {
    const CompiledClip& clip = stave_.clips()[i];
    auto after = clipLight(clip);
    if (!after || clip.crossIn.count() == 0 || scene_.isLook()) return after;
    const auto before = clipLight(stave_.clips()[i - 1]);
    if (!before) return before;
    const double cross_s = seconds(clip.crossIn);
    const Term taken = smoothed(graph_.ramp(-seconds(clip.start) / cross_s, 1 / cross_s));
    LayerTerms both;
    for (std::size_t c = 0; c < 3; ++c)
      both.light[c] =
          lower(mixTerm(before->light[c], after->light[c], taken, clip.fades), graph_.constant(1));
    // What is seen through is neither bright nor dark.
    both.coverage =
        lower(mixTerm(before->coverage, after->coverage, taken, Evenness::InLight), graph_.constant(1));
    both.presence = graph_.constant(1);
    return both;
  }

  std::optional<LayerTerms> clipLight(const CompiledClip& clip) {
    ClipTerms terms(graph_, clip, *stave_.cells, kept_, scene_.time());
    const auto said = say(terms);
    const Term presence = terms.strength() * fadeOf(clip);
    if (clip.paletteShift != 0 || clip.paletteTurns != 0 || terms.movesPalette()) {
      refusal_ = "its palette is turned";
      return std::nullopt;
    }
    if (!said || terms.refusal()) {
      refusal_ = terms.refusal().value_or("it cannot be said as a program");
      return std::nullopt;
    }
    const auto colour =
        said->colour
            ? *said->colour
            : graph_.lookUp(said->palette ? *said->palette : paletteOf(*clip.palette, said->goesRound),
                            said->place);
    LayerTerms layer;
    layer.presence = presence;
    layer.coverage = said->light * presence;
    const Term level = said->level ? said->light * *said->level : said->light;
    for (std::size_t c = 0; c < 3; ++c) layer.light[c] = colour[c] * level;
    const auto whole = layer.light;
    if (condenses_) layer.light = condensed(graph_, layer.light);
    const bool isCondensed = layer.light[0].node != whole[0].node;
    for (std::size_t c = 0; c < 3; ++c)
      layer.light[c] = isCondensed ? layer.light[c] * presence : colour[c] * (level * presence);
    return layer;
  }

  Term fadeOf(const CompiledClip& clip) {
    if (scene_.isLook()) return scene_.presence(graph_);
    Term in = graph_.constant(1), out = in;
    const auto ramp = [&](double from_s, double length_s) {
      return graph_.ramp(-from_s / length_s, 1 / length_s);
    };
    if (clip.fadeIn.count() > 0) in = ramp(seconds(clip.start), seconds(clip.fadeIn));
    if (clip.fadeOut.count() > 0) out = ramp(seconds(clip.end()), -seconds(clip.fadeOut));
    const Term share = clamped(lower(in, out));
    const auto faded = [&](bool givesWay) { return fadeTerm(clip.fadeShape, clip.fades, givesWay, share); };
    return clip.givesWay ? choose(out < in, faded(true), faded(false)) : faded(false);
  }

  static Term brightest(const std::array<Term, 3>& light) {
    return higher(light[0], higher(light[1], light[2]));
  }

  /// Nothing has been laid yet.
  bool isDark() {
    return std::all_of(base_.begin(), base_.end(), [this](Term term) { return term.node == zero().node; });
  }

  void blend(const LayerTerms& top, Blend blend) {
    const bool covers = blend != Blend::Multiply && blend != Blend::Mask && blend != Blend::CutOut;
    if (isDark()) {
      if (covers) base_ = top.light;
      return;
    }
    const Term one = graph_.constant(1);
    const Term masked = 1.0 - top.presence + lower(brightest(top.light), top.presence);
    const Term cut = lower(brightest(base_), one);
    for (std::size_t c = 0; c < 3; ++c) {
      const Term b = base_[c];
      const Term t = top.light[c];
      switch (blend) {
        case Blend::Normal:
          base_[c] = t + b * (1.0 - top.coverage);
          break;
        case Blend::Add:
          base_[c] = lower(b + t, one);
          break;
        case Blend::Lighten:
          base_[c] = higher(b, t);
          break;
        case Blend::Multiply:
          base_[c] = b * (t + 1.0 - top.coverage);
          break;
        case Blend::Screen:
          base_[c] = b + t - b * t;
          break;
        case Blend::Mask:
          base_[c] = b * masked;
          break;
        case Blend::CutOut:
          base_[c] = b + t * cut - b * top.presence;
          break;
      }
    }
  }

  Graph& graph_;
  const BoardScene& scene_;
  const CompiledStave& stave_;
  const std::vector<std::size_t>& kept_;
  bool condenses_;
  std::array<Term, 3> base_;
  std::string refusal_;
};

}  // namespace

StackLight stackLight(Graph& graph, const BoardScene& scene, const CompiledStave& stave,
                      const std::vector<std::size_t>& shown, const std::vector<std::size_t>& keptCells,
                      bool condenses) {
  return StackMaker(graph, scene, stave, keptCells, condenses).make(shown);
}

std::vector<std::size_t> shownAt(const BoardScene& scene, const CompiledStave& stave, Micros t) {
  std::vector<std::size_t> shown;
  for (std::size_t i = 0; i < stave.clips().size(); ++i)
    if (scene.isLook() ? stave.clips()[i].effect != nullptr : isShown(stave.clips()[i], t))
      shown.push_back(i);
  return shown;
}

}  // namespace chispa::board
