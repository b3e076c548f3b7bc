// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <vector>

#include <QFutureWatcher>
#include <QWidget>

#include "core/almanac/nights.h"
#include "desk/session/nightdesk.h"

namespace chispa::desk {

/// The year as a ribbon: a column a day, hours downward from noon to noon, dusk and dawn as curves, each rule
/// in its tint, what goes before another hatched, tonight marked. A drag over it makes a rule; a click
/// chooses one. From the keyboard: arrows move a day and an hour, Page Up and Page Down a month; Enter makes
/// a rule there or chooses the one that plays. UI thread; the year is worked out on a worker.
class AlmanacView : public QWidget {
  Q_OBJECT
 public:
  AlmanacView(const Session& session, NightDesk& night, QWidget* parent = nullptr);

  QSize sizeHint() const override { return {420, 150}; }
  int year() const { return year_; }
  void setYear(int year);
  /// The day that the pointer or the keyboard is at.
  Date dayAt(double x) const;
  double xOf(Date date) const;
  /// Minutes after the noon of that day, 0–1440.
  double minutesAt(double y) const;
  double yOf(double minutes) const;
  /// What was worked out last is what the show says now.
  bool isFresh() const { return !watcher_.isRunning() && !isAgain_; }
  /// A tint for a rule, by its place in the list.
  static QColor tintOf(std::size_t rule);

 signals:
  /// Asked about this instant.
  void asked(Instant at);
  void yearChanged();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

 private:
  /// A year, worked out.
  struct Year {
    int number = 0;
    std::vector<Night> nights;
    TimeZone zone = TimeZone::utc();
    Items<Rule> rules;
  };
  /// Left of the year: the hours.
  static constexpr double kLeft_px = 42;
  static Date firstOf(int year);
  static int daysOf(int year);
  static std::optional<Year> worked(const Show& show, int year);
  void request();
  void finish();
  QRectF field() const;
  QRectF columnOf(Date date, double top, double bottom) const;
  double minutesOf(Instant at, Date night) const;
  std::optional<Slot> slotAt(QPointF at) const;
  QString wordsAt(QPointF at) const;
  void makeRule(QRectF drawn);
  NightTime timeAt(double minutes, Date date, bool isEnd) const;
  void paintSky(QPainter& painter) const;
  void paintRules(QPainter& painter) const;
  void paintScales(QPainter& painter) const;

  Session session_;
  NightDesk& night_;
  int year_;
  std::optional<Year> shown_;
  QFutureWatcher<std::optional<Year>> watcher_;
  bool isAgain_ = false;
  std::optional<QPointF> pressedAt_;
  QPointF pointer_;
  Date cursorDay_{};
  double cursorMinutes_ = 9 * 60;
  bool hasCursor_ = false;
};

}  // namespace chispa::desk
