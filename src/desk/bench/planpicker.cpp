// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/planpicker.h"

#include <QMouseEvent>
#include <QPainter>

#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kMargin = 26;
/// Dots of a fixture that are drawn; more tell the eye nothing.
constexpr std::size_t kMaxDots = 160;

}  // namespace

PlanPicker::PlanPicker(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("planPicker"));
  setAccessibleName(tr("The strips on the plan"));
  setToolTip(tr("Click the strip that is lit"));
  setMinimumHeight(180);
  setMouseTracking(true);
}

void PlanPicker::showFixtures(const Show& show, const std::vector<FixtureId>& fixtures) {
  entries_.clear();
  std::vector<std::vector<Vec3>> all;
  double depth = 0, height = 0;
  Vec3 low{1e9, 1e9, 1e9}, high{-1e9, -1e9, -1e9};
  for (const FixtureId id : fixtures) {
    const Fixture* fixture = chispa::find(show.fixtures, id);
    all.push_back(fixture ? positions(*fixture) : std::vector<Vec3>());
    entries_.push_back({id, fixture ? text(fixture->name) : QString(), {}});
    for (const Vec3& p : all.back()) {
      low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
    }
  }
  depth = high.y - low.y;
  height = high.z - low.z;
  bounds_ = {};
  for (std::size_t i = 0; i < all.size(); ++i) {
    const std::size_t step = std::max<std::size_t>(1, all[i].size() / kMaxDots);
    for (std::size_t k = 0; k < all[i].size(); k += step) {
      const Vec3& p = all[i][k];
      const QPointF at(p.x, depth >= height ? -p.y : -p.z);
      entries_[i].points.push_back(at);
      bounds_ =
          bounds_.isNull() ? QRectF(at, QSizeF(1e-6, 1e-6)) : bounds_.united(QRectF(at, QSizeF(1e-6, 1e-6)));
    }
  }
  current_ = std::clamp(current_, 0, std::max(0, static_cast<int>(entries_.size()) - 1));
  update();
}

FixtureId PlanPicker::current() const {
  return entries_.empty() ? FixtureId{} : entries_[static_cast<std::size_t>(current_)].id;
}

void PlanPicker::step(int by) {
  const auto count = static_cast<int>(entries_.size());
  if (count > 0) current_ = ((current_ + by) % count + count) % count;
  update();
}

QPointF PlanPicker::onScreen(QPointF metres) const {
  const double scale = std::min((width() - 2 * kMargin) / std::max(1e-6, bounds_.width()),
                                (height() - 2 * kMargin) / std::max(1e-6, bounds_.height()));
  return QRectF(rect()).center() + (metres - bounds_.center()) * std::min(scale, 1e5);
}

int PlanPicker::entryAt(QPointF at) const {
  int nearest = -1;
  double least = 1e18;
  for (int i = 0; i < std::ssize(entries_); ++i)
    for (const QPointF& point : entries_[static_cast<std::size_t>(i)].points) {
      const QPointF off = onScreen(point) - at;
      const double distance = QPointF::dotProduct(off, off);
      if (distance >= least) continue;
      least = distance;
      nearest = i;
    }
  return nearest;
}

void PlanPicker::mouseMoveEvent(QMouseEvent* event) {
  const int entry = entryAt(event->position());
  if (entry < 0 || entry == current_) return;
  current_ = entry;
  update();
}

void PlanPicker::mousePressEvent(QMouseEvent* event) {
  const int entry = entryAt(event->position());
  if (entry < 0) return;
  current_ = entry;
  emit picked(current());
}

void PlanPicker::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().night);
  painter.drawRoundedRect(rect(), 4, 4);
  for (int i = 0; i < std::ssize(entries_); ++i) {
    painter.setBrush(i == current_ ? theme().ember : QColor(0x8a, 0x86, 0x7e));
    const double radius = i == current_ ? 3 : 2;
    for (const QPointF& point : entries_[static_cast<std::size_t>(i)].points)
      painter.drawEllipse(onScreen(point), radius, radius);
  }
  if (entries_.empty()) return;
  painter.setPen(QColor(0xe6, 0xe3, 0xdd));
  painter.drawText(rect().adjusted(10, 6, -10, -6), Qt::AlignLeft | Qt::AlignTop,
                   entries_[static_cast<std::size_t>(current_)].name);
}

}  // namespace chispa::desk
