// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/powernet.h"

#include <algorithm>

#include "core/shape/strippieces.h"
#include "core/wire/wiresettings.h"
#include "core/zone/pixelmap.h"

namespace chispa {
namespace {

/// Resistivity of copper at 20 °C, in Ω·mm²/m.
constexpr double kCopper = 0.0175;
/// What terminals and solder joints of a feed add.
constexpr double kJoints_ohm = 0.005;
constexpr double kLeast_ohm = 1e-6;

double wireOhms(const Injection& injection) {
  return kJoints_ohm + 2 * kCopper * injection.wire_m / std::max(0.01, injection.wire_mm2);
}

class ChainMaker {
 public:
  explicit ChainMaker(const Show& show) : show_(show), ranges_(pixelRanges(show)) {}

  std::vector<PowerChain> take() && { return std::move(chains_); }

  void addPort(int controller, int index, const Port& port) {
    open_ = false;
    for (std::size_t b = 0; b < port.run.size(); ++b) addBead(controller, index, port, static_cast<int>(b));
  }

 private:
  void addBead(int controller, int portIndex, const Port& port, int index) {
    const Bead& bead = port.run[static_cast<std::size_t>(index)];
    const Fixture* fixture = find(show_.fixtures, bead.fixture);
    if (!fixture) return;
    const StripType& strip = stripTypeOf(show_, *fixture);
    if (!open_ || chains_.back().volts != strip.volts) {
      chains_.push_back({controller, portIndex, strip.volts, strip.leastVolts(), {}, {}, {}});
      open_ = true;
    }
    PowerChain& chain = chains_.back();
    chain.least_v = std::max(chain.least_v, strip.leastVolts());
    const ResolvedWire wire = resolveWire(strip, *fixture, port.settings, bead.settings);
    PowerNode node{PowerNode::kDark, static_cast<std::uint32_t>(chain.loads.size()),
                   std::max(kLeast_ohm, strip.ohmsPerMetre / std::max(0.01, strip.pixelsPerMetre))};
    chain.loads.push_back(
        {index, strip.channel_ma * 1e-3 * wire.brightness, strip.fullChannels(), strip.mix()});
    const std::vector<double> ohms = ohmsOfPixels(strip, *fixture);
    for (int i = 0; i < bead.skippedBefore; ++i) chain.nodes.push_back(node);
    const auto range = ranges_.at(bead.fixture);
    const int first = std::clamp(bead.first, 0, range.count);
    const int count = std::clamp(bead.count, 0, range.count - first);
    const std::size_t head = chain.nodes.size();
    for (const WireStretch& stretch : wireStretches(first, count, bead.reversed, wire.zigzag))
      for (int i = 0; i < stretch.count; ++i) {
        const int own = stretch.first + i * stretch.step;
        node.pixel = range.first + own;
        node.ohmsBefore = ohms[static_cast<std::size_t>(own)];
        chain.nodes.push_back(node);
      }
    if (count > 0) addFeeds(chain, bead, index, head, count);
  }

  /// The copper before each pixel of a fixture.
  static std::vector<double> ohmsOfPixels(const StripType& strip, const Fixture& fixture) {
    std::vector<double> ohms;
    const auto pitches = copperPitches_m(strip, fixture);
    for (std::size_t s = 0; s < pitches.size(); ++s)
      ohms.insert(ohms.end(), static_cast<std::size_t>(pixelCount(fixture.segments[s])),
                  std::max(kLeast_ohm, strip.ohmsPerMetre * pitches[s]));
    return ohms;
  }

  void addFeeds(PowerChain& chain, const Bead& bead, int index, std::size_t head, int count) {
    for (std::size_t i = 0; i < bead.injections.size(); ++i) {
      const Injection& injection = bead.injections[i];
      const auto supply = std::find_if(show_.supplies.begin(), show_.supplies.end(),
                                       [&](const auto& s) { return s->id == injection.supply; });
      if (supply == show_.supplies.end()) continue;
      chain.feeds.push_back({head + static_cast<std::size_t>(std::clamp(injection.pixel, 0, count - 1)),
                             static_cast<int>(supply - show_.supplies.begin()), (*supply)->volts,
                             wireOhms(injection), injection.fuse_a, injection.wire_mm2, index,
                             static_cast<int>(i)});
    }
  }

