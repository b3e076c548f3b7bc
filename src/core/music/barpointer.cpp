// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/barpointer.h"

#include <algorithm>
#include <array>
#include <bitset>
#include <cmath>
#include <cstdint>
#include <deque>
#include <limits>

namespace chispa {
namespace {

constexpr int kPointerRate = RhythmInput::kRate;
constexpr int kShortest = kPointerRate * 60 / 260;
constexpr int kLongest = kPointerRate * 60 / 38;
constexpr int kPeriods = kLongest - kShortest + 1;
constexpr std::array kMetres = {2, 3, 4, 5, 6, 7};
constexpr int kMetreCount = static_cast<int>(kMetres.size());
/// Places of all metres, one after the other.
constexpr int kPlaces = 2 + 3 + 4 + 5 + 6 + 7;
constexpr float kNever = -1e30f;

constexpr std::array<int, kMetreCount> firstPlaces() {
  std::array<int, kMetreCount> firsts{};
  for (int m = 1; m < kMetreCount; ++m)
    firsts[static_cast<std::size_t>(m)] =
        firsts[static_cast<std::size_t>(m - 1)] + kMetres[static_cast<std::size_t>(m - 1)];
  return firsts;
}
constexpr std::array<int, kMetreCount> kFirstPlaces = firstPlaces();

int firstPlace(int metre) {
  return kFirstPlaces[static_cast<std::size_t>(metre)];
}
int lastPlace(int metre) {
  return firstPlace(metre) + kMetres[static_cast<std::size_t>(metre)] - 1;
}
int metreOf(int place) {
  int metre = kMetreCount - 1;
  while (firstPlace(metre) > place) --metre;
  return metre;
}

/// Scores by period.
using Row = std::array<float, kPeriods>;
using Numbers = std::array<std::uint8_t, kPeriods>;

/// What is remembered of a frame for the way back.
struct Trace {
  /// The period before this beat, by its place and by the period that follows.
  std::array<Numbers, kPlaces> before;
  /// The metre of the bar before, by metre and period; kFromRest where there was a rest.
  std::array<Numbers, kMetreCount> metreBefore;
  /// A beat at this place and period came out of a rest.
  std::array<std::bitset<kPeriods>, kPlaces> isFromRest;
  /// The rest that lasts here began with this beat.
  bool restBegins = false;
  std::uint8_t restPlace = 0;
  std::uint8_t restPeriod = 0;
};

class BarPointer {
 public:
  BarPointer(const BeatChances& chances, const MetreModel& model) : chances_(chances), model_(model) {
    const std::size_t count = chances.beat.size();
    quiet_.assign(count + 1, 0);
    for (std::size_t i = 0; i < count; ++i)
      quiet_[i + 1] = quiet_[i] + model.beatWeight * std::log(1 - chanceAt(i));
    const double usual = std::log2(model.likelyTempo_bpm);
    for (int p = 0; p < kPeriods; ++p) {
      const double off = std::log2(60.0 * kPointerRate / (kShortest + p)) - usual;
      favours_[static_cast<std::size_t>(p)] =
          static_cast<float>(-static_cast<double>(model.usualTempo) * off * off);
    }
  }

  std::vector<PlacedBeat> run() {
    leaving_.resize(kLongest + 1);
    for (std::size_t frame = 0; frame < chances_.beat.size(); ++frame) {
      traces_.emplace_back();
      step(frame);
      if (traces_.size() > kHeld) commit(frame);
    }
    std::vector<PlacedBeat> rest = wayBack(chances_.beat.size() - 1);
    decided_.insert(decided_.end(), rest.begin(), rest.end());
    return std::move(decided_);
  }

 private:
  /// Frames of which the way back is held; about eight minutes, and how many of them stay open.
  static constexpr std::size_t kHeld = 24'000;
  static constexpr std::size_t kOpen = 4'000;

  float chanceAt(std::size_t frame) const {
    return std::clamp(chances_.beat[frame], model_.least, 1 - model_.least);
  }
  Trace& trace(std::size_t frame) { return traces_[frame - dropped_]; }

  /// Log likelihood that no beat falls after frame `from` and before frame `to`; next to beats it does not
  /// count.
  float quietBetween(std::size_t from, std::size_t to) const {
    const std::size_t low = std::min(from + 2, quiet_.size() - 1);
    const std::size_t high = std::max(low, to > 0 ? to - 1 : 0);
    return quiet_[high] - quiet_[low];
  }

  void step(std::size_t frame) {
    const float heard = model_.beatWeight * std::log(chanceAt(frame));
    const float isFirst = std::clamp(chances_.first[frame] / std::max(chanceAt(frame), 0.02f), 0.02f, 0.98f);
    const float first = heard + model_.firstWeight * std::log(isFirst);
    const float other = heard + model_.firstWeight * std::log(1 - isFirst);
    Trace& now = trace(frame);
    lookBack(frame);
    for (int metre = 0; metre < kMetreCount; ++metre)
      for (int place = firstPlace(metre); place <= lastPlace(metre); ++place)
        arrive(frame, metre, place, place == firstPlace(metre) ? first : other, now);
    restOn(frame, now);
    auto& leaving = leaving_[frame % leaving_.size()];
    for (int place = 0; place < kPlaces; ++place) leave(place, leaving, now);
  }

