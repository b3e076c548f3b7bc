// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <deque>

#include <QWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The last seconds of a binding: what came in, and what it became for what it drives. UI thread.
class ValuePlot : public QWidget {
  Q_OBJECT
 public:
  static constexpr double kShown_s = 10;

  /// What was at an instant of the live clock; shares of the whole, 0–1.
  struct Sample {
    Micros at{0};
    float control = 0;
    float value = 0;
  };

  ValuePlot(const Session& session, BindingId binding, QWidget* parent = nullptr);

  const std::deque<Sample>& samples() const { return samples_; }
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  void follow();
  QPolygonF lineOf(float Sample::*member) const;

  Session session_;
  BindingId binding_;
  std::deque<Sample> samples_;
};

}  // namespace chispa::desk
