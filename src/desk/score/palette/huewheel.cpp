// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/palette/huewheel.h"

#include <cmath>

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include "core/base/vec3.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kDot_px = 6;
/// Colourfulness at the rim: no colour of a screen has more.
constexpr double kMaxChroma = 0.33;

}  // namespace

HueWheel::HueWheel(PaletteAccess palette, ChosenStop& chosen, QWidget* parent)
    : QWidget(parent), palette_(palette), chosen_(chosen) {
  named(this, "hueWheel", tr("Hues of the palette"),
        tr("Drag a colour to another hue; outward it is more colourful. Arrows left and right turn the hue, "
           "up and down change how colourful it is."));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(sizeHint().height());
  connect(&chosen_, &ChosenStop::changed, this, qOverload<>(&QWidget::update));
}

double HueWheel::radius() const {
  return std::min(width(), height()) / 2.0 - kDot_px - 2;
}

QPointF HueWheel::spotOf(const OkLch& colour) const {
  const double out = std::min(1.0, colour.chroma / kMaxChroma) * radius();
  const double angle = radians(colour.hue_deg);
  return QRectF(rect()).center() + QPointF(std::cos(angle), -std::sin(angle)) * out;
}

void HueWheel::drawWheel(double lightness) {
  const double scale = devicePixelRatioF();
  const int side = std::max(2, static_cast<int>(2 * radius() * scale));
  if (wheel_.width() == side && std::abs(lightness - drawnLightness_) < 0.005) return;
  drawnLightness_ = lightness;
  wheel_ = QImage(side, side, QImage::Format_ARGB32_Premultiplied);
  wheel_.fill(Qt::transparent);
  // A quarter of the dots, made smooth when it is drawn, is fine enough for so soft a picture.
  constexpr int kCoarse = 2;
  QImage coarse(side / kCoarse, side / kCoarse, QImage::Format_RGB32);
  for (int y = 0; y < coarse.height(); ++y)
    for (int x = 0; x < coarse.width(); ++x) {
      const double dx = (x + 0.5) / coarse.width() * 2 - 1;
      const double dy = 1 - (y + 0.5) / coarse.height() * 2;
      const Srgb8 c = fromOkLch({lightness, std::min(1.0, std::hypot(dx, dy)) * kMaxChroma,
                                 degrees(std::atan2(dy, dx)) + (dy < 0 ? 360 : 0)});
      coarse.setPixel(x, y, qRgb(c.r, c.g, c.b));
    }
  QPainter painter(&wheel_);
  painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
  QPainterPath disc;
  disc.addEllipse(QRectF(0.5, 0.5, side - 1, side - 1));
  painter.setClipPath(disc);
  painter.drawImage(QRect(0, 0, side, side), coarse);
}

void HueWheel::paintEvent(QPaintEvent*) {
  const Palette palette = palette_.get();
  const OkLch chosen = toOkLch(chosen_.in(palette).colour);
  // Very dark or light wheels would show no hue at all.
  drawWheel(std::clamp(chosen.lightness, 0.6, 0.82));
  QPainter painter(this);
  painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
  const QPointF centre = QRectF(rect()).center();
  painter.drawImage(QRectF(centre - QPointF(radius(), radius()), QSizeF(2 * radius(), 2 * radius())), wheel_);
  painter.setPen(QPen(hasFocus() ? theme().ember : theme().line, 1.5));
  painter.setBrush(Qt::NoBrush);
  painter.drawEllipse(centre, radius() + 1, radius() + 1);
  QPolygonF way;
  for (const ColourStop& stop : palette.stops) way << spotOf(toOkLch(stop.colour));
  painter.setPen(QPen(QColor(0, 0, 0, 130), 2));
  painter.drawPolyline(way);
  for (std::size_t i = 0; i < palette.stops.size(); ++i) {
    const bool isChosen = i == chosen_.of(palette);
    const Srgb8 c = palette.stops[i].colour;
    painter.setBrush(QColor(c.r, c.g, c.b));
    painter.setPen(QPen(isChosen ? theme().ember : QColor(0, 0, 0, 190), isChosen ? 3 : 1.5));
    painter.drawEllipse(way[static_cast<qsizetype>(i)], kDot_px, kDot_px);
  }
}

void HueWheel::setColour(OkLch colour) {
  colour.hue_deg = std::fmod(colour.hue_deg + 360, 360);
  colour.chroma = std::clamp(colour.chroma, 0.0, kMaxChroma);
  palette_.change(
      tr("turn a colour's hue"),
      [&](Palette& p) {
        if (!p.stops.empty()) p.stops[chosen_.of(p)].colour = fromOkLch(colour);
      },
      QStringLiteral("stop-hue"));
  emit chosen_.changed();
}

void HueWheel::mousePressEvent(QMouseEvent* event) {
  const Palette palette = palette_.get();
  if (event->button() != Qt::LeftButton || palette.stops.empty()) return;
  double nearest = 2.5 * kDot_px;
  for (std::size_t i = 0; i < palette.stops.size(); ++i) {
    const QPointF to = spotOf(toOkLch(palette.stops[i].colour)) - event->position();
    const double far = std::hypot(to.x(), to.y());
    if (far >= nearest) continue;
    nearest = far;
    chosen_.choose(i);
    isDragging_ = true;
  }
}

void HueWheel::mouseMoveEvent(QMouseEvent* event) {
  if (!isDragging_) return;
  const QPointF from = event->position() - QRectF(rect()).center();
  const double lightness = toOkLch(chosen_.in(palette_.get()).colour).lightness;
  setColour({lightness, std::hypot(from.x(), from.y()) / radius() * kMaxChroma,
             degrees(std::atan2(-from.y(), from.x()))});
}

void HueWheel::mouseReleaseEvent(QMouseEvent*) {
  if (isDragging_) palette_.seal();
  isDragging_ = false;
}

void HueWheel::keyPressEvent(QKeyEvent* event) {
  OkLch colour = toOkLch(chosen_.in(palette_.get()).colour);
  constexpr double kTurn_deg = 5;
  constexpr double kStronger = 0.01;
  switch (event->key()) {
    case Qt::Key_Left:
      colour.hue_deg += kTurn_deg;
      break;
    case Qt::Key_Right:
      colour.hue_deg -= kTurn_deg;
      break;
    case Qt::Key_Up:
      colour.chroma += kStronger;
      break;
    case Qt::Key_Down:
      colour.chroma -= kStronger;
      break;
    default:
      return QWidget::keyPressEvent(event);
  }
  setColour(colour);
}

}  // namespace chispa::desk
