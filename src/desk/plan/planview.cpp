// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planview.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

#include <QPainter>

#include "core/edit/arrange.h"
#include "core/edit/planedits.h"
#include "core/shape/polyline.h"
#include "desk/parts/theme.h"
#include "desk/plan/planpainter.h"
#include "desk/plan/underlaypictures.h"
#include "desk/session/selectionlight.h"

namespace chispa::desk {
namespace {

constexpr double kReach_px = 9;
constexpr double kSnap_m = 0.05;
constexpr double kSnap_deg = 15;
/// How far apart cells lie in the unrolled view, in its metres.
constexpr double kCell_m = 0.1;

QPointF onGrid(QPointF plan) {
  return {std::round(plan.x() / kSnap_m) * kSnap_m, std::round(plan.y() / kSnap_m) * kSnap_m};
}

double distance(QPointF a, QPointF b) {
  return std::hypot(a.x() - b.x(), a.y() - b.y());
}

std::unique_ptr<PlanHand> makeHand(PlanView& view, PlanTool tool) {
  switch (tool) {
    case PlanTool::Select:
      return makeSelectHand(view);
    case PlanTool::Pan:
      return makePanHand(view);
    case PlanTool::Measure:
      return makeMeasureHand(view);
    case PlanTool::Brush:
    case PlanTool::Box:
    case PlanTool::Lasso:
      return makePaintHand(view, tool);
    case PlanTool::Number:
      return makeNumberHand(view);
    case PlanTool::Scale:
      return makeScaleHand(view);
    case PlanTool::Centre:
      return makeCentreHand(view);
    default:
      return makeDrawHand(view, tool);
  }
}

}  // namespace

PlanView::PlanView(const Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      hand_(makeSelectHand(*this)),
      underlays_(std::make_unique<UnderlayPictures>(session)) {
  setObjectName(QStringLiteral("planView"));
  setAccessibleName(tr("Plan"));
  setToolTip(
      tr("The wheel scrolls, with Shift sideways, with Ctrl it zooms; H, or the middle button, moves the "
         "view, the right button turns the free one, Home shows all. Everything snaps to ends and to 50 mm, "
         "with Alt to nothing; the arrow keys nudge by 10 mm."));
  setToolTipDuration(4000);
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(240, 200);
  connect(underlays_.get(), &UnderlayPictures::arrived, this, qOverload<>(&QWidget::update));
  connect(&session_.document, &Document::showChanged, this, &PlanView::updatePieces);
  connect(&session_.document, &Document::opened, this, [this] {
    updatePieces();
    frameAll();
  });
  connect(&session_.selection, &Selection::changed, this, [this] {
    update();
    sayWhatIsSelected(this);
  });
  connect(&session_.stage, &Stage::ticked, this, [this] {
    if (isVisible() && session_.stage.hasMoved()) update();
  });
  updatePieces();
}

PlanView::~PlanView() = default;

void PlanView::flatten(Piece& piece) const {
  piece.flat.clear();
  piece.flat.reserve(piece.points.size());
  for (const Vec3& point : piece.points) piece.flat.push_back(projection_.flat(point));
  measure(piece);
}

void PlanView::measure(Piece& piece) {
  double left = 1e30, right = -1e30, low = 1e30, high = -1e30;
  for (const QPointF& p : piece.flat) {
    if (std::isnan(p.x())) continue;
    left = std::min(left, p.x());
    right = std::max(right, p.x());
    low = std::min(low, p.y());
    high = std::max(high, p.y());
  }
  constexpr double kLeast = 1e-3;
  piece.extent =
      left > right
          ? QRectF()
          : QRectF(QPointF(left, low), QPointF(right, high)).adjusted(-kLeast, -kLeast, kLeast, kLeast);
}

void PlanView::updatePieces() {
  const auto& fixtures = session_.show().fixtures;
  std::vector<Piece> next(fixtures.size());
  std::size_t known = 0;
  int first = 0;
  for (std::size_t i = 0; i < fixtures.size(); ++i) {
    // Pieces keep their order from edit to edit, so that the one sought is nearly always the next.
    while (known < pieces_.size() && pieces_[known].fixture != fixtures[i] &&
           pieces_[known].fixture->id < fixtures[i]->id)
      ++known;
    if (known < pieces_.size() && pieces_[known].fixture == fixtures[i]) {
      next[i] = std::move(pieces_[known++]);
    } else {
      next[i].fixture = fixtures[i];
      next[i].points = positions(*fixtures[i]);
      flatten(next[i]);
    }
    next[i].first = first;
    first += static_cast<int>(next[i].points.size());
  }
  pieces_ = std::move(next);
  if (side() == PlanSide::Unrolled) unroll();
  update();
}

void PlanView::unroll() {
  const auto* zoneId = std::get_if<ZoneId>(&unrolled_);
  const Zone* zone = zoneId ? chispa::find(session_.show().zones, *zoneId) : nullptr;
  Zone chosen;
  if (const auto* ids = std::get_if<FixtureIds>(&unrolled_)) {
    chosen.layout = ZoneLayout::SideBySide;
    for (const FixtureId id : *ids) chosen.parts.push_back({id, std::nullopt, false});
    zone = &chosen;
  }
  for (Piece& piece : pieces_) piece.flat.clear();
  if (!zone) return;
  // The grid that the parts have, whatever is taken of them: a maker paints what is not in the zone yet, too.
  Zone whole = *zone;
  std::vector<ZonePart> parts;
  for (ZonePart part : whole.parts) {
    part.runs.clear();
    if (std::find(parts.begin(), parts.end(), part) == parts.end()) parts.push_back(part);
  }
  whole.parts = parts;
  whole.playsAsOne = false;
  whole.pixelsPerCell = 1;
  const PixelMap map = mapPixels(session_.show());
  const ZoneCells cells = cellsOf(session_.show(), map, whole);
  constexpr double kHidden = std::numeric_limits<double>::quiet_NaN();
  for (Piece& piece : pieces_) piece.flat.assign(piece.points.size(), QPointF(kHidden, kHidden));
  const int wide = cells.rows > 1 ? cells.columns
                                  : std::max(1, static_cast<int>(std::ceil(std::sqrt(cells.count() * 2.0))));
  for (int cell = 0; cell < cells.count(); ++cell) {
    const auto at = static_cast<std::size_t>(cell);
    // A single line is broken into lines of one length, as text is.
    const int column = cells.rows > 1 ? cells.column[at] : cell % wide;
    const int row = cells.rows > 1 ? cells.row[at] : -(cell / wide);
    for (const std::uint32_t pixel : cells.pixelsOf(cell)) {
      const auto number = static_cast<int>(pixel);
      Piece& owner = *(std::upper_bound(pieces_.begin(), pieces_.end(), number,
                                        [](int n, const Piece& piece) { return n < piece.first; }) -
                       1);
      owner.flat[static_cast<std::size_t>(number - owner.first)] = {column * kCell_m, row * kCell_m};
    }
  }
  for (Piece& piece : pieces_)
    if (std::all_of(piece.flat.begin(), piece.flat.end(), [](QPointF p) { return std::isnan(p.x()); }))
      piece.flat.clear();
  for (Piece& piece : pieces_) measure(piece);
}

void PlanView::setSide(PlanSide side) {
  if (side == PlanSide::Unrolled) unrolled_ = session_.selection.now();
  projection_.setSide(side);
  for (Piece& piece : pieces_) flatten(piece);
  updatePieces();
  frameAll();
  emit sideChanged();
}

void PlanView::putToolDown() {
  if (!isToolKept_) setTool(PlanTool::Select);
}

void PlanView::keepTool() {
  isToolKept_ = tool_ != PlanTool::Select;
}

void PlanView::setTool(PlanTool tool) {
  tool_ = tool;
  isToolKept_ = false;
  // The hand that is put down may be the one that asked for it.
  retired_ = std::exchange(hand_, makeHand(*this, tool));
  if (tool == PlanTool::Select) continued_ = {};
  setCursor(tool == PlanTool::Select ? Qt::ArrowCursor
            : tool == PlanTool::Pan  ? Qt::OpenHandCursor
                                     : Qt::CrossCursor);
  update();
  emit toolChanged();
}

void PlanView::continueFixture(FixtureId id) {
  setTool(PlanTool::Line);
  continued_ = id;
  update();
}

QPointF PlanView::toScreen(QPointF plan) const {
  return {width() / 2.0 + (plan.x() - centre_.x()) * scale_,
          height() / 2.0 - (plan.y() - centre_.y()) * scale_};
}

QPointF PlanView::toPlan(QPointF screen) const {
  return {centre_.x() + (screen.x() - width() / 2.0) / scale_,
          centre_.y() - (screen.y() - height() / 2.0) / scale_};
}

std::vector<QPointF> PlanView::endsOf(const Fixture& fixture) const {
  std::vector<QPointF> ends;
  for (const Segment& segment : fixture.segments)
    for (const Vec3& joint : jointsOf(segment.shape))
      ends.push_back(projection_.flat(placed(fixture.place, placed(segment.place, joint))));
  return ends;
}

std::optional<QPointF> PlanView::endNear(QPointF screen, const FixtureIds& without) const {
  std::optional<QPointF> nearest;
  double best = kReach_px;
  const QPointF plan = toPlan(screen);
  const double reach = kReach_px / scale_;
  for (const Piece& piece : pieces_) {
    if (!piece.extent.adjusted(-reach - 0.1, -reach - 0.1, reach + 0.1, reach + 0.1).contains(plan)) continue;
    if (std::find(without.begin(), without.end(), piece.fixture->id) != without.end()) continue;
    for (const QPointF& end : endsOf(*piece.fixture)) {
      const double away = distance(toScreen(end), screen);
      if (away >= best) continue;
      best = away;
      nearest = end;
    }
  }
  return nearest;
}

QPointF PlanView::snapped(const PlanPointer& pointer, std::optional<QPointF> from) const {
  const QPointF raw = toPlan(pointer.at);
  if (pointer.keys & Qt::AltModifier) return raw;
  if (pointer.keys & Qt::ShiftModifier && from) {
    const QPointF away = raw - *from;
    const double length = std::round(std::hypot(away.x(), away.y()) / kSnap_m) * kSnap_m;
    const double angle = radians(std::round(degrees(std::atan2(away.y(), away.x())) / kSnap_deg) * kSnap_deg);
    return *from + QPointF(std::cos(angle), std::sin(angle)) * length;
  }
  const auto end = endNear(pointer.at);
  return end ? *end : onGrid(raw);
}

void PlanView::frameAll() {
  isFramed_ = true;
  QRectF extent;
  for (const Piece& piece : pieces_)
    if (!piece.extent.isNull()) extent |= piece.extent.adjusted(-0.05, -0.05, 0.05, 0.05);
  if (extent.isNull()) extent = QRectF(-3, -2, 6, 4);
  constexpr double kMargin = 1.16;
  centre_ = extent.center();
  scale_ = std::clamp(std::min(width() / (extent.width() * kMargin), height() / (extent.height() * kMargin)),
                      2.0, 4000.0);
  update();
}

std::optional<FixtureId> PlanView::fixtureAt(QPointF screen) const {
  std::optional<FixtureId> nearest;
  double best = kReach_px;
  const QPointF plan = toPlan(screen);
  const double reach = kReach_px / scale_;
  for (const Piece& piece : pieces_) {
    if (!piece.extent.adjusted(-reach, -reach, reach, reach).contains(plan)) continue;
    for (const QPointF& point : piece.flat) {
      const double away = distance(point, plan) * scale_;
      if (!(away < best)) continue;
      best = away;
      nearest = piece.fixture->id;
    }
  }
  return nearest;
}

QPointF PlanView::flatOf(std::uint32_t number) const {
  const auto pixel = static_cast<int>(number);
  const Piece& owner = *(std::upper_bound(pieces_.begin(), pieces_.end(), pixel,
                                          [](int n, const Piece& piece) { return n < piece.first; }) -
                         1);
  return owner.flat.at(static_cast<std::size_t>(pixel - owner.first));
}

std::vector<std::uint32_t> PlanView::pixelsWhere(const QRectF& screen,
                                                 const std::function<bool(QPointF)>& contains) const {
  std::vector<std::uint32_t> found;
  const QRectF area = QRectF(toPlan(screen.bottomLeft()), toPlan(screen.topRight())).normalized();
  for (const Piece& piece : pieces_) {
    if (piece.extent.isNull() || !piece.extent.intersects(area)) continue;
    for (std::size_t i = 0; i < piece.flat.size(); ++i)
      if (area.contains(piece.flat[i]) && contains(toScreen(piece.flat[i])))
        found.push_back(static_cast<std::uint32_t>(piece.first) + static_cast<std::uint32_t>(i));
  }
  return found;
}

void PlanView::updateZoneCells() {
  const auto* id = std::get_if<ZoneId>(&session_.selection.now());
  const auto& zones = session_.show().zones;
  const auto zone =
      std::find_if(zones.begin(), zones.end(), [id](const auto& z) { return id && z->id == *id; });
  if (zone == zones.end()) {
    zoneCells_.reset();
    zoneOfCells_.reset();
  } else if (zoneOfCells_ != *zone || fixturesOfCells_ != session_.show().fixtures) {
    zoneOfCells_ = *zone;
    fixturesOfCells_ = session_.show().fixtures;
    zoneCells_ =
        std::make_unique<const ZoneCells>(cellsOf(session_.show(), mapPixels(session_.show()), **zone));
  }
}

void PlanView::updateZonePixels() {
  const Show& show = session_.show();
  const ZoneIds ids = session_.selection.all<ZoneId>();
  if (ids.size() < 2) {
    zonePixels_.clear();
    zonesOfPixels_.clear();
    return;
  }
  if (ids == zonesOfPixels_ && allZones_ == show.zones && fixturesOfCells_ == show.fixtures) return;
  zonesOfPixels_ = ids;
  allZones_ = show.zones;
  fixturesOfCells_ = show.fixtures;
  const auto chosen = selectedPixels(session_);
  const std::set<std::int32_t> pixels(chosen.begin(), chosen.end());
  zonePixels_.assign(pixels.begin(), pixels.end());
}

void PlanView::paintEvent(QPaintEvent*) {
  updateZoneCells();
  updateZonePixels();
  QPainter painter(this);
  painter.fillRect(rect(), theme().window);
  painter.setRenderHint(QPainter::Antialiasing);
  const double ratio = devicePixelRatioF();
  if (const QSize sharp = size() * ratio; dots_.size() != sharp)
    dots_ = QImage(sharp, QImage::Format_ARGB32_Premultiplied);
  dots_.setDevicePixelRatio(ratio);
  PlanPainter plan(*this, painter, dots_);
  underlays_->paint(painter, *this);
  plan.paintGrid();
  plan.paintPieces();
  plan.paintLabels();
  plan.paintSelection();
  hand_->paint(painter);
  plan.paintHint();
}

void PlanView::resizeEvent(QResizeEvent*) {
  if (isFramed_) frameAll();
}

}  // namespace chispa::desk
