// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planpainter.h"

#include <algorithm>
#include <cmath>

#include <QPainter>

#include "core/show/strip.h"
#include "core/zone/cells.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/outline.h"

namespace chispa::desk {
namespace {

/// A step of 1, 2 or 5 times a power of ten that is at least `least`.
double roundStep(double least) {
  const double power = std::pow(10, std::floor(std::log10(least)));
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= least) return factor * power;
  return 10 * power;
}

QColor unlitColour() {
  return theme().isDark ? QColor(0x5c, 0x59, 0x52) : QColor(0xa8, 0xa3, 0x98);
}

QColor mixed(const QColor& a, const QColor& b, double share) {
  const auto mix = [share](int x, int y) { return static_cast<int>(x + (y - x) * share); };
  return {mix(a.red(), b.red()), mix(a.green(), b.green()), mix(a.blue(), b.blue())};
}

/// How far apart neighbours on a way lie, in the middle of all such distances.
double typicalGap(const QPolygonF& way) {
  std::vector<double> gaps;
  for (int i = 1; i < way.size(); ++i)
    gaps.push_back(std::hypot(way[i].x() - way[i - 1].x(), way[i].y() - way[i - 1].y()));
  if (gaps.empty()) return 12;
  std::nth_element(gaps.begin(), gaps.begin() + static_cast<std::ptrdiff_t>(gaps.size() / 2), gaps.end());
  return gaps[gaps.size() / 2];
}

/// From the first cell to the last.
QColor cellColour(int cell, int count) {
  return mixed(theme().fine, theme().ember, count > 1 ? static_cast<double>(cell) / (count - 1) : 0);
}

}  // namespace

void PlanPainter::paintGrid() {
  if (view_.side() == PlanSide::Unrolled) return;
  const double step = roundStep(56 / view_.scale());
  const QPointF low = view_.toPlan({0.0, static_cast<double>(view_.height())});
  const QPointF high = view_.toPlan({static_cast<double>(view_.width()), 0.0});
  painter_.setFont(numberFont(0.85));
  const int line = painter_.fontMetrics().height();
  const bool isTurned = view_.side() == PlanSide::Free;
  const auto pen = [&](double at) {
    return std::abs(at) < step / 2 && !isTurned ? theme().line.lighter(130)
                                                : theme().line.darker(theme().isDark ? 125 : 100);
  };
  for (double x = std::ceil(low.x() / step) * step; x <= high.x(); x += step) {
    const double at = view_.toScreen(QPointF(x, 0)).x();
    painter_.setPen(pen(x));
    painter_.drawLine(QPointF(at, 0), QPointF(at, view_.height()));
    painter_.setPen(theme().quiet);
    if (!isTurned)
      painter_.drawText(QPointF(at + 4, line),
                        QStringLiteral("%1 m").arg(std::abs(x) < step / 2 ? 0.0 : x, 0, 'g', 6));
  }
  for (double y = std::ceil(low.y() / step) * step; y <= high.y(); y += step) {
    const double at = view_.toScreen(QPointF(0, y)).y();
    painter_.setPen(pen(y));
    painter_.drawLine(QPointF(0, at), QPointF(view_.width(), at));
  }
}

double PlanPainter::dotSize(const PlanView::Piece& piece) const {
  if (view_.side() == PlanSide::Unrolled) return std::clamp(view_.scale() * 0.075, 2.0, 26.0);
  if (piece.points.size() == 1) return 9;
  constexpr double kPoint = 5;
  if (std::holds_alternative<PointsShape>(piece.fixture->segments.front().shape)) return kPoint;
  return std::clamp(pitch_m(piece.fixture->segments.front()) * view_.scale() * 0.55, 2.2, 12.0);
}

