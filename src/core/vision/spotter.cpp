// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/spotter.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <span>

#include "core/base/median.h"
#include "core/vision/cvpicture.h"

namespace chispa::vision {
namespace {

/// Share of a step at each of its ends whose frames may show two steps at once.
constexpr double kEdge = 0.27;
/// Light that changes over a wider area than this, in picture pixels, is not an LED's.
constexpr double kWide_px = 12;
/// Two words that are read so near to each other may be one LED and a chance.
constexpr double kNearest_px = 0.4;
/// Least share of the light that changed in a round that must change as some LED's word says. Where LEDs
/// overlap no word is read; out of step hardly any is.
constexpr double kLeastRead = 0.1;
/// Frames between looks for a whole round.
constexpr std::size_t kLookEvery = 45;

/// Picture pixels that say the same word and touch each other.
struct Cluster {
  double weight = 0;
  double x = 0;
  double y = 0;
  int pixels = 0;
  double brightest = 0;
};

struct Vote {
  int x;
  int y;
  float amplitude;
};

/// Groups an LED's votes: those within two pixels of one another belong together. The heaviest comes first.
std::vector<Cluster> clustersOf(std::vector<Vote> votes) {
  std::vector<Cluster> clusters;
  std::vector<bool> taken(votes.size(), false);
  std::sort(votes.begin(), votes.end(),
            [](const Vote& a, const Vote& b) { return a.amplitude > b.amplitude; });
  for (std::size_t seed = 0; seed < votes.size(); ++seed) {
    if (taken[seed]) continue;
    Cluster cluster;
    std::vector<std::size_t> open{seed};
    taken[seed] = true;
    while (!open.empty()) {
      const Vote vote = votes[open.back()];
      open.pop_back();
      const auto weight = static_cast<double>(vote.amplitude);
      cluster.weight += weight;
      cluster.x += weight * vote.x;
      cluster.y += weight * vote.y;
      cluster.brightest = std::max(cluster.brightest, weight);
      ++cluster.pixels;
      for (std::size_t i = 0; i < votes.size(); ++i)
        if (!taken[i] && std::abs(votes[i].x - vote.x) <= 2 && std::abs(votes[i].y - vote.y) <= 2) {
          taken[i] = true;
          open.push_back(i);
        }
    }
    cluster.x /= cluster.weight;
    cluster.y /= cluster.weight;
    clusters.push_back(cluster);
  }
  std::sort(clusters.begin(), clusters.end(),
            [](const Cluster& a, const Cluster& b) { return a.weight > b.weight; });
  return clusters;
}

/// How many grey levels the places of the words changed by, on average, and what of it is noise.
struct Amplitude {
  cv::Mat mean;
  double noise = 0;
  double threshold = 0;

