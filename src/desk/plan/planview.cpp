// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planview.h"

#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "core/edit/planedits.h"
#include "core/edit/strip.h"
#include "core/shape/way.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kReach_px = 9;
constexpr double kSnap_m = 0.05;

QColor screenColour(const PixelFrame& frame, std::size_t pixel) {
  const Srgb8 c = toSrgb8({frame.r[pixel], frame.g[pixel], frame.b[pixel]});
  return QColor(c.r, c.g, c.b);
}

/// Pixels that fit on a length, at least one.
int pixelsOn(double metres, double perMetre) { return std::clamp(static_cast<int>(std::lround(metres * perMetre)), 1, 20'000); }

/// A step of 1, 2 or 5 times a power of ten that is at least `least`.
double roundStep(double least) {
  const double power = std::pow(10, std::floor(std::log10(least)));
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= least) return factor * power;
  return 10 * power;
}

}  // namespace

PlanView::PlanView(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName(QStringLiteral("planView"));
  setAccessibleName(tr("Plan"));
  setToolTip(tr("The wheel zooms, the middle button pans, Home shows all. Everything snaps to 50 mm; the arrow keys nudge by 10 mm."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumSize(240, 200);
  connect(&session_.document, &Document::showChanged, this, &PlanView::updatePieces);
  connect(&session_.document, &Document::opened, this, [this] {
    updatePieces();
    frameAll();
  });
  connect(&session_.selection, &Selection::changed, this, qOverload<>(&PlanView::update));
  connect(&session_.stage, &Stage::ticked, this, qOverload<>(&PlanView::update));
  updatePieces();
}

void PlanView::updatePieces() {
  std::vector<Piece> next;
  for (const auto& fixture : session_.show().fixtures) {
    const auto known = std::find_if(pieces_.begin(), pieces_.end(), [&](const Piece& p) { return p.fixture == fixture; });
    next.push_back({fixture, known != pieces_.end() ? std::move(known->points) : positions(*fixture)});
    if (known != pieces_.end()) known->fixture = nullptr;
  }
  pieces_ = std::move(next);
  update();
}

void PlanView::setSide(PlanSide side) {
  side_ = side;
  frameAll();
  emit sideChanged();
}

void PlanView::setTool(PlanTool tool) {
  tool_ = tool;
  setCursor(tool == PlanTool::Select ? Qt::ArrowCursor : Qt::CrossCursor);
  emit toolChanged();
}

QPointF PlanView::flat(Vec3 p) const {
  switch (side_) {
    case PlanSide::Top: return {p.x, p.y};
    case PlanSide::Front: return {p.x, p.z};
    case PlanSide::Side: return {p.y, p.z};
  }
  return {};
}

Vec3 PlanView::lifted(QPointF p) const {
  switch (side_) {
    case PlanSide::Top: return {p.x(), p.y(), 0};
    case PlanSide::Front: return {p.x(), 0, p.y()};
    case PlanSide::Side: return {0, p.x(), p.y()};
  }
  return {};
}

QPointF PlanView::toScreen(Vec3 world) const {
  const QPointF p = flat(world) - centre_;
  return {width() / 2.0 + p.x() * scale_, height() / 2.0 - p.y() * scale_};
}

QPointF PlanView::toPlan(QPointF screen) const {
  return {centre_.x() + (screen.x() - width() / 2.0) / scale_, centre_.y() - (screen.y() - height() / 2.0) / scale_};
}

QPointF PlanView::snapped(QPointF plan) const {
  return {std::round(plan.x() / kSnap_m) * kSnap_m, std::round(plan.y() / kSnap_m) * kSnap_m};
}

void PlanView::frameAll() {
  isFramed_ = true;
  QRectF extent;
  for (const Piece& piece : pieces_)
    for (const Vec3& point : piece.points) extent |= QRectF(flat(point) - QPointF(0.05, 0.05), QSizeF(0.1, 0.1));
  if (extent.isNull()) extent = QRectF(-3, -2, 6, 4);
  constexpr double kMargin = 1.16;
  centre_ = extent.center();
  scale_ = std::clamp(std::min(width() / (extent.width() * kMargin), height() / (extent.height() * kMargin)), 2.0, 4000.0);
  update();
}

std::optional<FixtureId> PlanView::fixtureAt(QPointF screen) const {
  std::optional<FixtureId> nearest;
  double best = kReach_px * kReach_px;
  for (const Piece& piece : pieces_) {
    for (const Vec3& point : piece.points) {
      const QPointF away = toScreen(point) - screen;
      const double distance = QPointF::dotProduct(away, away);
      if (distance >= best) continue;
      best = distance;
      nearest = piece.fixture->id;
    }
  }
  return nearest;
}

void PlanView::paintGrid(QPainter& painter) const {
  const double step = roundStep(56 / scale_);
  const QPointF low = toPlan({0.0, static_cast<double>(height())});
  const QPointF high = toPlan({static_cast<double>(width()), 0.0});
  painter.setFont(numberFont(0.85));
  const int line = painter.fontMetrics().height();
  for (double x = std::ceil(low.x() / step) * step; x <= high.x(); x += step) {
    const double at = toScreen(lifted({x, 0})).x();
    painter.setPen(std::abs(x) < step / 2 ? theme().line.lighter(130) : theme().line.darker(theme().isDark ? 125 : 100));
    painter.drawLine(QPointF(at, 0), QPointF(at, height()));
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(at + 4, line), QStringLiteral("%1 m").arg(x, 0, 'g', 6));
  }
  for (double y = std::ceil(low.y() / step) * step; y <= high.y(); y += step) {
    const double at = toScreen(lifted({0, y})).y();
    painter.setPen(std::abs(y) < step / 2 ? theme().line.lighter(130) : theme().line.darker(theme().isDark ? 125 : 100));
    painter.drawLine(QPointF(0, at), QPointF(width(), at));
  }
}

void PlanView::paintPieces(QPainter& painter) const {
  const auto compiled = session_.stage.compiled();
  const PixelFrame& frame = session_.stage.frame();
  painter.setPen(Qt::NoPen);
  for (const Piece& piece : pieces_) {
    const auto range = compiled ? compiled->map.rangeOf(piece.fixture->id) : std::nullopt;
    const bool fits = range && range->count == std::ssize(piece.points) && frame.size() == compiled->map.positions.size();
    const double pitch = pitch_m(piece.fixture->segments.front()) * scale_;
    const double size = piece.points.size() == 1 ? 9 : std::clamp(pitch * 0.55, 2.2, 12.0);
    const QColor unlit = theme().isDark ? QColor(0x5c, 0x59, 0x52) : QColor(0xa8, 0xa3, 0x98);
    for (std::size_t i = 0; i < piece.points.size(); ++i) {
      QColor colour = unlit;
      if (fits) {
        const QColor lit = screenColour(frame, static_cast<std::size_t>(range->first) + i);
        if (lit.value() > 40) colour = lit;
      }
      const QPointF at = toScreen(piece.points[i]);
      if (size < 4)
        painter.fillRect(QRectF(at.x() - size / 2, at.y() - size / 2, size, size), colour);
      else {
        painter.setBrush(colour);
        painter.drawEllipse(at, size / 2, size / 2);
      }
    }
  }
}

void PlanView::paintSelected(QPainter& painter, const Piece& piece) const {
  QRectF box;
  for (const Vec3& point : piece.points) box |= QRectF(toScreen(point) - QPointF(1, 1), QSizeF(2, 2));
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme().ember, 1.2));
  painter.drawRoundedRect(box.adjusted(-7, -7, 7, 7), 4, 4);
  // The data-in end: an arrowhead at pixel 1 that points along the strip.
  const QPointF first = toScreen(piece.points.front());
  QPointF along = piece.points.size() > 1 ? toScreen(piece.points[1]) - first : QPointF(1, 0);
  const double length = std::hypot(along.x(), along.y());
  along = length > 0.01 ? along / length : QPointF(1, 0);
  const QPointF beside(-along.y(), along.x());
  const QPointF tip = first - along * 6;
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().fine);
  painter.drawPolygon(QPolygonF{tip, tip - along * 11 + beside * 6, tip - along * 11 - beside * 6});
  painter.setFont(numberFont(0.85));
  painter.setPen(theme().fine);
  painter.drawText(tip - along * 14 + QPointF(4, -8), tr("data in"));
  // Numbers at a spacing at which they can be read.
  const double perPixel = std::max(0.2, pitch_m(piece.fixture->segments.front()) * scale_);
  const int every = static_cast<int>(roundStep(44 / perPixel));
  painter.setPen(theme().text);
  QPointF lastNumber = first - QPointF(40, 0);
  for (std::size_t i = static_cast<std::size_t>(every); i < piece.points.size(); i += static_cast<std::size_t>(every)) {
    const QPointF at = toScreen(piece.points[i - 1]);
    // Seen end-on, a post's pixels fall together: one number is enough.
    if ((at - lastNumber).manhattanLength() < 24 || (at - first).manhattanLength() < 12) continue;
    lastNumber = at;
    painter.drawLine(at + QPointF(0, 4), at + QPointF(0, 9));
    painter.drawText(at + QPointF(2, 19), QString::number(i));
  }
}

