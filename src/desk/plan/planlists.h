// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QLabel;
class QListWidget;
class QTreeWidget;
class QTreeWidgetItem;

namespace chispa::desk {

/// What there is: fixtures with their segments, and zones, beside the plan.
class PlanLists : public QWidget {
  Q_OBJECT
 public:
  explicit PlanLists(const Session& session, QWidget* parent = nullptr);

  /// Edits the name of what is selected, in the list.
  void renameSelected();
  /// Fills the lists anew whatever they show.
  void refill();

 private:
  void fill();
  void fillFixtures();
  void fillZones();
  QTreeWidgetItem* fixtureItem(const Fixture& fixture) const;
  void showSelection();
  void takeTreeSelection();
  void takeZoneSelection();
  void showZoneSelection();
  void rename(QTreeWidgetItem* item);
  void makeZone();

  Session session_;
  QTreeWidget* fixtures_;
  QListWidget* zones_;
  QLabel* pixels_;
  /// What the lists were filled from, so that they are not filled anew when something else changes.
  Items<Fixture> shownFixtures_;
  Items<Zone> shownZones_;
  bool filling_ = false;
};

}  // namespace chispa::desk
