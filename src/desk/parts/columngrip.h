// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <utility>

#include <QWidget>

namespace chispa::desk {

/// The right edge of a side column, by which it is made wider: dragged with the mouse, or moved by the left
/// and right arrow keys; a double click and Home give it the width that it was made with. It lies over the
/// column and takes no room. The width is kept by QSettings, and never makes the window grow. UI thread.
class ColumnGrip : public QWidget {
  Q_OBJECT
 public:
  /// For a column of a fixed width, which is its least; `key` names it among the settings.
  ColumnGrip(QWidget* column, const QString& key);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void enterEvent(QEnterEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  /// As wide as the page has room for.
  void setColumnWidth(int width);
  void restore();
  void keep() const;
  void letGo();

  QWidget* column_;
  QString key_;
  int least_;
  /// Where it was taken, and how wide the column was then.
  std::optional<std::pair<int, int>> taken_;
};

}  // namespace chispa::desk