std::optional<Shape> PlanView::draftShape() const {
  const QPointF from = snapped(toPlan(pressed_));
  const QPointF to = snapped(toPlan(pointer_));
  const double wide = std::abs(to.x() - from.x());
  const double tall = std::abs(to.y() - from.y());
  const double length = std::hypot(wide, tall);
  const double perMetre = session_.show().stripTypes.empty() ? 60 : session_.show().stripTypes.front()->pixelsPerMetre;
  if (tool_ == PlanTool::Path) return draftPath();
  if (tool_ == PlanTool::Matrix) {
    if (wide < kSnap_m || tall < kSnap_m) return std::nullopt;
    return GridShape{pixelsOn(wide, perMetre), pixelsOn(tall, perMetre), 1 / perMetre, 1 / perMetre};
  }
  if (length < kSnap_m || tool_ == PlanTool::Select) return std::nullopt;
  if (tool_ == PlanTool::Line) return LineShape{pixelsOn(length, perMetre), 1 / perMetre};
  return draftRound(length, perMetre);
}

std::optional<Shape> PlanView::draftRound(double radius, double perMetre) const {
  const int along = pixelsOn(radius, perMetre);
  switch (tool_) {
    case PlanTool::Ring: return ArcShape{pixelsOn(2 * kPi * radius, perMetre), radius, 0, 360};
    case PlanTool::Rings: {
      RingsShape rings{{}, radius / 3, radius, 0, true};
      for (int ring = 1; ring <= 3; ++ring) rings.counts.push_back(pixelsOn(2 * kPi * radius * ring / 3, perMetre));
      return rings;
    }
    case PlanTool::Spiral: {
      SpiralShape spiral{1, 3, radius / 5, radius, 0};
      spiral.count = pixelsOn(stripLength_m(spiral), perMetre);
      return spiral;
    }
    case PlanTool::Cone: return ConeShape{12, std::max(2, along), radius, radius / 10, radius * 1.5, 0, 360, StringWay::Forth};
    case PlanTool::Spokes: return SpokesShape{12, std::max(2, along), radius / 8, radius, 0, 360, StringWay::Forth};
    default: return std::nullopt;
  }
}

