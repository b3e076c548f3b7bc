// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/forms/stripwalk.h"

#include <algorithm>
#include <cmath>

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kLine_px = 12;
constexpr int kMaxLines = 6;

}  // namespace

StripWalk::StripWalk(const Session& session, FixtureId fixture) : session_(session), fixture_(fixture) {
  setObjectName(QStringLiteral("stripWalk"));
  setAccessibleName(tr("Walk along the strip"));
  setToolTip(tr("Click a pixel, or step with the arrow keys, to see where it is."));
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  connect(&session_.selection, &Selection::changed, this, qOverload<>(&StripWalk::update));
}

int StripWalk::count() const {
  const Fixture* fixture = chispa::find(session_.show().fixtures, fixture_);
  return fixture ? pixelCount(*fixture) : 0;
}

int StripWalk::perLine() const {
  constexpr int kComfortable = 32;
  return std::max(kComfortable, (count() + kMaxLines - 1) / kMaxLines);
}

double StripWalk::step() const {
  return (width() - 4.0) / std::max(1, std::min(perLine(), std::max(8, count())));
}

QSize StripWalk::sizeHint() const {
  return {200, static_cast<int>(kLine_px * std::min(kMaxLines, (count() + perLine() - 1) / perLine())) + 4};
}

QPointF StripWalk::spotOf(int pixel) const {
  return {2 + (pixel % perLine() + 0.5) * step(), 2 + (pixel / perLine() + 0.5) * kLine_px};
}

void StripWalk::paintEvent(QPaintEvent*) {
  const Fixture* fixture = chispa::find(session_.show().fixtures, fixture_);
  if (!fixture) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  const double radius = std::clamp(step() * 0.4, 0.7, 3.5);
  int pixel = 0;
  for (std::size_t s = 0; s < fixture->segments.size(); ++s) {
    painter.setBrush(s % 2 == 0 ? theme().quiet : theme().fine);
    for (int i = 0; i < pixelCount(fixture->segments[s]); ++i, ++pixel)
      painter.drawEllipse(spotOf(pixel), radius, radius);
  }
  if (const auto at = session_.selection.pixel(); at && *at < pixel) {
    painter.setBrush(theme().ember);
    painter.drawEllipse(spotOf(*at), radius + 2, radius + 2);
  }
  if (!hasFocus()) return;
  painter.setPen(theme().ember);
  painter.setBrush(Qt::NoBrush);
  painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
}

void StripWalk::walkTo(int pixel) {
  session_.selection.choosePixel(std::clamp(pixel, 0, std::max(0, count() - 1)));
}

void StripWalk::walkTo(QPointF at) {
  const int column = std::clamp(static_cast<int>((at.x() - 2) / step()), 0, perLine() - 1);
  const int row = std::clamp(static_cast<int>((at.y() - 2) / kLine_px), 0, kMaxLines - 1);
  walkTo(row * perLine() + column);
}

void StripWalk::mousePressEvent(QMouseEvent* event) {
  walkTo(event->position());
}

void StripWalk::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) walkTo(event->position());
}

void StripWalk::keyPressEvent(QKeyEvent* event) {
  const int now = session_.selection.pixel().value_or(-1);
  switch (event->key()) {
    case Qt::Key_Left:
      return walkTo(now - 1);
    case Qt::Key_Right:
      return walkTo(now + 1);
    case Qt::Key_Up:
      return walkTo(now - 10);
    case Qt::Key_Down:
      return walkTo(now + 10);
    case Qt::Key_Home:
      return walkTo(0);
    case Qt::Key_End:
      return walkTo(count() - 1);
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
