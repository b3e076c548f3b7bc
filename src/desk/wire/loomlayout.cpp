// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/loomlayout.h"

#include <algorithm>
#include <cmath>

#include "core/wire/sizing.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kWidestStep = 84;
constexpr double kNarrowestStep = 46;
constexpr double kCardGap = 10;
constexpr double kMargin = 10;
constexpr double kBeadGap = 5;
constexpr double kLeastBead = 18;
/// Zooming draws chains this far apart; beyond, only along them.
constexpr double kMaxSpread = 1.6;

int longestThread(const Show& show) {
  int longest = 1;
  for (const auto& controller : show.controllers)
    for (const Port& port : controller->ports) longest = std::max(longest, chainPixels(port));
  return longest;
}

QString pieceLabel(const Show& show, FixtureId id, int first, int count) {
  const Fixture* fixture = chispa::find(show.fixtures, id);
  if (!fixture) return QStringLiteral("?");
  const QString name = text(fixture->name);
  return count == pixelCount(*fixture)
             ? name
             : QStringLiteral("%1 %2–%3").arg(name).arg(first + 1).arg(first + count);
}

}  // namespace

LoomLayout::LoomLayout(const Show& show, QSizeF size, double line, const View& view) {
  const double trayHeight = line * 2 + 44;
  tray_ = QRectF(0, size.height() - trayHeight, size.width(), trayHeight);
  beamY_ = kMargin + line * 3 + 20;
  // The longest chain fills the height between beam and tray.
  const double room = tray_.top() - beamY_ - line * 3 - 40;
  scale_ = std::clamp(room / longestThread(show), 0.02, 1.2) * view.zoom;
  chooseStep(show, size.width(), view);
  placeChains(show, line, view);
  placeTicks(show);
  placeChips(show, line, view.tray);
}

void LoomLayout::chooseStep(const Show& show, double wide, const View& view) {
  std::size_t ports = 0;
  for (const auto& controller : show.controllers)
    ports += view.folded.contains(controller->id) ? 2 : std::max<std::size_t>(1, controller->ports.size());
  const double gaps = 2 * kMargin + (kCardGap + 8) * static_cast<double>(show.controllers.size());
  step_ = std::clamp((wide - gaps) / static_cast<double>(std::max<std::size_t>(1, ports)), kNarrowestStep,
                     kWidestStep) *
          std::min(view.zoom, kMaxSpread);
}

void LoomLayout::placeChains(const Show& show, double line, const View& view) {
  double x = kMargin - view.scrolled.x();
  for (const auto& controller : show.controllers) {
    const double ports = static_cast<double>(std::max<std::size_t>(controller->ports.size(), 1));
    const bool isFolded = view.folded.contains(controller->id);
    const double wide = isFolded ? static_cast<double>(textWidth(18))
                                 : std::max(ports * step_ + 8, static_cast<double>(textWidth(18)));
    int pixels = 0;
    for (const Port& port : controller->ports) pixels += chainPixels(port);
    cards_.push_back({controller->id, QRectF(x, kMargin, wide, line * 3 + 12), isFolded,
                      static_cast<int>(controller->ports.size()), pixels});
    for (std::size_t p = 0; !isFolded && p < controller->ports.size(); ++p) {
      Chain chain;
      chain.controller = controller->id;
      chain.port = static_cast<int>(p);
      chain.x = x + 4 + step_ * (static_cast<double>(p) + 0.62);
      chain.top = beamY_ + line + 18 - view.scrolled.y();
      placeBeads(show, chain, controller->ports[p]);
      height_ = std::max(height_, chain.bottom + view.scrolled.y() - beamY_ + 3 * line);
      chains_.push_back(std::move(chain));
    }
    x += wide + kCardGap;
  }
  width_ = x + view.scrolled.x();
}

void LoomLayout::placeBeads(const Show& show, Chain& chain, const Port& port) {
  double y = chain.top;
  const double beadWidth = std::min(step_ * 0.62, 46.0);
  for (std::size_t b = 0; b < port.run.size(); ++b) {
    const Bead& bead = port.run[b];
    const double skipped = bead.skippedBefore > 0 ? std::max(8.0, bead.skippedBefore * scale_) : 0;
    y += skipped;
    const double tall = std::max(kLeastBead, bead.count * scale_ - kBeadGap);
    chain.beads.push_back({{chain.controller, chain.port, static_cast<int>(b)},
                           QRectF(chain.x - beadWidth / 2, y, beadWidth, tall),
                           skipped,
                           pieceLabel(show, bead.fixture, bead.first, bead.count),
                           bead.fixture,
                           bead.reversed,
                           bead.count,
                           {}});
    for (const Injection& injection : bead.injections)
      chain.beads.back().injections.push_back(y + tall * std::clamp(injection.pixel, 0, bead.count) /
                                                      std::max(1, bead.count));
    y += tall + kBeadGap;
  }
  chain.pixels = chainPixels(port);
  chain.amps = portFullWhite_a(show, port);
  chain.bottom = y;
}

