// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QLabel;
class QListWidget;
class QTreeWidget;
class QTreeWidgetItem;

namespace chispa::desk {

class GlowView;
class PlanView;

/// The workspace Plan: lists of fixtures and zones, the tools, the plan, and the glow in its corner.
class PlanPage : public QWidget {
  Q_OBJECT
 public:
  explicit PlanPage(const Session& session, QWidget* parent = nullptr);

  PlanView& view() { return *view_; }
  /// Fills the lists anew in the theme's colours.
  void refreshLists() { fillLists(); }
  /// Makes a fixture of the points in a file; asks for it and its unit if `path` is empty.
  void importPoints(QString path = {}, double metresPerUnit = 1);
  /// Writes the places of the selected fixtures' pixels, as a table or a JSON list by the file's ending.
  void exportPoints(QString path = {});
  /// F2: edits the name of what is selected, in the list.
  void renameSelected();

 signals:
  /// Something could not be read or written.
  void failed(const QString& words);

 protected:
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QWidget* makeLists();
  QWidget* makeTools();
  void fillLists();
  void fillFixtures();
  void fillZones();
  void showSelection();
  void takeTreeSelection();
  void rename(QTreeWidgetItem* item);
  void placeGlow();
  void makeZone();

  Session session_;
  QTreeWidget* fixtures_;
  QListWidget* zones_;
  QLabel* pixels_;
  PlanView* view_;
  GlowView* glow_;
  bool filling_ = false;
};

}  // namespace chispa::desk