void PlanPainter::paintSmallDots(const PlanView::Piece& piece, int side, const std::vector<QRgb>& colours) {
  const QPointF origin = view_.screenOrigin();
  const double ratio = dots_.devicePixelRatio();
  const double scale = view_.scale() * ratio;
  const int width = dots_.width() - side;
  const int height = dots_.height() - side;
  const auto stride = dots_.bytesPerLine() / 4;
  auto* pixels = reinterpret_cast<QRgb*>(dots_.bits());
  for (std::size_t i = 0; i < piece.flat.size(); ++i) {
    const double x = origin.x() * ratio + piece.flat[i].x() * scale - side / 2;
    const double y = origin.y() * ratio - piece.flat[i].y() * scale - side / 2;
    if (!(x >= 0 && y >= 0 && x < width && y < height)) continue;
    QRgb* at = pixels + static_cast<qsizetype>(y) * stride + static_cast<qsizetype>(x);
    for (int row = 0; row < side; ++row, at += stride) std::fill_n(at, side, colours[i]);
  }
}

void PlanPainter::paintLargeDots(const PlanView::Piece& piece, double size,
                                 const std::vector<QRgb>& colours) {
  painter_.setPen(Qt::NoPen);
  const QRectF seen = QRectF(view_.rect()).adjusted(-size, -size, size, size);
  for (std::size_t i = 0; i < piece.flat.size(); ++i) {
    const QPointF at = view_.toScreen(piece.flat[i]);
    if (!seen.contains(at)) continue;
    painter_.setBrush(QColor(colours[i]));
    if (view_.side() == PlanSide::Unrolled)
      painter_.drawRoundedRect(QRectF(at.x() - size / 2, at.y() - size / 2, size, size), 2, 2);
    else
      painter_.drawEllipse(at, size / 2, size / 2);
  }
}

void PlanPainter::colour(const PlanView::Piece& piece, std::vector<QRgb>& colours) const {
  const auto& stage = view_.session().stage;
  const auto compiled = stage.compiled();
  const PixelFrame& frame = stage.frame();
  colours.assign(piece.flat.size(), unlitColour().rgb());
  const auto range = compiled ? compiled->map->rangeOf(piece.fixture->id) : std::nullopt;
  if (!range || range->count != std::ssize(piece.flat) || frame.size() != compiled->map->positions.size())
    return;
  constexpr int kDark = 40;
  for (std::size_t i = 0; i < colours.size(); ++i) {
    const auto pixel = static_cast<std::size_t>(range->first) + i;
    const Srgb8 c = toSrgb8({frame.r[pixel], frame.g[pixel], frame.b[pixel]});
    if (std::max({c.r, c.g, c.b}) > kDark) colours[i] = qRgb(c.r, c.g, c.b);
  }
}

void PlanPainter::paintPieces() {
  // Small dots are squares on whole pixels: a show of many LEDs has thousands of them.
  constexpr double kLarge = 4;
  const QRectF seen =
      QRectF(view_.toPlan({-20.0, view_.height() + 20.0}), view_.toPlan({view_.width() + 20.0, -20.0}))
          .normalized();
  std::vector<const PlanView::Piece*> large;
  std::vector<QRgb> colours;
  dots_.fill(Qt::transparent);
  for (const PlanView::Piece& piece : view_.pieces()) {
    if (piece.flat.empty() || !seen.intersects(piece.extent)) continue;
    const double size = dotSize(piece);
    if (size >= kLarge) {
      large.push_back(&piece);
      continue;
    }
    colour(piece, colours);
    paintSmallDots(piece, std::max(2, static_cast<int>(size * dots_.devicePixelRatio())), colours);
  }
  painter_.drawImage(0, 0, dots_);
  for (const PlanView::Piece* piece : large) {
    colour(*piece, colours);
    paintLargeDots(*piece, dotSize(*piece), colours);
  }
}