std::optional<Shape> PlanView::draftPath() const {
  PathShape path;
  for (const QPointF& corner : corners_) path.corners.push_back({corner.x() - corners_[0].x(), corner.y() - corners_[0].y(), 0});
  if (path.corners.size() < 2) return std::nullopt;
  const double perMetre = session_.show().stripTypes.empty() ? 60 : session_.show().stripTypes.front()->pixelsPerMetre;
  path.count = pixelsOn(wayLength_m(path.corners), perMetre);
  return path;
}

void PlanView::addCorner(QPointF screen) {
  const QPointF corner = snapped(toPlan(screen));
  if (corners_.empty() || corners_.back() != corner) corners_.push_back(corner);
  update();
}

void PlanView::finishPath() {
  if (corners_.size() >= 2) {
    pressed_ = toScreen(lifted(corners_[0]));
    finishDraft();
  }
  corners_.clear();
  update();
}

void PlanView::mouseDoubleClickEvent(QMouseEvent* event) {
  if (tool_ == PlanTool::Path) return finishPath();
  QWidget::mouseDoubleClickEvent(event);
}

Vec3 PlanView::draftPosition() const {
  const QPointF from = snapped(toPlan(pressed_));
  const QPointF to = snapped(toPlan(pointer_));
  return lifted(tool_ == PlanTool::Matrix ? (from + to) / 2 : from);
}

