// SPDX-License-Identifier: GPL-3.0-or-later
// How the year is drawn.
#include <algorithm>
#include <array>
#include <cmath>

#include <QPainter>
#include <QPainterPath>

#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"
#include "desk/run/almanacview.h"

namespace chispa::desk {

using std::chrono::days;
using std::chrono::minutes;

QColor AlmanacView::tintOf(std::size_t rule) {
  // Apart in hue and in lightness; the name stands with each.
  static const std::array<QColor, 6> kTints{QColor(0xB8, 0x6B, 0x2E), QColor(0x5B, 0x7D, 0x93),
                                            QColor(0x7A, 0x5C, 0x94), QColor(0x5E, 0x8C, 0x62),
                                            QColor(0x9C, 0x4A, 0x4A), QColor(0x8A, 0x80, 0x4C)};
  return kTints[rule % kTints.size()];
}

/// On whole dots: columns lie side by side, and none over another.
QRectF AlmanacView::columnOf(Date date, double top, double bottom) const {
  const double left = std::floor(xOf(date)), right = std::floor(xOf(date + days(1)));
  return {left, top, std::max(1.0, right - left), bottom - top};
}

void AlmanacView::paintSky(QPainter& painter) const {
  const QRectF box = field();
  painter.fillRect(box, theme().raised);
  const auto curve = [&](std::optional<Instant> Night::*event) {
    QPainterPath path;
    bool isBegun = false;
    for (const Night& night : shown_->nights) {
      if (!(night.*event)) {
        isBegun = false;
        continue;
      }
      const QPointF at(xOf(night.date) + 0.5, yOf(minutesOf(*(night.*event), night.date)));
      isBegun ? path.lineTo(at) : path.moveTo(at);
      isBegun = true;
    }
    return path;
  };
  // The dark of each night, column by column: where it does not get dark there is none.
  QColor dark = theme().night;
  dark.setAlpha(150);
  for (const Night& night : shown_->nights) {
    if (!night.dusk || !night.dawn) continue;
    const double top = yOf(minutesOf(*night.dusk, night.date));
    painter.fillRect(columnOf(night.date, top, yOf(minutesOf(*night.dawn, night.date))), dark);
  }
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(theme().watch, 1.4));
  painter.drawPath(curve(&Night::dusk));
  painter.drawPath(curve(&Night::dawn));
}

void AlmanacView::paintRules(QPainter& painter) const {
  const QRectF box = field();
  const double column = box.width() / daysOf(year_);
  painter.setRenderHint(QPainter::Antialiasing, false);
  painter.setClipRect(box);
  const auto placeOf = [&](RuleId id) {
    const auto found = std::find_if(shown_->rules.begin(), shown_->rules.end(),
                                    [id](const auto& rule) { return rule->id == id; });
    return static_cast<std::size_t>(found - shown_->rules.begin());
  };
  const auto boxOf = [&](const Slot& slot) {
    return columnOf(slot.night, yOf(minutesOf(slot.start, slot.night)), yOf(minutesOf(slot.end, slot.night)));
  };
  for (const Night& night : shown_->nights)
    for (const Slot& slot : night.alone) {
      QColor ground = tintOf(placeOf(slot.rule));
      ground.setAlpha(120);
      painter.fillRect(boxOf(slot), QBrush(ground, Qt::BDiagPattern));
    }
  const auto* chosen = std::get_if<RuleId>(&session_.selection.now());
  std::vector<QRectF> spans(shown_->rules.size());
  for (const Night& night : shown_->nights)
    for (const Slot& slot : night.nightSlots) {
      QColor tint = tintOf(placeOf(slot.rule));
      tint.setAlpha(chosen && *chosen == slot.rule ? 255 : 205);
      const QRectF own = boxOf(slot);
      painter.fillRect(own, tint);
      QRectF& span = spans[placeOf(slot.rule)];
      // The name goes into the longest run of days.
      const bool goesOn = !span.isNull() && own.left() - span.right() < column * 8;
      if (span.isNull())
        span = own;
      else if (goesOn)
        span = span.united(QRectF(own.left(), span.top(), own.width(), span.height()));
      else if (own.left() > span.right() && span.width() < 30 * column)
        span = own;
    }
  painter.setFont(numberFont(0.85));
  for (std::size_t i = 0; i < spans.size(); ++i) {
    if (spans[i].isNull()) continue;
    const QString name = text(shown_->rules[i]->name);
    const double wide = painter.fontMetrics().horizontalAdvance(name) + 4;
    // At the end of the year it leans against the edge.
    const double left = std::min(spans[i].left() + 3, box.right() - wide);
    const QRectF words(left, spans[i].top() + 1, std::max(spans[i].width() - 4, wide),
                       painter.fontMetrics().height());
    // A dark ground of its own, since it lies over day and night, whatever their colours.
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor(0, 0, 0, 130));
    painter.drawRoundedRect(QRectF(left - 3, words.top(), wide + 2, words.height()), 3, 3);
    painter.setPen(QColor(255, 255, 255));
    painter.drawText(words, Qt::AlignLeft | Qt::AlignTop, name);
  }
  painter.setClipping(false);
}