void PlanPainter::paintNumbers(const PlanView::Piece& piece) {
  painter_.setFont(numberFont(0.85));
  const double perPixel = view_.side() == PlanSide::Unrolled
                              ? view_.scale() * 0.1
                              : std::max(0.2, pitch_m(piece.fixture->segments.front()) * view_.scale());
  const auto every = static_cast<std::size_t>(std::max(1.0, roundStep(44 / perPixel)));
  painter_.setPen(theme().text);
  const QPointF first = view_.toScreen(piece.flat.front());
  QPointF lastNumber = first - QPointF(40, 0);
  for (std::size_t i = every; i <= piece.flat.size(); i += every) {
    const QPointF at = view_.toScreen(piece.flat[i - 1]);
    // Seen end-on, a post's pixels fall together: one number is enough.
    if ((at - lastNumber).manhattanLength() < 24 || (at - first).manhattanLength() < 12) continue;
    lastNumber = at;
    painter_.drawLine(at + QPointF(0, 4), at + QPointF(0, 9));
    painter_.drawText(at + QPointF(2, 19), QString::number(i));
  }
}

void PlanPainter::paintArrow(const PlanView::Piece& piece, double size, const QColor& colour) {
  const QPointF first = view_.toScreen(piece.flat.front());
  QPointF along = piece.flat.size() > 1 ? view_.toScreen(piece.flat[1]) - first : QPointF(1, 0);
  const double length = std::hypot(along.x(), along.y());
  along = length > 0.01 ? along / length : QPointF(1, 0);
  const QPointF beside(-along.y(), along.x());
  const QPointF tip = first - along * (size / 2 + 1);
  painter_.setPen(Qt::NoPen);
  painter_.setBrush(colour);
  painter_.drawPolygon(
      QPolygonF{tip, tip - along * size + beside * (size / 2), tip - along * size - beside * (size / 2)});
}

void PlanPainter::paintLabels() {
  constexpr std::size_t kMax = 300;
  if (view_.pieces().size() > kMax || view_.side() == PlanSide::Unrolled) return;
  painter_.setFont(numberFont(0.8));
  const QFontMetrics metrics = painter_.fontMetrics();
  std::vector<QRectF> taken;
  for (const PlanView::Piece& piece : view_.pieces()) {
    if (piece.flat.empty()) continue;
    constexpr double kArrow = 6;
    if (piece.flat.size() > 1) paintArrow(piece, kArrow, theme().fine.darker(theme().isDark ? 130 : 90));
    const QString name = text(piece.fixture->name);
    const QRectF box =
        QRectF(metrics.boundingRect(name)).translated(view_.toScreen(piece.flat.front()) + QPointF(7, -7));
    if (std::any_of(taken.begin(), taken.end(),
                    [&](const QRectF& other) { return other.adjusted(-6, -2, 6, 2).intersects(box); }))
      continue;
    taken.push_back(box);
    painter_.setPen(theme().quiet);
    painter_.drawText(box.bottomLeft(), name);
  }
}

void PlanPainter::paintOutline(const PlanView::Piece& piece) {
  constexpr double kMargin = 8;
  painter_.setBrush(Qt::NoBrush);
  if (!painter_.testRenderHint(QPainter::Antialiasing)) {
    painter_.setPen(theme().ember);
    const QRectF box(view_.toScreen(piece.extent.topLeft()), view_.toScreen(piece.extent.bottomRight()));
    painter_.drawRect(box.normalized().adjusted(-kMargin, -kMargin, kMargin, kMargin));
    return;
  }
  std::vector<QPointF> points;
  points.reserve(piece.flat.size());
  for (const QPointF& point : piece.flat)
    if (!std::isnan(point.x())) points.push_back(view_.toScreen(point));
  painter_.setPen(QPen(theme().ember, 1.2));
  painter_.drawPolygon(outlineAbout(std::move(points), kMargin));
}

void PlanPainter::paintFixture(const PlanView::Piece& piece, bool isNumbered) {
  paintOutline(piece);
  paintArrow(piece, 11, theme().fine);
  if (!isNumbered) return;
  painter_.setFont(numberFont(0.85));
  painter_.setPen(theme().fine);
  painter_.drawText(view_.toScreen(piece.flat.front()) + QPointF(-14, -14), PlanView::tr("data in"));
  paintNumbers(piece);
}

