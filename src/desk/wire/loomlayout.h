// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <set>
#include <vector>

#include <QRectF>
#include <QString>

#include "core/edit/wireedits.h"
#include "core/wire/patch.h"

namespace chispa::desk {

/// Where everything of the loom is drawn: worked out from the show and the widget's size, and from nothing
/// else.
class LoomLayout {
 public:
  struct BeadBox {
    ChainPlace place;
    QRectF box;
    /// Height of the skipped pixels above it.
    double skipped = 0;
    QString label;
    FixtureId fixture;
    bool reversed = false;
    int count = 0;
    /// Where power is injected.
    std::vector<double> injections;
  };
  /// Where a universe begins on a chain.
  struct Tick {
    double y = 0;
    QString address;
    bool isFirst = false;
  };
  struct Chain {
    ControllerId controller;
    int port = 0;
    double x = 0;
    double top = 0;
    double bottom = 0;
    int pixels = 0;
    double amps = 0;
    std::vector<BeadBox> beads;
    std::vector<Tick> ticks;
  };
  struct Card {
    ControllerId controller;
    QRectF box;
    bool isFolded = false;
    /// What a folded one stands for.
    int ports = 0;
    int pixels = 0;
  };
  struct Chip {
    UnwiredPiece piece;
    QRectF box;
    QString label;
  };

  LoomLayout() = default;
  /// How the maker looks at it.
  struct View {
    /// How far it is scrolled, in dots.
    QPointF scrolled;
    /// 1 shows the whole of the longest chain.
    double zoom = 1;
    /// How far the tray is scrolled.
    double tray = 0;
    /// Controllers that are folded to their card.
    std::set<ControllerId> folded = {};
  };
  LoomLayout(const Show& show, QSizeF size, double line, const View& view);

  const std::vector<Card>& cards() const { return cards_; }
  const std::vector<Chain>& chains() const { return chains_; }
  const std::vector<Chip>& chips() const { return chips_; }
  double beamY() const { return beamY_; }
  QRectF tray() const { return tray_; }
  /// How wide everything in the tray is.
  double trayWidth() const { return trayWidth_; }
  /// How wide the loom is, and how many pixels of the screen a pixel of strip takes.
  double width() const { return width_; }
  /// From the beam to the end of the longest chain.
  double height() const { return height_; }
  double scale() const { return scale_; }
  double step() const { return step_; }

  const BeadBox* beadAt(QPointF at) const;
  const Chip* chipAt(QPointF at) const;
  const Card* cardAt(QPointF at) const;
  const Chain* chainAt(QPointF at) const;
  const Chain* chainOf(ControllerId controller, int port) const;
  /// Where on its chain something dropped at `at` would hang.
  std::optional<ChainPlace> dropPlace(QPointF at) const;
  /// Pixels of a bead above a height, in data order; 0 at its top.
  static int pixelsAbove(const BeadBox& bead, double y);

 private:
  void chooseStep(const Show& show, double wide, const View& view);
  void placeChains(const Show& show, double line, const View& view);
  void placeBeads(const Show& show, Chain& chain, const Port& port);
  void placeTicks(const Show& show);
  void placeChips(const Show& show, double line, double scrolled);

  std::vector<Card> cards_;
  std::vector<Chain> chains_;
  std::vector<Chip> chips_;
  QRectF tray_;
  double beamY_ = 0;
  double width_ = 0;
  double trayWidth_ = 0;
  double height_ = 0;
  double scale_ = 1;
  /// From chain to chain.
  double step_ = 60;
};

}  // namespace chispa::desk