void AlmanacView::paintScales(QPainter& painter) const {
  const QRectF box = field();
  painter.setFont(numberFont(0.85));
  for (int hour = 0; hour <= 24; hour += 4) {
    const double y = yOf(hour * 60);
    painter.setPen(theme().line);
    if (hour > 0 && hour < 24) painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
    painter.setPen(theme().quiet);
    const double height = painter.fontMetrics().height();
    const double top = std::clamp(y - height / 2, 0.0, box.bottom() - height);
    painter.drawText(QRectF(0, top, kLeft_px - 5, height), Qt::AlignRight | Qt::AlignVCenter,
                     QStringLiteral("%1:00").arg((hour + 12) % 24, 2, 10, QLatin1Char('0')));
  }
  for (int month = 1; month <= 12; ++month) {
    const Date first = Date(std::chrono::year(year_) / month / 1);
    const double left = xOf(first);
    painter.setPen(theme().line);
    if (month > 1) painter.drawLine(QPointF(left, box.top()), QPointF(left, box.bottom()));
    painter.setPen(theme().quiet);
    painter.drawText(QRectF(left, box.bottom() + 2, box.width() / 12, fontMetrics().height() + 2),
                     Qt::AlignCenter, wordLocale().monthName(month, QLocale::ShortFormat));
  }
}

void AlmanacView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  if (!shown_ || shown_->number != year_) {
    painter.setPen(theme().quiet);
    painter.drawText(rect(), Qt::AlignCenter, tr("The year is being worked out …"));
    return;
  }
  paintSky(painter);
  paintScales(painter);
  paintRules(painter);
  const QRectF box = field();
  const Date tonight =
      shown_->zone.dateOf(std::chrono::floor<std::chrono::seconds>(night_.now()) - minutes(12 * 60));
  if (calendarDay(tonight).year == year_) {
    const double x = xOf(tonight) + box.width() / daysOf(year_) / 2;
    painter.setPen(QPen(theme().ember, 2));
    painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
  }
  if (hasFocus() && hasCursor_) {
    painter.setPen(QPen(theme().text, 1, Qt::DashLine));
    const double x = xOf(cursorDay_) + 0.5, y = yOf(cursorMinutes_);
    painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
    painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
  }
  if (pressedAt_) {
    const QRectF drawn = QRectF(*pressedAt_, pointer_).normalized().intersected(box);
    painter.setPen(QPen(theme().ember, 1.5));
    painter.setBrush(theme().selectedGround());
    painter.drawRect(drawn);
    painter.setPen(theme().text);
    painter.drawText(drawn.topLeft() + QPointF(3, -3), wordsAt(pointer_));
  }
  if (session_.show().rules.empty() && !pressedAt_) {
    painter.setPen(theme().text);
    painter.drawText(box, Qt::AlignCenter,
                     tr("Draw the evenings on which light is to play: drag from their first day\n"
                        "and hour to their last."));
  }
}

}  // namespace chispa::desk