Vec3 PlanView::draftRotation() const {
  const QPointF along = snapped(toPlan(pointer_)) - snapped(toPlan(pressed_));
  const double angle = tool_ == PlanTool::Line ? std::atan2(along.y(), along.x()) * 180 / kPi : 0;
  switch (side_) {
    case PlanSide::Top: return {0, 0, angle};
    // Upright: first turned within its own plane, which an upright line does about y.
    // A cone stands upright whichever way it is looked at.
    case PlanSide::Front: return tool_ == PlanTool::Line ? Vec3{0, -angle, 0} : tool_ == PlanTool::Cone ? Vec3{} : Vec3{90, 0, 0};
    case PlanSide::Side: return tool_ == PlanTool::Line ? Vec3{0, -angle, 90} : tool_ == PlanTool::Cone ? Vec3{} : Vec3{90, 0, 90};
  }
  return {};
}

QString PlanView::draftText() const {
  const auto shape = draftShape();
  if (!shape) return tr("drag to draw");
  if (const auto* grid = std::get_if<GridShape>(&*shape))
    return tr("%1 × %2 = %3 px").arg(grid->columns).arg(grid->rows).arg(pixelCount(*shape));
  if (const auto* arc = std::get_if<ArcShape>(&*shape); arc)
    return tr("Ø %1 · %2 px").arg(lengthText(2 * arc->radius_m)).arg(arc->count);
  return tr("%1 · %2 px").arg(lengthText(stripLength_m(*shape))).arg(pixelCount(*shape));
}

void PlanView::paintDraft(QPainter& painter) const {
  painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
  painter.setBrush(Qt::NoBrush);
  const QPointF from = toScreen(lifted(snapped(toPlan(pressed_))));
  const QPointF to = toScreen(lifted(snapped(toPlan(pointer_))));
  const double radius = std::hypot(to.x() - from.x(), to.y() - from.y());
  if (drag_ == Drag::Band)
    painter.drawRect(QRectF(pressed_, pointer_).normalized());
  else if (tool_ == PlanTool::Line)
    painter.drawLine(from, to);
  else if (tool_ == PlanTool::Matrix)
    painter.drawRect(QRectF(from, to).normalized());
  else
    painter.drawEllipse(from, radius, radius);
  if (drag_ != Drag::Draft) return;
  painter.setPen(theme().text);
  painter.drawText(pointer_ + QPointF(14, -8), draftText());
}

void PlanView::paintCorners(QPainter& painter) const {
  painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
  QPolygonF way;
  for (const QPointF& corner : corners_) way << toScreen(lifted(corner));
  way << pointer_;
  painter.drawPolyline(way);
  painter.setPen(theme().text);
  painter.drawText(pointer_ + QPointF(14, -8), tr("%1 corners · double click or Enter ends").arg(corners_.size()));
}

void PlanView::paintEmpty(QPainter& painter) const {
  painter.setPen(theme().quiet);
  painter.drawText(rect(), Qt::AlignCenter,
                   tr("Nothing is built yet.\n\nChoose Line (L), Matrix (G) or Ring (O) above and drag on the plan,\n"
                      "or open the demo from the Help menu."));
}

void PlanView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().window);
  painter.setRenderHint(QPainter::Antialiasing);
  paintGrid(painter);
  paintPieces(painter);
  for (const Piece& piece : pieces_)
    if (session_.selection.has(piece.fixture->id) && !piece.points.empty()) paintSelected(painter, piece);
  if (drag_ == Drag::Draft || drag_ == Drag::Band) paintDraft(painter);
  if (!corners_.empty()) paintCorners(painter);
  if (pieces_.empty() && drag_ == Drag::None) paintEmpty(painter);
  if (drag_ == Drag::Move) {
    const QPointF by = snapped(toPlan(pointer_)) - snapped(toPlan(pressed_));
    painter.setPen(theme().text);
    painter.drawText(pointer_ + QPointF(14, -8), tr("%1 across, %2 up").arg(lengthText(by.x()), lengthText(by.y())));
  }
}

