// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QLineEdit;
class QStackedWidget;

namespace chispa::desk {

class AddressSheet;
class LoomView;

/// The workspace Wire: the loom, and its second face, the address sheet.
class WirePage : public QWidget {
  Q_OBJECT
 public:
  explicit WirePage(const Session& session, QWidget* parent = nullptr);

  LoomView& loom() { return *loom_; }
  void showSheet(bool sheet);
  // Each asks for the file if none is given.
  /// Writes the rows of the address sheet that are shown, as a table.
  void exportSheet(QString path = {});
  /// Writes the wiring booklet as PDF.
  void exportBooklet(QString path = {});

 signals:
  /// The bead or port that is selected is to be lit, or not.
  void pointingChosen(bool on);
  /// Something could not be written.
  void failed(const QString& words);

 private:
  QWidget* makeLoomTools();

  Session session_;
  LoomView* loom_;
  AddressSheet* sheet_;
  QStackedWidget* faces_;
  QLineEdit* filter_;
  QWidget* hint_;
};

}  // namespace chispa::desk