  /// Scores of a beat on `frame` at `place`, by the period that led to it.
  void arrive(std::size_t frame, int metre, int place, float heard, Trace& now) {
    Row& scores = scores_[static_cast<std::size_t>(place)];
    auto& fromRest = now.isFromRest[static_cast<std::size_t>(place)];
    const bool isFirst = place == firstPlace(metre);
    // A piece, or what follows a rest, may begin within a bar.
    constexpr float kWithinBar = 2.5f;
    const float begin = rest_ - (isFirst ? 0 : kWithinBar) - (frame == 0 ? 0 : model_.rest * 0.25f);
    for (int p = 0; p < kPeriods; ++p) {
      const auto at = static_cast<std::size_t>(p);
      const auto period = static_cast<std::size_t>(kShortest + p);
      float best = kNever;
      if (frame >= period) {
        const auto& left = leaving_[(frame - period) % leaving_.size()];
        if (isFirst) {
          // The best metre before is the same for all but its own, which costs nothing.
          best = bestBefore_[at] - model_.otherMetre;
          std::uint8_t before = bestMetreBefore_[at];
          if (const float own = left[static_cast<std::size_t>(lastPlace(metre))][at]; own >= best) {
            best = own;
            before = static_cast<std::uint8_t>(metre);
          }
          now.metreBefore[static_cast<std::size_t>(metre)][at] = before;
        } else {
          best = left[static_cast<std::size_t>(place - 1)][at];
        }
        best += quietSince_[at];
      }
      fromRest.set(at, begin > best);
      scores[at] =
          std::max(begin, best) + heard - (isFirst ? model_.metre[static_cast<std::size_t>(metre)] : 0);
    }
  }

  /// What all places ask of the beats before `frame`, by the period since.
  void lookBack(std::size_t frame) {
    for (std::size_t p = 0; p < kPeriods; ++p) {
      const std::size_t period = kShortest + p;
      if (frame < period) return;
      const auto& left = leaving_[(frame - period) % leaving_.size()];
      quietSince_[p] = quietBetween(frame - period, frame) + favours_[p];
      bestBefore_[p] = kNever;
      for (int metre = 0; metre < kMetreCount; ++metre) {
        const float score = left[static_cast<std::size_t>(lastPlace(metre))][p];
        if (score <= bestBefore_[p]) continue;
        bestBefore_[p] = score;
        bestMetreBefore_[p] = static_cast<std::uint8_t>(metre);
      }
    }
  }

  /// A rest goes on without a beat, or begins behind one.
  void restOn(std::size_t frame, Trace& now) {
    float best = kNever;
    for (int place = 0; place < kPlaces; ++place) {
      const Row& scores = scores_[static_cast<std::size_t>(place)];
      const auto most = std::max_element(scores.begin(), scores.end());
      if (*most <= best) continue;
      best = *most;
      now.restPlace = static_cast<std::uint8_t>(place);
      now.restPeriod = static_cast<std::uint8_t>(most - scores.begin());
    }
    const float goesOn = rest_ + model_.beatWeight * std::log(1 - chanceAt(frame)) - model_.resting;
    now.restBegins = best - model_.rest > goesOn;
    rest_ = std::max(goesOn, best - model_.rest);
  }

  /// What a beat of a period that follows finds: the best of the periods near it, or a leap from any.
  void leave(int place, std::array<Row, kPlaces>& leaving, Trace& now) {
    const Row& scores = scores_[static_cast<std::size_t>(place)];
    // What lies beside the first and last period is never taken, so that the loops over periods have no
    // branches.
    std::array<float, kPeriods + 2 * kReach> padded;
    padded.fill(kNever);
    std::copy(scores.begin(), scores.end(), padded.begin() + kReach);
    const auto most = std::max_element(scores.begin(), scores.end());
    Row best;
    std::array<std::int32_t, kPeriods> from;
    best.fill(*most - model_.leap);
    from.fill(static_cast<std::int32_t>(most - scores.begin()));
    for (int d = 0; d <= 2 * kReach; ++d) {
      const float* near = padded.data() + d;
      const Row& cost = drifts_[static_cast<std::size_t>(d)];
      for (int p = 0; p < kPeriods; ++p) {
        const float score = near[p] - cost[static_cast<std::size_t>(p)];
        const bool isBetter = score > best[static_cast<std::size_t>(p)];
        best[static_cast<std::size_t>(p)] = isBetter ? score : best[static_cast<std::size_t>(p)];
        from[static_cast<std::size_t>(p)] = isBetter ? p + d - kReach : from[static_cast<std::size_t>(p)];
      }
    }
    leaving[static_cast<std::size_t>(place)] = best;
    auto& before = now.before[static_cast<std::size_t>(place)];
    for (std::size_t p = 0; p < kPeriods; ++p) before[p] = static_cast<std::uint8_t>(from[p]);
  }

