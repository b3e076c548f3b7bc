// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/playededits.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/effect/effect.h"

namespace chispa {
namespace {

/// One play of a look, as its notes tell.
struct Played {
  LookId look;
  Micros from{0};
  Micros to{0};
  Micros fadeIn{0};
  Micros fadeOut{0};
  FadeShape shape = FadeShape::Even;
  bool givesWay = false;
  /// The fader where it changed, the first at `from`.
  std::vector<std::pair<Micros, float>> levels;

  bool isLevel() const { return levels.size() == 1; }
};

std::vector<Played> playsOf(std::span<const LiveNote> notes, ScoreId score, Micros end) {
  std::map<std::uint32_t, Played> open;
  std::vector<std::uint32_t> order;
  for (const LiveNote& note : notes) {
    if (note.score != score && note.kind != LiveNote::Kind::Gone) continue;
    auto found = open.find(note.serial);
    if (note.kind == LiveNote::Kind::Begun) {
      if (found != open.end()) continue;
      open[note.serial] = {note.look, note.at,    end,   note.fade,
                           Micros(0), note.shape, false, {{note.at, note.level}}};
      order.push_back(note.serial);
      continue;
    }
    if (found == open.end()) continue;
    Played& play = found->second;
    switch (note.kind) {
      case LiveNote::Kind::Faded:
        play.levels.emplace_back(note.at, note.level);
        break;
      case LiveNote::Kind::Ended:
        play.fadeOut = note.fade;
        play.givesWay = note.givesWay;
        play.to = note.at + note.fade;
        break;
      case LiveNote::Kind::Gone:
        // It was cut short: the score jumped or ended.
        play.to = std::min(play.to, std::max(note.at, play.from));
        break;
      case LiveNote::Kind::Begun:
        break;
    }
  }
  std::vector<Played> plays;
  for (const std::uint32_t serial : order)
    if (open[serial].to > open[serial].from) plays.push_back(std::move(open[serial]));
  return plays;
}

/// A stretch of a play in which one step is lit; `into` of it passes from the step before.
struct Stretch {
  std::size_t step = 0;
  Micros from{0};
  Micros to{0};
  Micros into{0};
};

constexpr std::size_t kMaxStretches = 10'000;

std::vector<Stretch> stretchesOf(const Look& look, const Played& play) {
  const Micros round = roundOf(look);
  if (round.count() <= 0) return {{0, play.from, play.to, Micros(0)}};
  std::vector<Stretch> all;
  Micros at = play.from;
  for (int n = 0; at < play.to && all.size() < kMaxStretches; ++n) {
    if (look.rounds > 0 && n >= look.rounds) {
      all.back().to = play.to;
      break;
    }
    for (std::size_t i = 0; i < look.steps.size() && at < play.to; ++i) {
      const LookStep& step = look.steps[i];
      const bool fades = !all.empty() && (i > 0 || look.firstFades);
      all.push_back({i, at, std::min(at + step.fade + step.hold, play.to), fades ? step.fade : Micros(0)});
      at += step.fade + step.hold;
    }
  }
  // Each goes on while the next one takes over.
  for (std::size_t i = 0; i + 1 < all.size(); ++i) all[i].to = std::min(all[i].to + all[i + 1].into, play.to);
  return all;
}

/// The strength of `clip` as its look's fader moved it.
void setStrength(const Played& play, Clip& clip) {
  if (play.isLevel()) {
    clip.strength *= static_cast<double>(play.levels.front().second);
    return;
  }
  Motion motion;
  motion.low = 0;
  motion.high = clip.strength;
  const double length = std::max(1.0, static_cast<double>(clip.length.count()));
  for (const auto& [at, level] : play.levels) {
    const double share = static_cast<double>((at - clip.start).count()) / length;
    motion.points.push_back({std::clamp(share, 0.0, 1.0), static_cast<double>(level)});
  }
  clip.motions[kStrengthKey] = std::move(motion);
}

/// Curves of a layer come round; those of a clip run once over it.
void unrollCurves(Clip& clip, Micros round) {
  if (round.count() <= 0) return;
  const double rounds = seconds(clip.length) / seconds(round);
  const double begin = seconds(clip.contentOffset) / seconds(round);
  for (auto& [key, motion] : clip.motions) {
    if (motion.driver != Driver::Curve) continue;
    std::vector<CurvePoint> points;
    for (double turn = std::floor(begin); turn < begin + rounds; ++turn)
      for (const CurvePoint& point : motion.points) {
        const double at = (turn + point.at - begin) / rounds;
        if (at >= 0 && at <= 1) points.push_back({at, point.value});
      }
    if (!points.empty()) motion.points = std::move(points);
  }
}

class Writer {
 public:
  Writer(Show& show, const Score& score) : show_(show), score_(score) {
    for (const auto& clip : score.clips) over_ = std::max(over_, clip->over);
  }

