// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "core/edit/templates.h"

class QGridLayout;
class QToolButton;
class QVBoxLayout;

namespace chispa::desk {

/// What stands in place of an empty plan: new shows to begin with, the shows that were open last, the demo,
/// and the Bench for who has a strip in the hand. It fills the widget that it is laid on. UI thread.
class StartPage : public QWidget {
  Q_OBJECT
 public:
  explicit StartPage(QWidget* parent);

  /// Lists the shows that were open last anew.
  void refresh();

 signals:
  void newAsked(chispa::ShowTemplate kind);
  /// An empty path asks for a file.
  void openAsked(const QString& path);
  void demoAsked();
  void benchAsked();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void showEvent(QShowEvent* event) override;

 private:
  void addTemplates(QVBoxLayout& column);
  void addDoors(QVBoxLayout& column);

  QGridLayout* recent_;
  QWidget* recentBox_;
  /// Those whose pictures are not drawn yet.
  std::vector<std::pair<ShowTemplate, QToolButton*>> tiles_;
};

}  // namespace chispa::desk
