// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

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

 private:
  Session session_;
  LoomView* loom_;
  AddressSheet* sheet_;
  QStackedWidget* faces_;
};

}  // namespace chispa::desk