  bool isEmpty() const { return mean.empty(); }
};

Amplitude amplitudeOf(const std::vector<cv::Mat>& changes, const SpotterSettings& settings) {
  Amplitude amplitude;
  int places = 0;
  for (const cv::Mat& change : changes) {
    if (change.empty()) continue;
    const cv::Mat size = cv::abs(change);
    amplitude.mean = places == 0 ? size.clone() : cv::Mat(amplitude.mean + size);
    ++places;
  }
  if (places == 0) return amplitude;
  amplitude.mean /= places;
  // Most of a picture is no LED: its median is the noise.
  std::vector<double> sample;
  for (int y = 0; y < amplitude.mean.rows; y += 7)
    for (int x = 0; x < amplitude.mean.cols; x += 7)
      sample.push_back(static_cast<double>(amplitude.mean.at<float>(y, x)));
  amplitude.noise = median(sample);
  amplitude.threshold = settings.threshold > 0 ? settings.threshold : std::max(4.0, 5 * amplitude.noise);
  return amplitude;
}

/// The word that a picture pixel says, and the places of it that cannot be read.
struct PixelWord {
  std::uint64_t word = 0;
  std::uint64_t unread = 0;
};

PixelWord wordAt(const std::vector<cv::Mat>& changes, int x, int y, float least) {
  PixelWord said;
  for (std::size_t j = 0; j < changes.size(); ++j) {
    const float change = changes[j].empty() ? 0 : changes[j].at<float>(y, x);
    if (changes[j].empty() || std::abs(change) < least) said.unread |= std::uint64_t{1} << j;
    if (change > 0) said.word |= std::uint64_t{1} << j;
  }
  return said;
}

/// What the picture pixels say, LED by LED.
struct Votes {
  std::map<int, std::vector<Vote>> byLed;
  double noise = 0;
  double threshold = 0;
};

Votes collectVotes(const std::vector<cv::Mat>& changes, const BlinkCode& code,
                   const SpotterSettings& settings) {
  const Amplitude amplitude = amplitudeOf(changes, settings);
  Votes votes;
  votes.noise = amplitude.noise;
  votes.threshold = amplitude.threshold;
  for (int y = 0; y < amplitude.mean.rows; ++y)
    for (int x = 0; x < amplitude.mean.cols; ++x) {
      const float usual = amplitude.mean.at<float>(y, x);
      if (static_cast<double>(usual) < votes.threshold) continue;
      const PixelWord said = wordAt(changes, x, y, static_cast<float>(settings.contrast) * usual);
      if (const auto led = code.ledOf(said.word, said.unread)) votes.byLed[*led].push_back({x, y, usual});
    }
  return votes;
}

/// The mean light of the frames between two times; empty if there are none.
cv::Mat meanLight(std::span<const Frame> frames, const Area& area, double from_s, double to_s) {
  cv::Mat sum;
  int used = 0;
  for (const Frame& frame : frames) {
    if (frame.time_s < from_s || frame.time_s > to_s) continue;
    cv::Mat grey;
    cropped(frame.picture, area).convertTo(grey, CV_32F);
    sum = used == 0 ? grey : cv::Mat(sum + grey);
    ++used;
  }
  if (used > 1) sum /= used;
  return sum;
}

/// The change of what is small: what is wide is the room's.
cv::Mat withoutWide(const cv::Mat& change) {
  cv::Mat wide;
  cv::blur(change, wide, {static_cast<int>(2 * kWide_px + 1), static_cast<int>(2 * kWide_px + 1)});
  return change - wide;
}

/// The change of what is small between the two halves of each place of the words in one round; empty where a
/// half has no frame.
std::vector<cv::Mat> changesIn(const Round& round, std::span<const Frame> frames, const Area& area,
                               int bits) {
  std::vector<cv::Mat> changes(static_cast<std::size_t>(bits));
  for (int j = 0; j < bits; ++j) {
    cv::Mat halves[2];
    for (int half = 0; half < 2; ++half) {
      const double begin_s = round.codeBegins_s + (2 * j + half) * round.step_s;
      halves[half] =
          meanLight(frames, area, begin_s + kEdge * round.step_s, begin_s + (1 - kEdge) * round.step_s);
    }
    if (!halves[0].empty() && !halves[1].empty())
      changes[static_cast<std::size_t>(j)] = withoutWide(halves[0] - halves[1]);
  }
  return changes;
}

/// True if what blinked in a round did not blink as any word says: the light, or the camera, fell out of
/// step.
bool isMisread(const std::vector<cv::Mat>& changes, const BlinkCode& code, const SpotterSettings& settings) {
  const Amplitude amplitude = amplitudeOf(changes, settings);
  int asked = 0, read = 0;
  // Every seventh column is enough to tell.
  constexpr int kApart = 7;
  for (int y = 0; y < amplitude.mean.rows; ++y)
    for (int x = y % kApart; x < amplitude.mean.cols; x += kApart) {
      const float usual = amplitude.mean.at<float>(y, x);
      if (static_cast<double>(usual) < amplitude.threshold) continue;
      const PixelWord said = wordAt(changes, x, y, static_cast<float>(settings.contrast) * usual);
      ++asked;
      if (code.isLikeSome(said.word, said.unread)) ++read;
    }
  return read < kLeastRead * asked;
}

}  // namespace

/// The change of light between the two halves of each place, summed over rounds.
struct Spotter::Stack {
  std::vector<cv::Mat> sums;
  std::vector<int> counts;
  int rounds = 0;
  int misread = 0;
  std::size_t frames = 0;
  cv::Point corner;

  void add(const std::vector<cv::Mat>& changes) {
    for (std::size_t j = 0; j < changes.size(); ++j) {
      if (changes[j].empty()) continue;
      sums[j] = sums[j].empty() ? changes[j] : cv::Mat(sums[j] + changes[j]);
      ++counts[j];
    }
    ++rounds;
  }

