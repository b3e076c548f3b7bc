// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightlogview.h"

#include <algorithm>

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QTreeWidget>

#include "core/almanac/calendar.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {
namespace {

constexpr int kHoursRole = Qt::UserRole;
constexpr int kTroubleRole = Qt::UserRole + 1;
constexpr int kShownNights = 8 * 7;
constexpr double kLongest_h = 14;

/// A night: its day, a bar of its hours of light, and a mark if something went wrong.
class NightDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex&) const override {
    return {120, option.fontMetrics.height() + 8};
  }
  void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const Theme& t = theme();
    painter->save();
    if (option.state & QStyle::State_Selected) painter->fillRect(option.rect, t.selectedGround());
    const QRect box = option.rect.adjusted(8, 0, -8, 0);
    const int dayWidth = option.fontMetrics.horizontalAdvance(QStringLiteral("2026-12-24")) + 10;
    painter->setPen(t.text);
    painter->drawText(box, Qt::AlignVCenter | Qt::AlignLeft, index.data().toString());
    const QRect bar(box.left() + dayWidth, box.center().y() - 4, box.width() - dayWidth - 70, 8);
    const double hours = index.data(kHoursRole).toDouble();
    painter->fillRect(bar, t.line);
    painter->fillRect(QRect(bar.left(), bar.top(),
                            static_cast<int>(bar.width() * std::min(1.0, hours / kLongest_h)), bar.height()),
                      t.ember);
    painter->setPen(t.quiet);
    painter->drawText(box, Qt::AlignVCenter | Qt::AlignRight, QStringLiteral("%1 h").arg(hours, 0, 'f', 1));
    if (index.data(kTroubleRole).toBool()) {
      painter->setPen(t.wrong);
      painter->drawText(box.adjusted(0, 0, -52, 0), Qt::AlignVCenter | Qt::AlignRight, QStringLiteral("!"));
    }
    painter->restore();
  }
};

QString kindWords(const std::string& kind) {
  if (kind == "watch") return NightLogView::tr("watch");
  if (kind == "slot") return NightLogView::tr("begins");
  if (kind == "piece") return NightLogView::tr("plays");
  if (kind == "dark") return NightLogView::tr("dark");
  if (kind == "lost") return NightLogView::tr("lost");
  if (kind == "back") return NightLogView::tr("back");
  if (kind == "clock") return NightLogView::tr("clock");
  return text(kind);
}

}  // namespace

NightLogView::NightLogView(const Session& session, QWidget* parent) : QDialog(parent), session_(session) {
  setObjectName(QStringLiteral("nightLogView"));
  setWindowTitle(tr("The log of nights"));
  setAttribute(Qt::WA_DeleteOnClose);
  resize(860, 520);
  auto* row = new QHBoxLayout(this);
  nights_ = named(new QListWidget, "logNights", tr("Nights"),
                  tr("Each night and its hours of light; choose one to see it in full"));
  nights_->setItemDelegate(new NightDelegate(nights_));
  nights_->setFixedWidth(320);
  row->addWidget(nights_);
  auto* column = new QVBoxLayout;
  summary_ = new QLabel(tr("The log is being read …"));
  summary_->setObjectName(QStringLiteral("logSummary"));
  summary_->setWordWrap(true);
  column->addWidget(summary_);
  events_ = named(new QTreeWidget, "logEvents", tr("The night in full"), tr("What happened when"));
  events_->setRootIsDecorated(false);
  events_->setHeaderLabels({tr("Time"), tr("What"), tr("Of"), tr("Detail")});
  events_->header()->setStretchLastSection(true);
  column->addWidget(events_, 1);
  row->addLayout(column, 1);
  connect(nights_, &QListWidget::currentItemChanged, this, &NightLogView::showNight);
  runThen(
      pools::drawing(), this,
      [] { return engine::NightReader(engine::NightLog::usualFile()).nights(kShownNights); },
      [this](const std::vector<engine::NightSum>& nights) { fill(nights); });
}

void NightLogView::fill(const std::vector<engine::NightSum>& nights) {
  sums_ = nights;
  std::reverse(sums_.begin(), sums_.end());
  for (const engine::NightSum& night : sums_) {
    auto* item = new QListWidgetItem(text(night.night));
    item->setData(kHoursRole, night.light_s / 3600);
    item->setData(kTroubleRole, night.lostControllers > 0 || night.lateFrames > night.frames / 100);
    item->setToolTip(summary(night));
    nights_->addItem(item);
  }
  if (sums_.empty())
    summary_->setText(
        tr("No night has been watched yet. Press “Watch the almanac” in Run, or install the service."));
  else
    nights_->setCurrentRow(0);
}

QString NightLogView::summary(const engine::NightSum& night) const {
  QStringList words{tr("%1: %2 h of light, %3 kWh")
                        .arg(text(night.night))
                        .arg(night.light_s / 3600, 0, 'f', 2)
                        .arg(night.energy_kwh, 0, 'f', 3)};
  words << tr("%1 of %2 frames late").arg(night.lateFrames).arg(night.frames);
  if (night.lostControllers > 0) words << tr("controllers lost %1 times").arg(night.lostControllers);
  if (night.hottest_c > -200) words << tr("at most %1 °C").arg(night.hottest_c, 0, 'f', 0);
  return words.join(QStringLiteral(", "));
}

void NightLogView::showNight() {
  const int row = nights_->currentRow();
  if (row < 0 || row >= std::ssize(sums_)) return;
  const engine::NightSum& night = sums_[static_cast<std::size_t>(row)];
  summary_->setText(summary(night));
  events_->clear();
  auto zone = TimeZone::named(session_.show().almanac.zone);
  const TimeZone own = zone ? *zone : TimeZone::utc();
  runThen(
      pools::drawing(), this,
      [name = night.night] { return engine::NightReader(engine::NightLog::usualFile()).events(name); },
      [this, row, own](const std::vector<engine::NightEvent>& events) {
        if (row != nights_->currentRow()) return;
        for (const engine::NightEvent& event : events) {
          const auto at = std::chrono::floor<std::chrono::seconds>(event.at);
          auto* item = new QTreeWidgetItem({text(rfc3339(at, own).substr(11, 8)), kindWords(event.kind),
                                            text(event.what), text(event.detail)});
          if (event.kind == "lost" || event.kind == "trouble") item->setForeground(1, theme().wrong);
          events_->addTopLevelItem(item);
        }
        for (int column = 0; column < 3; ++column) events_->resizeColumnToContents(column);
      });
}

}  // namespace chispa::desk
