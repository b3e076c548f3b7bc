// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QScrollArea>

#include "desk/session/session.h"

namespace chispa::desk {

class Form;
class PlanView;

/// Properties of what is selected, live: no OK, a change takes effect at once and can be undone.
class Inspector : public QScrollArea {
  Q_OBJECT
 public:
  Inspector(const Session& session, PlanView& plan, QWidget* parent = nullptr);

 private:
  /// Makes the rows anew if another kind of thing is selected or its rows differ, else fetches the values.
  void update();
  struct InHand;
  InHand inHand() const;
  void giveBack(const InHand& hand);
  void rebuild();
  QString formKey() const;

  Session session_;
  PlanView& plan_;
  Form* form_ = nullptr;
  Selected shown_;
  QString shownKey_;
};

}  // namespace chispa::desk
