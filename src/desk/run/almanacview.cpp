// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/almanacview.h"

#include <cmath>

#include <QHelpEvent>
#include <QMouseEvent>
#include <QToolTip>
#include <QtConcurrent>

#include "core/edit/setlistedits.h"
#include "desk/parts/format.h"
#include "desk/session/pools.h"

namespace chispa::desk {

using std::chrono::days;
using std::chrono::minutes;

namespace {

constexpr double kDay_min = 24 * 60;
constexpr double kRight_px = 8;
constexpr double kTop_px = 4;
/// A time this near to dusk or sunset means it.
constexpr double kSnap_min = 25;
constexpr int kQuarter_min = 15;

}  // namespace

Date AlmanacView::firstOf(int year) {
  return Date(std::chrono::year(year) / 1 / 1);
}
int AlmanacView::daysOf(int year) {
  return static_cast<int>((firstOf(year + 1) - firstOf(year)).count());
}

AlmanacView::AlmanacView(const Session& session, NightDesk& night, QWidget* parent)
    : QWidget(parent), session_(session), night_(night) {
  setObjectName(QStringLiteral("almanacView"));
  setAccessibleName(tr("Almanac of the year"));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setMinimumHeight(110);
  const auto today = std::chrono::floor<days>(night_.now());
  year_ = calendarDay(today).year;
  cursorDay_ = today;
  connect(&watcher_, &QFutureWatcherBase::finished, this, &AlmanacView::finish);
  connect(&night_, &NightDesk::almanacChanged, this, &AlmanacView::request);
  connect(&session_.selection, &Selection::changed, this, qOverload<>(&QWidget::update));
  request();
}

void AlmanacView::setYear(int year) {
  if (year == year_) return;
  year_ = year;
  emit yearChanged();
  request();
}

std::optional<AlmanacView::Year> AlmanacView::worked(const Show& show, int number) {
  const auto plan = NightPlan::of(show);
  if (!plan) return std::nullopt;
  return Year{number, plan->nights(firstOf(number), daysOf(number)), plan->zone(), show.rules};
}

/// One at a time; what changes meanwhile is worked out after it.
void AlmanacView::request() {
  if (watcher_.isRunning()) {
    isAgain_ = true;
    return;
  }
  isAgain_ = false;
  watcher_.setFuture(QtConcurrent::run(
      &pools::drawing(), [show = session_.show(), year = year_] { return worked(show, year); }));
}

void AlmanacView::finish() {
  shown_ = watcher_.result();
  update();
  if (isAgain_) request();
}

QRectF AlmanacView::field() const {
  const double bottom = fontMetrics().height() + 4;
  return QRectF(kLeft_px, kTop_px, width() - kLeft_px - kRight_px, height() - kTop_px - bottom);
}

double AlmanacView::xOf(Date date) const {
  return field().left() +
         field().width() * static_cast<double>((date - firstOf(year_)).count()) / daysOf(year_);
}

Date AlmanacView::dayAt(double x) const {
  const double day = (x - field().left()) / std::max(1.0, field().width()) * daysOf(year_);
  return firstOf(year_) + days(std::clamp(static_cast<int>(std::floor(day)), 0, daysOf(year_) - 1));
}

double AlmanacView::yOf(double after) const {
  return field().top() + field().height() * after / kDay_min;
}

double AlmanacView::minutesAt(double y) const {
  return std::clamp((y - field().top()) / std::max(1.0, field().height()) * kDay_min, 0.0, kDay_min);
}

/// Minutes after noon, by the clock: the hour that the clocks jump is not seen.
double AlmanacView::minutesOf(Instant at, Date night) const {
  const LocalTime local = shown_->zone.localOf(at);
  return static_cast<double>((local.date - night).count()) * kDay_min +
         std::chrono::duration<double, std::ratio<60>>(local.time).count() - kDay_min / 2;
}

std::optional<Slot> AlmanacView::slotAt(QPointF at) const {
  if (!shown_ || !field().contains(at)) return std::nullopt;
  const Date day = dayAt(at.x());
  const double after = minutesAt(at.y());
  const auto& tonight = shown_->nights[static_cast<std::size_t>((day - firstOf(year_)).count())].nightSlots;
  const auto found = std::find_if(tonight.begin(), tonight.end(), [&](const Slot& slot) {
    return after >= minutesOf(slot.start, day) && after < minutesOf(slot.end, day);
  });
  return found == tonight.end() ? std::nullopt : std::optional(*found);
}

QString AlmanacView::wordsAt(QPointF at) const {
  if (!shown_) return {};
  const Date day = dayAt(at.x());
  const int after = static_cast<int>(minutesAt(at.y())) + 12 * 60;
  QString words = tr("%1, %2:%3")
                      .arg(dayText(day))
                      .arg(after / 60 % 24, 2, 10, QLatin1Char('0'))
                      .arg(after % 60, 2, 10, QLatin1Char('0'));
  if (const auto slot = slotAt(at))
    if (const Rule* rule = chispa::find(shown_->rules, slot->rule))
      words += tr(": %1 from %2 to %3")
                   .arg(text(rule->name), text(clockText(slot->start, shown_->zone)),
                        text(clockText(slot->end, shown_->zone)));
  return words;
}

bool AlmanacView::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  QToolTip::showText(help->globalPos(), wordsAt(help->pos()), this);
  return true;
}