void PlanPainter::paintWalk(const PlanView::Piece& piece, int pixel) {
  const auto at = static_cast<std::size_t>(pixel);
  if (at >= piece.flat.size()) return;
  const QPointF spot = view_.toScreen(piece.flat[at]);
  painter_.setPen(QPen(theme().text, 2));
  painter_.setBrush(Qt::NoBrush);
  painter_.drawEllipse(spot, 9, 9);
  const Vec3 p = piece.points[at];
  const QString address = view_.addressOf(piece.fixture->id, pixel);
  const QString words = PlanView::tr("pixel %1%2\n%3, %4, %5 m")
                            .arg(pixel + 1)
                            .arg(address.isEmpty() ? QString() : QStringLiteral(" · ") + address)
                            .arg(p.x, 0, 'f', 3)
                            .arg(p.y, 0, 'f', 3)
                            .arg(p.z, 0, 'f', 3);
  painter_.setFont(numberFont(0.9));
  QRectF box = painter_.boundingRect(QRectF(spot + QPointF(16, 8), QSizeF(320, 60)), Qt::AlignLeft, words);
  painter_.setPen(theme().line);
  painter_.setBrush(theme().raised);
  painter_.drawRoundedRect(box.adjusted(-6, -4, 6, 4), 4, 4);
  painter_.setPen(theme().text);
  painter_.drawText(box, words);
}

void PlanPainter::paintCellNumbers(const std::vector<std::optional<QPointF>>& spots, double gap) {
  const auto count = static_cast<int>(spots.size());
  painter_.setFont(numberFont(0.85));
  std::vector<QRectF> taken;
  const auto label = [&](int cell) {
    const auto& at = spots[static_cast<std::size_t>(cell)];
    const QString number = QString::number(cell + 1);
    if (!at) return;
    const QRectF box = QRectF(painter_.fontMetrics().boundingRect(number))
                           .translated(*at + QPointF(8, -6))
                           .adjusted(-3, -1, 3, 1);
    if (std::any_of(taken.begin(), taken.end(),
                    [&](const QRectF& other) { return other.adjusted(-2, -2, 2, 2).intersects(box); }))
      return;
    taken.push_back(box);
    painter_.setPen(Qt::NoPen);
    painter_.setBrush(theme().raised);
    painter_.drawRoundedRect(box, 3, 3);
    painter_.setPen(cellColour(cell, count));
    painter_.drawText(*at + QPointF(8, -6), number);
  };
  const int step = static_cast<int>(roundStep(std::max({1.0, count / 60.0, 36 / std::max(0.5, gap)})));
  if (count > 0) label(0);
  if (count > 1) label(count - 1);
  for (int cell = step - 1; cell < count; cell += step) label(cell);
}

void PlanPainter::paintZone(const Zone& zone) {
  const ZoneCells& cells = *view_.zoneCells();
  const auto pixels = view_.pieces().empty() ? 0
                                             : static_cast<std::size_t>(view_.pieces().back().first) +
                                                   view_.pieces().back().points.size();
  std::vector<std::optional<QPointF>> spots(pixels);
  for (const PlanView::Piece& piece : view_.pieces())
    for (std::size_t i = 0; i < piece.flat.size(); ++i)
      if (!std::isnan(piece.flat[i].x()))
        spots[static_cast<std::size_t>(piece.first) + i] = view_.toScreen(piece.flat[i]);
  const int count = cells.count();
  std::vector<std::optional<QPointF>> firsts;
  QPolygonF way;
  for (int cell = 0; cell < count; ++cell) {
    firsts.push_back(cells.pixelsOf(cell).empty() ? std::nullopt : spots[cells.pixelsOf(cell).front()]);
    if (firsts.back()) way << *firsts.back();
  }
  const double gap = typicalGap(way);
  const double radius = std::clamp(gap * 0.45, 2.5, 6.0);
  for (int cell = 0; cell < count; ++cell) {
    painter_.setPen(QPen(cellColour(cell, count), radius < 4 ? 1.4 : 2));
    painter_.setBrush(Qt::NoBrush);
    for (const std::uint32_t pixel : cells.pixelsOf(cell))
      if (spots[pixel]) painter_.drawEllipse(*spots[pixel], radius, radius);
  }
  constexpr int kMaxLegs = 1500;
  if (way.size() <= kMaxLegs) {
    painter_.setPen(QPen(QColor(theme().text.red(), theme().text.green(), theme().text.blue(), 70), 1));
    painter_.drawPolyline(way);
  }
  paintCellNumbers(firsts, gap);
  if (!zone.centre_m || view_.side() == PlanSide::Unrolled) return;
  const QPointF centre = view_.toScreen(cells.frame.centre_m);
  painter_.setPen(QPen(theme().watch, 1.5));
  painter_.drawLine(centre - QPointF(8, 0), centre + QPointF(8, 0));
  painter_.drawLine(centre - QPointF(0, 8), centre + QPointF(0, 8));
}