  /// The best course that ends at or before `frame`, back to what is decided already.
  std::vector<PlacedBeat> wayBack(std::size_t frame) {
    std::vector<PlacedBeat> beats;
    std::size_t at = frame;
    int place = -1, period = 0;
    // It ends in a rest, which is what follows the last beat.
    const auto toBeat = [&] {
      while (!trace(at).restBegins) {
        if (at == dropped_) return false;
        --at;
      }
      place = trace(at).restPlace;
      period = trace(at).restPeriod;
      return true;
    };
    if (!endsInBeat(frame, at, place, period) && !toBeat()) return beats;
    while (at >= dropped_ && (decided_.empty() || at > decided_.back().frame + 2)) {
      const int metre = metreOf(place);
      beats.push_back({at, place - firstPlace(metre), kMetres[static_cast<std::size_t>(metre)]});
      const Trace& here = trace(at);
      if (here.isFromRest[static_cast<std::size_t>(place)][static_cast<std::size_t>(period)]) {
        if (at == dropped_) break;
        --at;
        if (!toBeat()) break;
        continue;
      }
      const auto step = static_cast<std::size_t>(kShortest + period);
      const int before =
          place == firstPlace(metre)
              ? lastPlace(here.metreBefore[static_cast<std::size_t>(metre)][static_cast<std::size_t>(period)])
              : place - 1;
      if (at < dropped_ + step) break;
      at -= step;
      period = trace(at).before[static_cast<std::size_t>(before)][static_cast<std::size_t>(period)];
      place = before;
    }
    std::reverse(beats.begin(), beats.end());
    return beats;
  }

  /// The beat among the last ones that the best course ends with, unless it ends in a rest.
  bool endsInBeat(std::size_t frame, std::size_t& at, int& place, int& period) {
    float best = rest_;
    bool found = false;
    const std::size_t low = frame >= static_cast<std::size_t>(kLongest) ? frame - kLongest : 0;
    for (std::size_t t = std::max(low, dropped_); t <= frame; ++t)
      for (int s = 0; s < kPlaces; ++s) {
        const Row& left = leaving_[t % leaving_.size()][static_cast<std::size_t>(s)];
        for (int p = 0; p < kPeriods; ++p) {
          // The beat that would follow lies behind the end.
          if (t + static_cast<std::size_t>(kShortest + p) <= frame) continue;
          const float score = left[static_cast<std::size_t>(p)] + quietBetween(t, frame + 1);
          if (score <= best) continue;
          best = score;
          at = t;
          place = s;
          period = trace(t).before[static_cast<std::size_t>(s)][static_cast<std::size_t>(p)];
          found = true;
        }
      }
    return found;
  }

  /// Decides for what lies well behind, and forgets how it came to be.
  void commit(std::size_t frame) {
    for (const PlacedBeat& beat : wayBack(frame))
      if (beat.frame + kOpen < frame) decided_.push_back(beat);
    const std::size_t drop = traces_.size() - kOpen;
    traces_.erase(traces_.begin(), traces_.begin() + static_cast<std::ptrdiff_t>(drop));
    dropped_ += drop;
  }

  static constexpr int kReach = 8;
  /// By how far the period before is off, and by period.
  using Drifts = std::array<Row, 2 * kReach + 1>;
  Drifts driftCosts() const {
    Drifts costs{};
    for (int d = -kReach; d <= kReach; ++d)
      for (int p = 0; p < kPeriods; ++p) {
        // A frame more or less is what rounding makes of a steady beat.
        const auto beyond = static_cast<float>(std::max(0, std::abs(d) - 1));
        const float change =
            (beyond + 0.15f * static_cast<float>(d != 0)) / static_cast<float>(kShortest + p);
        costs[static_cast<std::size_t>(d + kReach)][static_cast<std::size_t>(p)] =
            model_.drift * change * change;
      }
    return costs;
  }

  const BeatChances& chances_;
  MetreModel model_;
  Drifts drifts_ = driftCosts();
  /// Sums of the log likelihoods that no beat falls on the frames before each.
  std::vector<float> quiet_;
  Row favours_{};
  /// See lookBack().
  Row quietSince_{}, bestBefore_{};
  std::array<std::uint8_t, kPeriods> bestMetreBefore_{};
  /// Of the frame in hand, by place.
  std::array<Row, kPlaces> scores_{};
  /// What the last frames left, by place and the period that follows.
  std::vector<std::array<Row, kPlaces>> leaving_;
  float rest_ = 0;
  std::deque<Trace> traces_;
  std::size_t dropped_ = 0;
  std::vector<PlacedBeat> decided_;
};

}  // namespace

std::vector<PlacedBeat> placeBeats(const BeatChances& chances, const MetreModel& model) {
  if (chances.beat.empty()) return {};
  return BarPointer(chances, model).run();
}

}  // namespace chispa