  /// The mean change at each place.
  std::vector<cv::Mat> changes() const {
    std::vector<cv::Mat> all;
    for (std::size_t j = 0; j < sums.size(); ++j) {
      cv::Mat mean;
      if (counts[j] > 0) sums[j].convertTo(mean, CV_32F, 1.0 / counts[j]);
      all.push_back(mean);
    }
    return all;
  }
};

Spotter::Spotter(int leds, SpotterSettings settings)
    : code_(leds), settings_(settings), stack_(std::make_unique<Stack>()) {
  stack_->sums.resize(static_cast<std::size_t>(code_.bits()));
  stack_->counts.assign(static_cast<std::size_t>(code_.bits()), 0);
}
Spotter::~Spotter() = default;
Spotter::Spotter(Spotter&&) noexcept = default;

int Spotter::rounds() const {
  return stack_->rounds;
}

int Spotter::misreadRounds() const {
  return stack_->misread;
}

double Spotter::progress() const {
  if (held_.size() < 2) return 0;
  // A round lasts about as many frames as it has steps, times the frames a step is held.
  constexpr double kFramesOfStep = 4.5;
  return std::min(0.99, static_cast<double>(held_.size()) / (kFramesOfStep * roundSteps(code_.bits())));
}

void Spotter::add(Frame frame) {
  brightness_.add(frame.picture, settings_.area);
  held_.push_back(std::move(frame));
  if (held_.size() % kLookEvery == 0 && held_.size() > static_cast<std::size_t>(2 * roundSteps(code_.bits())))
    workIn(false);
}

void Spotter::finish() {
  workIn(true);
}

void Spotter::workIn(bool isEnd) {
  const auto rounds = findRounds(brightness_.all(), held_, code_.bits());
  double done_s = -1e18;
  for (const Round& round : rounds) {
    const auto changes = changesIn(round, held_, settings_.area, code_.bits());
    if (isMisread(changes, code_, settings_))
      ++stack_->misread;
    else
      stack_->add(changes);
    // The mark behind a round is the one before the next: it is kept.
    done_s = round.codeBegins_s + (2 * code_.bits() - 1) * round.step_s;
  }
  if (!held_.empty()) stack_->corner = rectOf(held_.front().picture, settings_.area).tl();
  const auto kept = std::find_if(held_.begin(), held_.end(),
                                 [&](const Frame& frame) { return !isEnd && frame.time_s >= done_s; });
  const auto dropped = static_cast<std::size_t>(kept - held_.begin());
  held_.erase(held_.begin(), kept);
  brightness_.drop(dropped);
  stack_->frames += dropped;
}

namespace {

/// The middle of an LED's own light near `at`: what changes as its word says, above half of its peak.
Spot middleOf(const std::vector<cv::Mat>& changes, std::uint64_t word, const Cluster& at) {
  constexpr int kReach = 5;
  const int cx = static_cast<int>(std::lround(at.x));
  const int cy = static_cast<int>(std::lround(at.y));
  constexpr int kSide = 2 * kReach + 1;
  double light[kSide][kSide] = {};
  double peak = 0;
  for (int dy = -kReach; dy <= kReach; ++dy)
    for (int dx = -kReach; dx <= kReach; ++dx) {
      double sum = 0;
      for (std::size_t j = 0; j < changes.size(); ++j) {
        const cv::Mat& change = changes[j];
        const int x = cx + dx, y = cy + dy;
        if (change.empty() || x < 0 || y < 0 || x >= change.cols || y >= change.rows) continue;
        sum += (((word >> j) & 1) != 0 ? 1 : -1) * static_cast<double>(change.at<float>(y, x));
      }
      light[dy + kReach][dx + kReach] = sum;
      if (std::abs(dx) <= 2 && std::abs(dy) <= 2) peak = std::max(peak, sum);
    }
  double weight = 0, x = 0, y = 0;
  for (int dy = -kReach; dy <= kReach; ++dy)
    for (int dx = -kReach; dx <= kReach; ++dx) {
      const double own = light[dy + kReach][dx + kReach] - 0.4 * peak;
      if (own <= 0 || dx * dx + dy * dy > kReach * kReach) continue;
      weight += own;
      x += own * (cx + dx);
      y += own * (cy + dy);
    }
  return weight > 0 ? Spot{x / weight, y / weight} : Spot{at.x, at.y};
}

void doubtTooNear(std::vector<Sighting>& all, double nearest_px) {
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = i + 1; k < all.size(); ++k) {
      if (std::hypot(all[i].spot.x - all[k].spot.x, all[i].spot.y - all[k].spot.y) >= nearest_px) continue;
      for (auto* one : {&all[i], &all[k]})
        if (one->doubt.empty()) one->doubt = "another LED was seen at the same place";
    }
}

}  // namespace

Sightings Spotter::sightings() const {
  Sightings result;
  result.rounds = stack_->rounds;
  result.frames = stack_->frames + held_.size();
  const auto changes = stack_->changes();
  const Votes votes = collectVotes(changes, code_, settings_);
  result.noise = votes.noise;
  result.threshold = votes.threshold;
  std::vector<double> brightnesses;
  for (const auto& [led, own] : votes.byLed) {
    const auto clusters = clustersOf(own);
    const Cluster& best = clusters.front();
    if (best.pixels < settings_.smallest_px ||
        (settings_.largest_px > 0 && best.pixels > settings_.largest_px))
      continue;
    Sighting sighting{led, middleOf(changes, code_.word(led), best), best.brightest, best.pixels};
    // A mirror image is dimmer than what it mirrors; of two alike nobody knows which is which.
    if (clusters.size() > 1 && clusters[1].weight > 0.5 * best.weight &&
        clusters[1].pixels >= settings_.smallest_px)
      sighting.doubt = "it was seen at two places";
    sighting.spot.x += stack_->corner.x;
    sighting.spot.y += stack_->corner.y;
    brightnesses.push_back(best.brightest);
    result.all.push_back(sighting);
  }
  const double usual = median(brightnesses);
  constexpr double kLeastShare = 0.42;
  for (Sighting& sighting : result.all)
    if (sighting.doubt.empty() && sighting.brightness < kLeastShare * usual)
      sighting.doubt = "it is much dimmer than the others, as a mirror image is";
  doubtTooNear(result.all, settings_.nearest_px > 0 ? settings_.nearest_px : kNearest_px);
  result.settle(code_.leds());
  return result;
}

}  // namespace chispa::vision