void AlmanacView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !field().contains(event->position())) return;
  pointer_ = event->position();
  pressedAt_ = pointer_;
}

void AlmanacView::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  if (pressedAt_) update();
}

void AlmanacView::mouseReleaseEvent(QMouseEvent* event) {
  if (!pressedAt_ || !shown_) return;
  const QPointF from = *std::exchange(pressedAt_, std::nullopt);
  update();
  constexpr double kClick_px = 5;
  if ((event->position() - from).manhattanLength() > 2 * kClick_px)
    return makeRule(QRectF(from, event->position()).normalized());
  cursorDay_ = dayAt(from.x());
  cursorMinutes_ = minutesAt(from.y());
  const auto slot = slotAt(from);
  if (slot)
    session_.selection.select(slot->rule);
  else
    session_.selection.select(AlmanacChoice{});
  emit asked(shown_->zone.instantOf(cursorDay_, minutes(12 * 60 + static_cast<int>(cursorMinutes_))));
}

/// Near dusk or dawn it is those that are meant, else the clock, to a quarter of an hour.
NightTime AlmanacView::timeAt(double after, Date date, bool isEnd) const {
  const Night& night = shown_->nights[static_cast<std::size_t>((date - firstOf(year_)).count())];
  const auto isNear = [&](const std::optional<Instant>& event) {
    return event && std::abs(minutesOf(*event, date) - after) <= kSnap_min;
  };
  if (isNear(night.dusk)) return {NightTimeKind::Dusk, 0};
  if (isNear(night.sunset)) return {NightTimeKind::Sunset, 0};
  if (isEnd && isNear(night.dawn)) return {NightTimeKind::Dawn, 0};
  const int quarter = static_cast<int>(std::lround((after + 12 * 60) / kQuarter_min)) * kQuarter_min;
  return {NightTimeKind::Clock, quarter % (24 * 60)};
}

void AlmanacView::makeRule(QRectF drawn) {
  drawn = drawn.intersected(field());
  const Date first = dayAt(drawn.left()), last = dayAt(drawn.right());
  const Date middle = first + (last - first) / 2;
  const auto ofEveryYear = [](Date date) { return dateText(date).substr(5); };
  RuleId made;
  session_.edit(tr("draw a rule"), [&](Show& show) {
    made = addRule(show, tr("Rule").toStdString());
    changeItem(show.rules, made, [&](Rule& rule) {
      rule.days.first = ofEveryYear(first);
      rule.days.last = ofEveryYear(last);
      rule.from = timeAt(minutesAt(drawn.top()), middle, false);
      rule.until = timeAt(minutesAt(drawn.bottom()), middle, true);
    });
  });
  session_.selection.select(made);
}

void AlmanacView::keyPressEvent(QKeyEvent* event) {
  hasCursor_ = true;
  const auto move = [this](int by) {
    cursorDay_ += days(by);
    setYear(calendarDay(cursorDay_).year);
  };
  constexpr int kMonth = 30;
  constexpr double kHour_min = 60;
  switch (event->key()) {
    case Qt::Key_Left:
      move(-1);
      break;
    case Qt::Key_Right:
      move(1);
      break;
    case Qt::Key_PageUp:
      move(-kMonth);
      break;
    case Qt::Key_PageDown:
      move(kMonth);
      break;
    case Qt::Key_Up:
      cursorMinutes_ = std::max(0.0, cursorMinutes_ - kHour_min / 4);
      break;
    case Qt::Key_Down:
      cursorMinutes_ = std::min(kDay_min - 1, cursorMinutes_ + kHour_min / 4);
      break;
    case Qt::Key_Return:
    case Qt::Key_Enter: {
      const QPointF at(xOf(cursorDay_) + 0.5, yOf(cursorMinutes_));
      if (const auto slot = slotAt(at))
        session_.selection.select(slot->rule);
      else if (shown_)
        makeRule(QRectF(at, QPointF(xOf(cursorDay_ + days(kMonth)),
                                    yOf(std::min(kDay_min, cursorMinutes_ + 3 * kHour_min)))));
      break;
    }
    default:
      return QWidget::keyPressEvent(event);
  }
  update();
  if (shown_)
    emit asked(shown_->zone.instantOf(cursorDay_, minutes(12 * 60 + static_cast<int>(cursorMinutes_))));
}

}  // namespace chispa::desk