  const Show& show_;
  std::unordered_map<FixtureId, PixelMap::Range> ranges_;
  std::vector<PowerChain> chains_;
  bool open_ = false;
};

/// Solves the chain's conductance matrix for a right-hand side, which becomes the solution.
void solveLadder(const PowerChain& chain, std::vector<double>& right) {
  const std::size_t n = chain.nodes.size();
  std::vector<double> diagonal(n, 0);
  for (std::size_t i = 1; i < n; ++i) {
    const double g = 1 / chain.nodes[i].ohmsBefore;
    diagonal[i] += g;
    diagonal[i - 1] += g;
  }
  for (const PowerFeed& feed : chain.feeds) diagonal[feed.node] += 1 / feed.ohms;
  for (std::size_t i = 1; i < n; ++i) {
    const double g = 1 / chain.nodes[i].ohmsBefore;
    const double share = g / diagonal[i - 1];
    diagonal[i] -= g * share;
    right[i] += right[i - 1] * share;
  }
  right[n - 1] /= diagonal[n - 1];
  for (std::size_t i = n - 1; i-- > 0;)
    right[i] = (right[i] + right[i + 1] / chain.nodes[i + 1].ohmsBefore) / diagonal[i];
}

template <class Load>
PowerReading read(std::span<const PowerChain> chains, std::size_t supplies, Load load) {
  PowerReading reading{{}, std::vector<double>(supplies, 0)};
  for (const PowerChain& chain : chains) {
    reading.states.push_back(solve(chain, load(chain)));
    for (std::size_t f = 0; f < chain.feeds.size(); ++f)
      reading.supply_a[static_cast<std::size_t>(chain.feeds[f].supply)] += reading.states.back().feed_a[f];
  }
  return reading;
}

}  // namespace

std::vector<double> copperPitches_m(const StripType& strip, const Fixture& fixture) {
  std::vector<double> pitches;
  const double reel_m = 1 / strip.pixelsPerMetre;
  for (const Segment& segment : fixture.segments) {
    double length_m = 0;
    int pixels = 0;
    for (const StripPiece& piece : stripPiecesOf(segment.shape)) {
      length_m += piece.length_m;
      pixels += piece.pixels;
    }
    const double apart_m = pixels > 1 ? length_m / pixels : reel_m;
    pitches.push_back(strip.build == StripBuild::Reel ? std::max(reel_m, apart_m) : apart_m);
  }
  return pitches;
}

std::vector<PowerChain> powerChains(const Show& show) {
  ChainMaker maker(show);
  for (std::size_t c = 0; c < show.controllers.size(); ++c)
    for (std::size_t p = 0; p < show.controllers[c]->ports.size(); ++p)
      maker.addPort(static_cast<int>(c), static_cast<int>(p), show.controllers[c]->ports[p]);
  return std::move(maker).take();
}

std::vector<double> fullWhite_a(const PowerChain& chain) {
  std::vector<double> amps;
  amps.reserve(chain.nodes.size());
  for (const PowerNode& node : chain.nodes) {
    const PixelLoad& load = chain.loadOf(node);
    amps.push_back(node.pixel == PowerNode::kDark ? 0 : load.channel_a * load.fullChannels);
  }
  return amps;
}

std::vector<double> frame_a(const PowerChain& chain, const PixelFrame& frame, double master) {
  std::vector<double> amps(chain.nodes.size(), 0);
  for (std::size_t i = 0; i < amps.size(); ++i) {
    const PowerNode& node = chain.nodes[i];
    const auto pixel = static_cast<std::size_t>(node.pixel);
    if (node.pixel == PowerNode::kDark || pixel >= frame.size()) continue;
    const PixelLoad& load = chain.loadOf(node);
    amps[i] = load.channel_a * master * load.mix.channelsLit(frame.r[pixel], frame.g[pixel], frame.b[pixel]);
  }
  return amps;
}

ChainState solve(const PowerChain& chain, std::span<const double> node_a) {
  if (chain.feeds.empty() || chain.nodes.empty()) return {};
  ChainState state;
  state.volts.resize(chain.nodes.size());
  std::transform(node_a.begin(), node_a.end(), state.volts.begin(), [](double a) { return -a; });
  for (const PowerFeed& feed : chain.feeds) state.volts[feed.node] += feed.volts / feed.ohms;
  solveLadder(chain, state.volts);
  for (const PowerFeed& feed : chain.feeds)
    state.feed_a.push_back((feed.volts - state.volts[feed.node]) / feed.ohms);
  return state;
}

std::vector<double> shareOf(const PowerChain& chain, int supply) {
  std::vector<double> share(chain.nodes.size(), 0);
  if (chain.feeds.empty() || chain.nodes.empty()) return share;
  for (const PowerFeed& feed : chain.feeds)
    if (feed.supply == supply) share[feed.node] += 1 / feed.ohms;
  // The matrix is symmetric: what a unit of current at a node draws from a feed is the feed's answer at the
  // node.
  solveLadder(chain, share);
  return share;
}

PowerReading readFullWhite(std::span<const PowerChain> chains, std::size_t supplies) {
  return read(chains, supplies, [](const PowerChain& chain) { return fullWhite_a(chain); });
}

PowerReading readFrame(std::span<const PowerChain> chains, std::size_t supplies, const PixelFrame& frame,
                       double master) {
  return read(chains, supplies, [&](const PowerChain& chain) { return frame_a(chain, frame, master); });
}

}  // namespace chispa
