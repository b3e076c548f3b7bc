// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>

#include "desk/session/session.h"

namespace chispa::desk {

/// Tells the LEDs of what is selected, in any workspace, from all others: it points out a bead or a port,
/// while nothing plays; makes whatever is selected blink; or lets that alone play. In every picture of the
/// light, and on the LEDs. UI thread.
class SelectionLight : public QObject {
  Q_OBJECT
 public:
  explicit SelectionLight(const Session& session, QObject* parent = nullptr);

  void setPointing(bool on);
  void setLocating(bool on);
  void setIsolating(bool on);
  bool isLocating() const { return isLocating_; }
  bool isIsolating() const { return isIsolating_; }

 signals:
  void changed();

 private:
  void update();

  Session session_;
  bool isPointing_ = true;
  bool isLocating_ = false;
  bool isIsolating_ = false;
};

/// Numbers of the pixels of what is selected, as the PixelMap counts them; of a pixel pointed at, that alone.
std::vector<std::int32_t> selectedPixels(const Session& session);

}  // namespace chispa::desk