void PlanPainter::paintPixels(const std::vector<std::uint32_t>& pixels) {
  painter_.setPen(QPen(theme().ember, 1.4));
  painter_.setBrush(Qt::NoBrush);
  auto piece = view_.pieces().begin();
  for (const std::uint32_t pixel : pixels) {
    while (piece != view_.pieces().end() &&
           pixel >= static_cast<std::uint32_t>(piece->first) + piece->flat.size())
      ++piece;
    if (piece == view_.pieces().end()) return;
    const QPointF& at = piece->flat[pixel - static_cast<std::uint32_t>(piece->first)];
    if (!std::isnan(at.x())) painter_.drawEllipse(view_.toScreen(at), 3, 3);
  }
}

void PlanPainter::paintSelection() {
  const Selection& selection = view_.session().selection;
  const ZoneIds zones = selection.all<ZoneId>();
  if (zones.size() == 1 && view_.zoneCells())
    if (const Zone* zone = chispa::find(view_.session().show().zones, zones.front())) paintZone(*zone);
  paintPixels(view_.zonePixels());
  // A thousand outlines with fine edges would take longer than all else: these are boxes.
  constexpr std::size_t kMany = 100;
  constexpr std::size_t kNumbered = 4;
  const std::size_t count = selection.fixtures().size();
  painter_.setRenderHint(QPainter::Antialiasing, count <= kMany);
  for (const PlanView::Piece& piece : view_.pieces())
    if (selection.has(piece.fixture->id) && !piece.flat.empty() && !std::isnan(piece.flat.front().x())) {
      paintFixture(piece, count <= kNumbered);
      if (selection.pixel()) paintWalk(piece, *selection.pixel());
    }
  painter_.setRenderHint(QPainter::Antialiasing, true);
}

void PlanPainter::paintHint() {
  painter_.setPen(theme().quiet);
  painter_.setFont(QFont());
  if (view_.pieces().empty() && view_.tool() == PlanTool::Select) {
    painter_.drawText(
        view_.rect(), Qt::AlignCenter,
        PlanView::tr(
            "Nothing is built yet.\n\nChoose Line (L), Matrix (G) or Ring (O) above and drag on the plan,\n"
            "or open the demo from the Help menu."));
    return;
  }
  const auto& selected = view_.session().selection.now();
  if (view_.side() == PlanSide::Unrolled && std::holds_alternative<std::monostate>(selected)) {
    painter_.drawText(
        view_.rect(), Qt::AlignCenter,
        PlanView::tr(
            "Select a fixture or a zone on the left:\nit is laid out here in its rows and columns."));
    return;
  }
  const QString words = view_.hint();
  if (words.isEmpty()) return;
  // The glow has the lower right corner.
  const QRectF room(0, 0, std::max(200.0, view_.width() * 0.62), view_.height());
  QRectF box = painter_.boundingRect(room, Qt::TextWordWrap | Qt::AlignLeft, words).adjusted(-8, -4, 8, 4);
  box.moveBottomLeft(QPointF(10, view_.height() - 10));
  painter_.setPen(theme().line);
  painter_.setBrush(theme().panel);
  painter_.drawRoundedRect(box, 4, 4);
  painter_.setPen(theme().text);
  painter_.drawText(box, Qt::TextWordWrap | Qt::AlignCenter, words);
}

}  // namespace chispa::desk