  void write(const Played& play) {
    const Look* look = find(show_.looks, play.look);
    if (!look) return;
    ++over_;
    for (const Stretch& stretch : stretchesOf(*look, play)) {
      const bool isFirst = stretch.from == play.from;
      const bool isLast = stretch.to == play.to;
      int layer = 0;
      // In the order in which they are laid on each other.
      std::vector<std::shared_ptr<const Clip>> layers = look->steps[stretch.step].layers;
      std::stable_sort(layers.begin(), layers.end(),
                       [](const auto& a, const auto& b) { return a->layer < b->layer; });
      for (const auto& one : layers) {
        Clip clip = *one;
        clip.layer = kFirstLayer + layer++;
        clip.over = over_;
        clip.start = stretch.from;
        clip.length = stretch.to - stretch.from;
        clip.contentOffset += Micros(
            static_cast<std::int64_t>(static_cast<double>((stretch.from - play.from).count()) * clip.speed));
        clip.fadeIn = isFirst ? play.fadeIn : Micros(0);
        clip.fadeOut = isLast ? play.fadeOut : Micros(0);
        clip.fadeShape = play.shape;
        clip.givesWay = isLast && play.givesWay;
        const Micros round = one->whole.count() > 0 ? one->whole : one->length;
        unrollCurves(clip, round);
        setStrength(play, clip);
        const Effect* effect = findEffect(clip.effect);
        if (effect && effect->isWhole && round.count() > 0)
          writeRounds(clip, round);
        else
          add(clip);
      }
    }
  }

  std::vector<ClipId> finish() && {
    for (const auto& clip : score_.clips)
      if (std::find(score_.staves.begin(), score_.staves.end(), clip->zone) == score_.staves.end())
        score_.staves.push_back(clip->zone);
    put(show_.scores, std::move(score_));
    return std::move(added_);
  }

 private:
  /// Above what the stave has already; they lie over all staves anyway.
  static constexpr int kFirstLayer = 0;

  void add(Clip clip) {
    clip.id = show_.newId<ClipId>();
    added_.push_back(clip.id);
    score_.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
  }

  /// What has a beginning and an end is a clip a round.
  void writeRounds(const Clip& whole, Micros round) {
    const Micros own(static_cast<std::int64_t>(static_cast<double>(round.count()) / whole.speed));
    Micros gone =
        whole.contentOffset.count() > 0 ? Micros(whole.contentOffset.count() % round.count()) : Micros(0);
    for (Micros at = whole.start; at < whole.end();) {
      Clip clip = whole;
      clip.start = at;
      clip.contentOffset = gone;
      clip.whole = round;
      const Micros left(static_cast<std::int64_t>(static_cast<double>((round - gone).count()) / whole.speed));
      clip.length = std::min(gone.count() > 0 ? left : own, whole.end() - at);
      if (at > whole.start) clip.fadeIn = Micros(0);
      if (clip.end() < whole.end()) clip.fadeOut = Micros(0);
      at = clip.end();
      gone = Micros(0);
      if (clip.length.count() <= 0) break;
      add(std::move(clip));
    }
  }

  Show& show_;
  Score score_;
  std::vector<ClipId> added_;
  int over_ = 0;
};

}  // namespace

std::vector<ClipId> writePlayed(Show& show, ScoreId score, std::span<const LiveNote> notes, Micros end) {
  const Score* found = find(show.scores, score);
  if (!found) return {};
  Writer writer(show, *found);
  for (const Played& play : playsOf(notes, score, std::min(end, found->length))) writer.write(play);
  return std::move(writer).finish();
}

}  // namespace chispa
