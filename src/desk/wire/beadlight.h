// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>

#include "desk/session/session.h"

namespace chispa::desk {

/// Lights the bead or port that is selected: in every picture of the light, and on the LEDs while light is on. It rests while
/// a score plays. UI thread.
class BeadLight : public QObject {
  Q_OBJECT
 public:
  explicit BeadLight(const Session& session, QObject* parent = nullptr);

  bool isOn() const { return isOn_; }
  void setOn(bool on);

 private:
  void update();

  Session session_;
  bool isOn_ = true;
};

}  // namespace chispa::desk
