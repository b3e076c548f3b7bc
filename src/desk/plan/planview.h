// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>
#include <vector>

#include <QImage>
#include <QWidget>

#include "core/show/strip.h"
#include "core/zone/cells.h"
#include "desk/parts/pieces.h"
#include "desk/plan/projection.h"
#include "desk/plan/tools/plantool.h"
#include "desk/session/session.h"

namespace chispa::desk {

class UnderlayPictures;

/// The floor plan in metres: every LED, what is selected with its data-in end, direction and pixel numbers,
/// and the tools that draw new pieces and paint zones.
class PlanView : public QWidget, public PieceTeller {
  Q_OBJECT
 public:
  explicit PlanView(const Session& session, QWidget* parent = nullptr);
  ~PlanView() override;

  /// A fixture, and where its pixels are seen, in metres of the plan and data order.
  struct Piece {
    std::shared_ptr<const Fixture> fixture;
    std::vector<Vec3> points;
    std::vector<QPointF> flat;
    /// Number of its first pixel in the show.
    int first = 0;
    QRectF extent;
  };

  /// The plan's affine way to the screen: x · scale + origin, y · −scale + origin.
  QPointF screenOrigin() const {
    return {width() / 2.0 - centre_.x() * scale_, height() / 2.0 + centre_.y() * scale_};
  }
  const Session& session() const { return session_; }
  const PlanProjection& projection() const { return projection_; }
  const std::vector<Piece>& pieces() const { return pieces_; }
  /// The cells of the selected zone; null if none is selected.
  const ZoneCells* zoneCells() const { return zoneCells_.get(); }
  /// The pixels of several selected zones, ascending; none where one is selected.
  const std::vector<std::uint32_t>& zonePixels() const { return zonePixels_; }
  PlanSide side() const { return projection_.side(); }
  /// Looks from another side at everything; unrolled, it shows the selected zone, or the selected fixtures'
  /// cells.
  void setSide(PlanSide side);
  PlanTool tool() const { return tool_; }
  void setTool(PlanTool tool);
  /// The present tool stays in hand after its work is done, until another is taken or Esc is pressed.
  void keepTool();
  /// What a tool says when its work is done.
  void putToolDown();
  /// Moves what is seen by a way on the screen; turns the free view by it; makes it larger about a place.
  void panBy(QPointF screen);
  void orbitBy(QPointF screen);
  void zoomBy(double factor, QPointF about);
  /// The next shape that is drawn becomes a segment of this fixture.
  void continueFixture(FixtureId id);
  FixtureId continued() const { return continued_; }
  /// What gives way when pixels, length or pitch of a strip are changed.
  Follows follows() const { return follows_; }
  void setFollows(Follows follows) { follows_ = follows; }
  QString hint() const { return hand_->hint(); }
  /// Everything in view.
  void frameAll();

  double scale() const { return scale_; }
  QPointF toScreen(QPointF plan) const;
  /// Where a point of the world is on the widget.
  QPointF toScreen(Vec3 world) const { return toScreen(projection_.flat(world)); }
  QPointF toPlan(QPointF screen) const;
  /// A place to draw from or to: an end of a strip nearby, else the 50 mm grid. Alt switches that off; with
  /// Shift the way from `from` (in the plan) is turned to the nearest 15°.
  QPointF snapped(const PlanPointer& pointer, std::optional<QPointF> from = {}) const;
  /// The strip's end nearest to a place of the screen, within reach, that is not one of `without`.
  std::optional<QPointF> endNear(QPointF screen, const FixtureIds& without = {}) const;
  /// Where others are joined to a fixture, in the plan.
  std::vector<QPointF> endsOf(const Fixture& fixture) const;
  UnderlayPictures& underlays() { return *underlays_; }
  std::optional<FixtureId> fixtureAt(QPointF screen) const;
  /// Where the show's pixel `number` is seen, in the plan.
  QPointF flatOf(std::uint32_t number) const;
  /// Numbers of the show's pixels within `screen` whose place there `contains`.
  std::vector<std::uint32_t> pixelsWhere(const QRectF& screen,
                                         const std::function<bool(QPointF screen)>& contains) const;
  /// Where the value of a fixture's pixel goes; empty before it is wired.
  QString addressOf(FixtureId fixture, int pixel) const;
  /// What is told of the thing there: its name, pixel and address; empty where nothing is.
  QString tipAt(QPointF screen) const;

  int toldCount() const override;
  ToldPiece told(int i) const override;
  void selectTold(int i) override;
  int selectedTold() const override;

 signals:
  void toolChanged();
  void sideChanged();

 protected:
  bool event(QEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void updatePieces();
  void unroll();
  void updateZoneCells();
  void updateZonePixels();
  void flatten(Piece& piece) const;
  static void measure(Piece& piece);
  void nudge(QPointF by_m);
  void walk(int pixels);
  void showMenu(QPointF at);

  Session session_;
  PlanProjection projection_;
  PlanTool tool_ = PlanTool::Select;
  std::unique_ptr<PlanHand> hand_;
  std::unique_ptr<PlanHand> retired_;
  std::unique_ptr<UnderlayPictures> underlays_;
  FixtureId continued_;
  Follows follows_ = Follows::Length;
  /// What the unrolled view shows, chosen when it was entered.
  Selected unrolled_;
  double scale_ = 60;  // pixels of the screen a metre
  QPointF centre_;     // plan point in the widget's middle
  bool isFramed_ = true;
  std::vector<Piece> pieces_;
  /// Worked out once for a zone and the fixtures that it lies on, not at every frame of light.
  std::unique_ptr<const ZoneCells> zoneCells_;
  std::shared_ptr<const Zone> zoneOfCells_;
  std::vector<std::uint32_t> zonePixels_;
  /// What `zonePixels_` was worked out from.
  ZoneIds zonesOfPixels_;
  Items<Zone> allZones_;
  Items<Fixture> fixturesOfCells_;
  /// Small dots are drawn into this, pixel by pixel.
  QImage dots_;
  std::optional<QPointF> panFrom_;
  std::optional<QPointF> orbitFrom_;
  std::optional<QPointF> rightFrom_;
  bool isToolKept_ = false;
};

}  // namespace chispa::desk