void LoomLayout::placeTicks(const Show& show) {
  for (const PatchSpan& span : derivePatch(show).spans) {
    const ControllerId id = show.controllers[static_cast<std::size_t>(span.controller)]->id;
    auto chain = std::find_if(chains_.begin(), chains_.end(),
                              [&](const Chain& t) { return t.controller == id && t.port == span.port; });
    if (chain == chains_.end() || span.bead >= std::ssize(chain->beads)) continue;
    const Bead* bead = chispa::beadAt(show, {id, span.port, span.bead});
    if (!bead) continue;
    const bool first = chain->ticks.empty();
    const int into =
        bead->reversed ? bead->first + bead->count - 1 - span.firstPixel : span.firstPixel - bead->first;
    const QRectF& box = chain->beads[static_cast<std::size_t>(span.bead)].box;
    const double y = box.top() + box.height() * into / std::max(1, bead->count);
    if (first || span.channel == 1)
      chain->ticks.push_back(
          {y,
           text(addressText(show.controllers[static_cast<std::size_t>(span.controller)]->protocol,
                            span.universe, span.channel)),
           first});
  }
}

void LoomLayout::placeChips(const Show& show, double line, double scrolled) {
  double x = kMargin - scrolled;
  for (const UnwiredPiece& piece : unwiredPieces(show)) {
    const QString label = QStringLiteral("%1 · %2 px")
                              .arg(pieceLabel(show, piece.fixture, piece.first, piece.count))
                              .arg(piece.count);
    const double wide = static_cast<double>(textWidth(static_cast<int>(label.size()) + 3));
    chips_.push_back({piece, QRectF(x, tray_.top() + line + 18, wide, line + 10), label});
    x += wide + 8;
  }
  trayWidth_ = x + scrolled;
}

int LoomLayout::pixelsAbove(const BeadBox& bead, double y) {
  const double share = (y - bead.box.top()) / bead.box.height();
  return std::clamp(static_cast<int>(std::lround(share * bead.count)), 0, bead.count);
}

const LoomLayout::BeadBox* LoomLayout::beadAt(QPointF at) const {
  if (at.y() < beamY_ || at.y() > tray_.top()) return nullptr;
  for (const Chain& chain : chains_)
    for (const BeadBox& bead : chain.beads)
      if (bead.box.contains(at)) return &bead;
  return nullptr;
}

const LoomLayout::Chip* LoomLayout::chipAt(QPointF at) const {
  const auto found =
      std::find_if(chips_.begin(), chips_.end(), [at](const Chip& chip) { return chip.box.contains(at); });
  return found == chips_.end() ? nullptr : &*found;
}

const LoomLayout::Card* LoomLayout::cardAt(QPointF at) const {
  const auto found =
      std::find_if(cards_.begin(), cards_.end(), [at](const Card& card) { return card.box.contains(at); });
  return found == cards_.end() ? nullptr : &*found;
}

const LoomLayout::Chain* LoomLayout::chainAt(QPointF at) const {
  if (at.y() < beamY_ - 10 || at.y() > tray_.top()) return nullptr;
  const auto found = std::find_if(chains_.begin(), chains_.end(), [at, step = step_](const Chain& chain) {
    return std::abs(chain.x - at.x()) <= step / 2;
  });
  return found == chains_.end() ? nullptr : &*found;
}

const LoomLayout::Chain* LoomLayout::chainOf(ControllerId controller, int port) const {
  const auto found = std::find_if(chains_.begin(), chains_.end(), [&](const Chain& chain) {
    return chain.controller == controller && chain.port == port;
  });
  return found == chains_.end() ? nullptr : &*found;
}

std::optional<ChainPlace> LoomLayout::dropPlace(QPointF at) const {
  const Chain* chain = chainAt(at);
  if (!chain) return std::nullopt;
  const auto below = std::find_if(chain->beads.begin(), chain->beads.end(),
                                  [at](const BeadBox& bead) { return at.y() < bead.box.center().y(); });
  return ChainPlace{chain->controller, chain->port, static_cast<int>(below - chain->beads.begin())};
}

}  // namespace chispa::desk
