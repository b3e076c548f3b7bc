// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/valueplot.h"

#include <QPainter>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kHeight = 72;
constexpr int kMargin = 4;

bool isLevel(const ValuePlot::Sample& a, const ValuePlot::Sample& b) {
  return a.control == b.control && a.value == b.value;
}

}  // namespace

ValuePlot::ValuePlot(const Session& session, BindingId binding, QWidget* parent)
    : QWidget(parent), session_(session), binding_(binding) {
  named(this, "valuePlot", tr("What came in"),
        tr("The last ten seconds: what came in (grey), and what it became for what it drives"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  connect(&session_.stage, &Stage::ticked, this, &ValuePlot::follow);
}

QSize ValuePlot::sizeHint() const {
  return {160, kHeight};
}

void ValuePlot::follow() {
  const engine::LiveSnapshot& live = session_.stage.live();
  const BindingState* state = live.state.stateOf(binding_);
  if (!state || !state->isHeard) return;
  const Micros now = live.now.t;
  const Sample sample{now, state->control, state->value.at(now)};
  const std::size_t count = samples_.size();
  const bool isSame = count > 0 && isLevel(samples_.back(), sample);
  // A line that stands still needs its two ends only.
  if (isSame && count > 1 && isLevel(samples_[count - 2], sample))
    samples_.back() = sample;
  else
    samples_.push_back(sample);
  while (samples_.size() > 2 && samples_[1].at < now - micros(kShown_s)) samples_.pop_front();
  if (!isSame)
    setAccessibleDescription(tr("%1 % came in, %2 % of the range")
                                 .arg(std::lround(sample.control * 100))
                                 .arg(std::lround(sample.value * 100)));
  // Once all that is shown is one level line there is nothing to draw anew.
  if (!isSame || samples_.size() > 2) update();
}

QPolygonF ValuePlot::lineOf(float Sample::*member) const {
  QPolygonF line;
  const Micros now = samples_.back().at;
  const double width = this->width() - 2 * kMargin, height = this->height() - 2 * kMargin;
  for (const Sample& sample : samples_) {
    const double age = std::min(1.0, seconds(now - sample.at) / kShown_s);
    line << QPointF(kMargin + width * (1 - age),
                    kMargin + height * (1 - static_cast<double>(sample.*member)));
  }
  return line;
}

void ValuePlot::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Theme& t = theme();
  painter.fillRect(rect(), t.raised);
  painter.setPen(t.line);
  for (const double at : {0.0, 0.5, 1.0}) {
    const int y = kMargin + static_cast<int>(std::lround((height() - 2 * kMargin) * at));
    painter.drawLine(kMargin, y, width() - kMargin, y);
  }
  if (samples_.empty()) {
    painter.setPen(t.quiet);
    painter.drawText(rect(), Qt::AlignCenter, tr("Nothing came in yet"));
    return;
  }
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.quiet, 1.5));
  painter.drawPolyline(lineOf(&Sample::control));
  painter.setPen(QPen(t.ember, 2));
  painter.drawPolyline(lineOf(&Sample::value));
}

}  // namespace chispa::desk