void PlanView::mousePressEvent(QMouseEvent* event) {
  pressed_ = pointer_ = event->position();
  const bool adding = event->modifiers() & Qt::ShiftModifier;
  if (event->button() == Qt::MiddleButton) {
    drag_ = Drag::Pan;
  } else if (event->button() == Qt::LeftButton && tool_ == PlanTool::Path) {
    addCorner(pressed_);
  } else if (event->button() == Qt::LeftButton && tool_ != PlanTool::Select) {
    drag_ = Drag::Draft;
  } else if (event->button() == Qt::LeftButton) {
    const auto hit = fixtureAt(pressed_);
    drag_ = hit ? Drag::Move : Drag::Band;
    if (hit && adding)
      session_.selection.toggle(*hit);
    else if (hit && !session_.selection.has(*hit))
      session_.selection.select(FixtureIds{*hit});
  }
  update();
}

void PlanView::mouseMoveEvent(QMouseEvent* event) {
  const QPointF before = pointer_;
  pointer_ = event->position();
  if (drag_ == Drag::Pan) {
    isFramed_ = false;
    centre_ -= QPointF((pointer_.x() - before.x()) / scale_, -(pointer_.y() - before.y()) / scale_);
  } else if (drag_ == Drag::Move) {
    const QPointF by = snapped(toPlan(pointer_)) - snapped(toPlan(before));
    if (!by.isNull())
      session_.edit(tr("move"), [&](Show& show) { moveFixtures(show, session_.selection.fixtures(), lifted(by)); },
                    QStringLiteral("plan-drag"));
  }
  if (drag_ != Drag::None || !corners_.empty()) update();
}

void PlanView::mouseReleaseEvent(QMouseEvent* event) {
  pointer_ = event->position();
  const Drag ended = std::exchange(drag_, Drag::None);
  if (ended == Drag::Move) session_.document.seal();
  if (ended == Drag::Band) selectWithin(QRectF(pressed_, pointer_).normalized(), event->modifiers() & Qt::ShiftModifier);
  if (ended == Drag::Draft) finishDraft();
  update();
}

void PlanView::finishDraft() {
  const auto shape = draftShape();
  if (!shape) return;
  FixtureId added;
  session_.edit(tr("add %1").arg(QString::fromUtf8(shapeName(*shape).data())),
                [&](Show& show) { added = addFixture(show, *shape, draftPosition(), draftRotation()); });
  session_.selection.select(FixtureIds{added});
  setTool(PlanTool::Select);
}

void PlanView::selectWithin(QRectF screen, bool adding) {
  FixtureIds ids = adding ? session_.selection.fixtures() : FixtureIds{};
  for (const Piece& piece : pieces_) {
    const bool inside = !piece.points.empty() && std::all_of(piece.points.begin(), piece.points.end(), [&](const Vec3& point) {
      return screen.contains(toScreen(point));
    });
    if (inside && std::find(ids.begin(), ids.end(), piece.fixture->id) == ids.end()) ids.push_back(piece.fixture->id);
  }
  session_.selection.select(ids.empty() ? Selected{} : Selected{ids});
}

void PlanView::wheelEvent(QWheelEvent* event) {
  isFramed_ = false;
  const QPointF before = toPlan(event->position());
  scale_ = std::clamp(scale_ * std::pow(1.0015, event->angleDelta().y()), 2.0, 8000.0);
  centre_ += before - toPlan(event->position());
  update();
}

void PlanView::nudge(QPointF by_m) {
  if (session_.selection.fixtures().empty()) return;
  session_.edit(tr("nudge"), [&](Show& show) { moveFixtures(show, session_.selection.fixtures(), lifted(by_m)); },
                QStringLiteral("plan-nudge"));
}

void PlanView::keyPressEvent(QKeyEvent* event) {
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 0.01;
  switch (event->key()) {
    case Qt::Key_Left: return nudge({-step, 0});
    case Qt::Key_Right: return nudge({step, 0});
    case Qt::Key_Up: return nudge({0, step});
    case Qt::Key_Down: return nudge({0, -step});
    case Qt::Key_Home: return frameAll();
    case Qt::Key_Return:
    case Qt::Key_Enter: return finishPath();
    case Qt::Key_Escape:
      drag_ = Drag::None;
      corners_.clear();
      setTool(PlanTool::Select);
      return session_.selection.clear();
    default: QWidget::keyPressEvent(event);
  }
}

void PlanView::resizeEvent(QResizeEvent*) {
  if (isFramed_) frameAll();
}

}  // namespace chispa::desk
