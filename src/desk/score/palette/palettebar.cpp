// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/palette/palettebar.h"

#include <cmath>

#include <QMouseEvent>
#include <QPainter>

#include "core/edit/palettestops.h"
#include "desk/parts/gradientbar.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kHandle_px = 8;
constexpr double kHandleRow_px = 22;

}  // namespace

PaletteBar::PaletteBar(PaletteAccess palette, ChosenStop& chosen, QWidget* parent)
    : QWidget(parent), palette_(palette), chosen_(chosen) {
  named(this, "paletteBar", tr("Colours of the palette"),
        tr("Drag a colour along, double click for a new one, Delete removes the chosen one. Arrows move it, "
           "Page Up and Page Down choose another."));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(sizeHint().height());
  connect(&chosen_, &ChosenStop::changed, this, qOverload<>(&QWidget::update));
}

QRectF PaletteBar::strip() const {
  return QRectF(rect()).adjusted(kHandle_px, 1, -kHandle_px, -kHandleRow_px);
}
double PaletteBar::placeAt(double x) const {
  return (x - strip().left()) / strip().width();
}

QPointF PaletteBar::handleOf(std::size_t i) const {
  return {strip().left() + palette_.get().stops.at(i).at * strip().width(),
          strip().bottom() + kHandleRow_px / 2 + 1};
}

std::optional<std::size_t> PaletteBar::stopAt(QPointF at) const {
  const Palette palette = palette_.get();
  // Of those on one another the chosen one comes first, then the upper.
  std::optional<std::size_t> found;
  for (std::size_t i = 0; i < palette.stops.size(); ++i)
    if (std::abs(handleOf(i).x() - at.x()) <= kHandle_px && at.y() > strip().bottom() &&
        (found != chosen_.of(palette) || i == chosen_.of(palette)))
      found = i;
  return found;
}

void PaletteBar::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Palette palette = palette_.get();
  const QRectF colours = strip();
  painter.drawImage(colours, gradientImage(palette, std::max(1, static_cast<int>(colours.width())), 1));
  painter.setPen(hasFocus() ? theme().ember : theme().line);
  painter.drawRect(colours.adjusted(-0.5, -0.5, 0.5, 0.5));
  for (std::size_t i = 0; i < palette.stops.size(); ++i) {
    const QPointF at = handleOf(i);
    const bool isChosen = i == chosen_.of(palette);
    const Srgb8 c = palette.stops[i].colour;
    painter.setPen(QPen(isChosen ? theme().ember : theme().quiet, isChosen ? 2.5 : 1.5));
    painter.setBrush(QColor(c.r, c.g, c.b));
    painter.drawLine(QPointF(at.x(), colours.bottom() - 5), QPointF(at.x(), at.y() - kHandle_px));
    painter.drawEllipse(at, kHandle_px - 1, kHandle_px - 1);
  }
}

void PaletteBar::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  const auto stop = stopAt(event->position());
  isDragging_ = stop.has_value();
  if (stop) chosen_.choose(*stop);
}

void PaletteBar::moveTo(double at) {
  std::size_t now = 0;
  palette_.change(
      tr("move a colour"),
      [&](Palette& p) {
        if (!p.stops.empty()) now = moveStop(p, chosen_.of(p), at);
      },
      QStringLiteral("stop-drag"));
  chosen_.choose(now);
}

void PaletteBar::mouseMoveEvent(QMouseEvent* event) {
  if (isDragging_) moveTo(placeAt(event->position().x()));
}

void PaletteBar::mouseReleaseEvent(QMouseEvent*) {
  if (isDragging_) palette_.seal();
  isDragging_ = false;
}

void PaletteBar::add(double at) {
  std::size_t made = 0;
  palette_.change(tr("add a colour"), [&](Palette& p) { made = addStop(p, at); });
  chosen_.choose(made);
}

void PaletteBar::mouseDoubleClickEvent(QMouseEvent* event) {
  if (!stopAt(event->position())) add(placeAt(event->position().x()));
}

void PaletteBar::removeChosen() {
  palette_.change(tr("remove a colour"), [this](Palette& p) { removeStop(p, chosen_.of(p)); });
  chosen_.choose(chosen_.of(palette_.get()));
}

bool PaletteBar::event(QEvent* event) {
  // Delete is for the colour here, not for the palette.
  if (event->type() == QEvent::ShortcutOverride) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Delete || key == Qt::Key_Backspace) event->accept();
  }
  return QWidget::event(event);
}

void PaletteBar::keyPressEvent(QKeyEvent* event) {
  const Palette palette = palette_.get();
  if (palette.stops.empty()) return QWidget::keyPressEvent(event);
  const std::size_t chosen = chosen_.of(palette);
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 0.01;
  switch (event->key()) {
    case Qt::Key_Left:
      return moveTo(palette.stops[chosen].at - step);
    case Qt::Key_Right:
      return moveTo(palette.stops[chosen].at + step);
    case Qt::Key_PageUp:
      return chosen_.choose(chosen > 0 ? chosen - 1 : palette.stops.size() - 1);
    case Qt::Key_PageDown:
      return chosen_.choose((chosen + 1) % palette.stops.size());
    case Qt::Key_Insert:
      return add(chosen + 1 < palette.stops.size()
                     ? (palette.stops[chosen].at + palette.stops[chosen + 1].at) / 2
                     : palette.stops[chosen].at / 2);
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      return removeChosen();
    default:
      QWidget::keyPressEvent(event);
  }
}

void PaletteBar::focusInEvent(QFocusEvent*) {
  update();
}
void PaletteBar::focusOutEvent(QFocusEvent*) {
  update();
}

}  // namespace chispa::desk
