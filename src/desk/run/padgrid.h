// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QScrollArea>

#include "desk/session/session.h"

namespace chispa::desk {

class LookPad;

/// All looks as pads, and what can be done with them. UI thread.
class PadGrid : public QScrollArea {
  Q_OBJECT
 public:
  explicit PadGrid(const Session& session, QWidget* parent = nullptr);

  /// The look whose pad is on this key; none if there is none.
  LookId lookOnKey(const QString& key) const;
  int rows() const;
  QSize sizeHint() const override;

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  void refill();
  void arrange();
  void follow();
  void showMenu(LookId look, QPoint at);
  void move(LookId look, int by);

  Session session_;
  std::vector<LookPad*> pads_;
  QWidget* empty_;
  int columns_ = 6;
};

}  // namespace chispa::desk
