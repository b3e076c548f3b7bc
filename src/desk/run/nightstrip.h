// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "core/almanac/nights.h"
#include "desk/session/nightdesk.h"

class QLabel;
class QListWidget;
class QPushButton;

namespace chispa::desk {

class AlmanacView;

/// The almanac beneath the pads: the watch and tonight above, the year's ribbon, and beside it the next seven
/// nights, or why what plays at a moment one has asked about. UI thread.
class NightStrip : public QWidget {
  Q_OBJECT
 public:
  NightStrip(const Session& session, NightDesk& night, QWidget* parent = nullptr);

  AlmanacView& almanac() { return *view_; }
  void setWatching(bool on);
  void addRule();
  /// Asks for a day and a time, and tells what would play then.
  void ask();
  void askAbout(Instant at);

 signals:
  void failed(const QString& words);

 private:
  QWidget* makeHead();
  void follow();
  void fillNights();

  Session session_;
  NightDesk& night_;
  QPushButton* watch_;
  QPushButton* hold_;
  QPushButton* longer_;
  QPushButton* year_;
  QLabel* tonight_;
  AlmanacView* view_;
  QLabel* title_;
  QListWidget* list_;
  std::optional<Instant> asked_;
  Date filledFor_{};
};

}  // namespace chispa::desk
