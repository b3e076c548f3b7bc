// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/loompower.h"

#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {

LoomPower::LoomPower(const Session& session, QObject* parent) : QObject(parent), session_(session) {
  constexpr int kNowEvery_ms = 250;
  constexpr int kSoon_ms = 400;
  now_.setInterval(kNowEvery_ms);
  connect(&now_, &QTimer::timeout, this, &LoomPower::read);
  // A drag changes the show at every step; the score is looked through when it rests.
  soon_.setSingleShot(true);
  soon_.setInterval(kSoon_ms);
  connect(&soon_, &QTimer::timeout, this, &LoomPower::lookForBrightest);
  connect(&session_.document, &Document::showChanged, this, &LoomPower::rebuild);
  connect(&session_.document, &Document::opened, this, &LoomPower::rebuild);
  connect(&session_.stage, &Stage::scoreChanged, this, &LoomPower::rebuild);
  rebuild();
}

LoomPower::~LoomPower() {
  if (cancelled_) *cancelled_ = true;
}

void LoomPower::setLoad(PowerLoad load) {
  load_ = load;
  load == PowerLoad::Now ? now_.start() : now_.stop();
  rebuild();
}

void LoomPower::rebuild() {
  chains_ = isModelled() ? powerChains(session_.show()) : std::vector<PowerChain>();
  spans_.clear();
  for (std::size_t c = 0; c < chains_.size(); ++c) {
    const PowerChain& chain = chains_[c];
    const ControllerId controller =
        session_.show().controllers[static_cast<std::size_t>(chain.controller)]->id;
    for (std::size_t n = 0; n < chain.nodes.size(); ++n) {
      if (chain.nodes[n].pixel == PowerNode::kDark) continue;
      Span& span =
          spans_.try_emplace({controller, chain.port, chain.loadOf(chain.nodes[n]).bead}, Span{c, n, 0})
              .first->second;
      ++span.count;
    }
  }
  if (cancelled_) *cancelled_ = true;
  brightest_.reset();
  if (load_ == PowerLoad::Brightest && isModelled()) soon_.start();
  read();
}

void LoomPower::lookForBrightest() {
  const auto compiled = session_.stage.compiled();
  const Score* score = session_.stage.score();
  if (!compiled || !score) return;
  cancelled_ = std::make_shared<std::atomic<bool>>(false);
  runThen(
      pools::drawing(), this,
      [compiled, id = score->id, cancelled = cancelled_] {
        return peakCurrentMoment(*compiled, id, *cancelled);
      },
      [this, cancelled = cancelled_](const PeakCurrentMoment& found) {
        if (*cancelled) return;
        brightest_ = found;
        read();
      });
}

void LoomPower::read() {
  const std::size_t supplies = session_.show().supplies.size();
  const Stage& stage = session_.stage;
  if (load_ == PowerLoad::FullWhite)
    reading_ = readFullWhite(chains_, supplies);
  else if (load_ == PowerLoad::Brightest)
    reading_ = brightest_ ? readFrame(chains_, supplies, brightest_->frame, 1) : PowerReading{};
  else
    reading_ =
        readFrame(chains_, supplies, stage.frame(),
                  stage.isLit() ? static_cast<double>(session_.stage.player().output().lightLevel()) : 0);
  lowest_.clear();
  for (std::size_t c = 0; c < reading_.states.size(); ++c) {
    const auto& volts = reading_.states[c].volts;
    if (volts.empty()) continue;
    const PowerChain& chain = chains_[c];
    const Level level{*std::min_element(volts.begin(), volts.end()), chain.volts, chain.least_v};
    const auto [known, isNew] = lowest_.try_emplace(
        {session_.show().controllers[static_cast<std::size_t>(chain.controller)]->id, chain.port}, level);
    if (!isNew && level.volts < known->second.volts) known->second = level;
  }
  emit changed();
}

const LoomPower::Span* LoomPower::spanOf(const ChainPlace& place) const {
  const auto found = spans_.find({place.controller, place.port, place.bead});
  return found == spans_.end() || found->second.chain >= reading_.states.size() ? nullptr : &found->second;
}

std::optional<LoomPower::Level> LoomPower::levelAt(const ChainPlace& place, int pixel) const {
  const Span* span = spanOf(place);
  if (!span || reading_.states[span->chain].volts.empty()) return std::nullopt;
  const auto node = span->first + static_cast<std::size_t>(std::clamp(pixel, 0, span->count - 1));
  const PowerChain& chain = chains_[span->chain];
  return Level{reading_.states[span->chain].volts[node], chain.volts, chain.least_v};
}

std::optional<LoomPower::Level> LoomPower::lowestOf(ControllerId controller, int port) const {
  const auto found = lowest_.find({controller, port});
  return found == lowest_.end() ? std::nullopt : std::optional(found->second);
}

std::optional<double> LoomPower::injection_a(const ChainPlace& place, int index) const {
  const Span* span = spanOf(place);
  if (!span) return std::nullopt;
  const PowerChain& chain = chains_[span->chain];
  for (std::size_t f = 0; f < chain.feeds.size() && f < reading_.states[span->chain].feed_a.size(); ++f)
    if (chain.feeds[f].bead == place.bead && chain.feeds[f].index == index)
      return reading_.states[span->chain].feed_a[f];
  return std::nullopt;
}

}  // namespace chispa::desk
