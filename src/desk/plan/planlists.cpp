// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planlists.h"

#include <algorithm>
#include <map>

#include <QHeaderView>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/zone/cells.h"
#include "desk/parts/columngrip.h"
#include "desk/parts/contextmenu.h"
#include "desk/parts/format.h"
#include "desk/parts/icon.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kIdRole = Qt::UserRole;
constexpr int kSegmentRole = Qt::UserRole + 1;
constexpr int kGroupRole = Qt::UserRole + 2;
constexpr int kWidth = 206;

/// "Post 7" → "Post": what numbered fixtures of one kind have in common.
QString stem(const std::string& name) {
  QString base = text(name);
  while (!base.isEmpty() && base.back().isDigit()) base.chop(1);
  return base.trimmed();
}

/// Under which heading a fixture stands, if others stand there too.
QString headingOf(const Fixture& fixture) {
  return fixture.group.empty() ? stem(fixture.name) : text(fixture.group);
}

/// What the list of fixtures tells of one is the same.
bool looksAlike(const Fixture& a, const Fixture& b) {
  const auto sameRow = [](const Segment& x, const Segment& y) {
    return x.name == y.name && pixelCount(x) == pixelCount(y);
  };
  return a.id == b.id && a.name == b.name && a.group == b.group &&
         std::equal(a.segments.begin(), a.segments.end(), b.segments.begin(), b.segments.end(), sameRow);
}

}  // namespace

PlanLists::PlanLists(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName(QStringLiteral("sidePanel"));
  setFixedWidth(kWidth);
  new ColumnGrip(this, QStringLiteral("plan"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 10, 4, 8);
  auto* top = new QHBoxLayout;
  pixels_ = heading({});
  top->addWidget(heading(tr("Fixtures")));
  top->addStretch();
  top->addWidget(pixels_);
  column->addLayout(top);
  fixtures_ = new QTreeWidget;
  fixtures_->setObjectName(QStringLiteral("fixtureList"));
  fixtures_->setAccessibleName(tr("Fixtures"));
  fixtures_->setToolTip(
      tr("What is built, with its segments. F2 renames, Delete deletes, Ctrl+D duplicates."));
  fixtures_->setColumnCount(2);
  fixtures_->setHeaderHidden(true);
  fixtures_->setIndentation(14);
  fixtures_->setUniformRowHeights(true);
  fixtures_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  fixtures_->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  fixtures_->header()->setStretchLastSection(false);
  fixtures_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  fixtures_->setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::DoubleClicked);
  connect(fixtures_, &QTreeWidget::itemSelectionChanged, this, &PlanLists::takeTreeSelection);
  connect(fixtures_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item) { rename(item); });
  offerActions(*fixtures_, {QStringLiteral("rename"),
                            QStringLiteral("duplicate"),
                            QStringLiteral("delete"),
                            {},
                            QStringLiteral("cutThings"),
                            QStringLiteral("copyThings"),
                            QStringLiteral("pasteThings"),
                            {},
                            QStringLiteral("group"),
                            QStringLiteral("ungroup"),
                            {},
                            QStringLiteral("locate"),
                            QStringLiteral("isolate"),
                            {},
                            QStringLiteral("copyZones"),
                            QStringLiteral("pasteZones")});
  column->addWidget(fixtures_, 3);
  column->addSpacing(8);
  column->addWidget(heading(tr("Zones")));
  zones_ = new QListWidget;
  zones_->setObjectName(QStringLiteral("zoneList"));
  zones_->setAccessibleName(tr("Zones"));
  zones_->setToolTip(tr("Sets of cells on which light is programmed."));
  zones_->setUniformItemSizes(true);
  zones_->setIconSize({14, 14});
  zones_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  connect(zones_, &QListWidget::itemSelectionChanged, this, &PlanLists::takeZoneSelection);
  offerActions(*zones_, {QStringLiteral("rename"),
                         QStringLiteral("delete"),
                         {},
                         QStringLiteral("cutThings"),
                         QStringLiteral("copyThings"),
                         QStringLiteral("pasteThings"),
                         {},
                         QStringLiteral("locate")});
  column->addWidget(zones_, 2);
  auto* make = new QPushButton(tr("Make a zone"));
  make->setObjectName(QStringLiteral("makeZone"));
  make->setToolTip(
      tr("A zone of the selected fixtures, in their order; it can be divided then. Brush, box and lasso "
         "paint one."));
  connect(make, &QPushButton::clicked, this, &PlanLists::makeZone);
  column->addWidget(make);
  connect(&session_.document, &Document::showChanged, this, &PlanLists::fill);
  connect(&session_.document, &Document::opened, this, &PlanLists::fill);
  connect(&session_.selection, &Selection::changed, this, &PlanLists::showSelection);
  fill();
}

void PlanLists::refill() {
  shownFixtures_.clear();
  shownZones_.clear();
  fill();
}

void PlanLists::fill() {
  const auto& show = session_.show();
  filling_ = true;
  const auto alike = [](const auto& a, const auto& b) { return a == b || looksAlike(*a, *b); };
  const bool sameFixtures = std::equal(show.fixtures.begin(), show.fixtures.end(), shownFixtures_.begin(),
                                       shownFixtures_.end(), alike);
  const bool sameZones = show.zones == shownZones_;
  if (!sameFixtures) fillFixtures();
  // A zone's size follows its fixtures' counts.
  if (!sameZones || !sameFixtures) fillZones();
  shownFixtures_ = show.fixtures;
  shownZones_ = show.zones;
  filling_ = false;
  if (!sameFixtures || !sameZones) showSelection();
}

QTreeWidgetItem* PlanLists::fixtureItem(const Fixture& fixture) const {
  const auto row = [&](const QString& name, int count) {
    auto* item = new QTreeWidgetItem({name, QStringLiteral("%L1").arg(count)});
    item->setData(0, kIdRole, fixture.id.value);
    item->setFlags(item->flags() | Qt::ItemIsEditable);
    item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
    item->setForeground(1, theme().quiet);
    return item;
  };
  auto* item = row(text(fixture.name), pixelCount(fixture));
  for (std::size_t i = 0; fixture.segments.size() > 1 && i < fixture.segments.size(); ++i) {
    auto* segment = row(text(fixture.segments[i].name), pixelCount(fixture.segments[i]));
    segment->setData(0, kSegmentRole, static_cast<int>(i));
    segment->setForeground(0, theme().quiet);
    item->addChild(segment);
  }
  return item;
}

void PlanLists::fillFixtures() {
  QSet<QString> open;
  for (int i = 0; i < fixtures_->topLevelItemCount(); ++i)
    if (fixtures_->topLevelItem(i)->isExpanded())
      open.insert(fixtures_->topLevelItem(i)->data(0, kGroupRole).toString());
  fixtures_->clear();
  std::map<QString, int> kinds;
  for (const auto& fixture : session_.show().fixtures) ++kinds[headingOf(*fixture)];
  std::map<QString, QTreeWidgetItem*> groups;
  std::map<QString, int> pixelsOf;
  QList<QTreeWidgetItem*> top;
  int sum = 0;
  for (const auto& fixture : session_.show().fixtures) {
    const QString kind = headingOf(*fixture);
    const int count = pixelCount(*fixture);
    sum += count;
    QTreeWidgetItem* item = fixtureItem(*fixture);
    if (kinds[kind] == 1) {
      top << item;
      continue;
    }
    QTreeWidgetItem*& group = groups[kind];
    if (!group) {
      group = new QTreeWidgetItem({QStringLiteral("%1 ×%2").arg(kind).arg(kinds[kind])});
      group->setData(0, kGroupRole, kind);
      group->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
      group->setForeground(1, theme().quiet);
      top << group;
    }
    group->addChild(item);
    pixelsOf[kind] += count;
    group->setText(1, QStringLiteral("%L1").arg(pixelsOf[kind]));
  }
  fixtures_->addTopLevelItems(top);
  for (QTreeWidgetItem* item : top)
    item->setExpanded(open.contains(item->data(0, kGroupRole).toString()) &&
                      item->data(0, kGroupRole).isValid());
  pixels_->setText(tr("%L1 px").arg(sum));
}

void PlanLists::fillZones() {
  zones_->clear();
  const PixelMap map = mapPixels(session_.show());
  const QIcon ofShow = icon(QStringLiteral("zoneShow"));
  const QIcon ofScore = icon(QStringLiteral("zoneScore"));
  for (const auto& zone : session_.show().zones) {
    const ZoneCells cells = cellsOf(session_.show(), map, *zone);
    const QString size = cells.rows > 1 ? QStringLiteral("%1 × %2").arg(cells.columns).arg(cells.rows)
                                        : counted(cells.count(), tr("one cell"), tr("%1 cells"));
    auto* item =
        new QListWidgetItem(zone->score ? ofScore : ofShow, text(zone->name) + QStringLiteral("   ") + size);
    item->setData(kIdRole, zone->id.value);
    const Score* score = chispa::find(session_.show().scores, zone->score);
    item->setToolTip(
        tr("%1: %2 · %3")
            .arg(text(zone->name), size,
                 score ? tr("only in %1").arg(text(score->name)) : tr("a zone of the show, in every score")));
    if (zone->score) item->setForeground(theme().quiet);
    zones_->addItem(item);
  }
}

void PlanLists::showSelection() {
  filling_ = true;
  fixtures_->clearSelection();
  const FixtureIds chosen = session_.selection.fixtures();
  const int segment = session_.selection.segment();
  for (QTreeWidgetItemIterator it(fixtures_); *it && !chosen.empty(); ++it) {
    const FixtureId id{(*it)->data(0, kIdRole).toUInt()};
    if (!id || std::find(chosen.begin(), chosen.end(), id) == chosen.end()) continue;
    const QVariant row = (*it)->data(0, kSegmentRole);
    // A segment's row is chosen only when the maker has gone into it.
    const bool isChosen = row.isValid() ? chosen.size() == 1 && segment > 0 && row.toInt() == segment
                                        : segment == 0 || chosen.size() > 1 || (*it)->childCount() == 0;
    (*it)->setSelected(isChosen);
    if (chosen.size() == 1 && isChosen)
      for (QTreeWidgetItem* up = (*it)->parent(); up; up = up->parent()) up->setExpanded(true);
    if (chosen.size() == 1 && isChosen) fixtures_->scrollToItem(*it);
  }
  showZoneSelection();
  filling_ = false;
}

void PlanLists::showZoneSelection() {
  const ZoneIds zones = session_.selection.all<ZoneId>();
  for (int i = 0; i < zones_->count(); ++i) {
    const ZoneId id{zones_->item(i)->data(kIdRole).toUInt()};
    const bool isChosen = std::find(zones.begin(), zones.end(), id) != zones.end();
    if (isChosen && zones.size() == 1 && zones_->currentRow() != i)
      zones_->setCurrentRow(i, QItemSelectionModel::NoUpdate);
    zones_->item(i)->setSelected(isChosen);
  }
  if (zones.empty()) zones_->setCurrentItem(nullptr);
}

void PlanLists::takeZoneSelection() {
  if (filling_) return;
  ZoneIds ids;
  for (const QListWidgetItem* item : zones_->selectedItems())
    ids.push_back(ZoneId{item->data(kIdRole).toUInt()});
  // The list follows what is selected elsewhere: letting go of its rows alone lets go of nothing else.
  if (!ids.empty() || !session_.selection.all<ZoneId>().empty()) session_.selection.select(ids);
}

void PlanLists::takeTreeSelection() {
  if (filling_) return;
  FixtureIds ids;
  int segment = 0;
  const auto add = [&ids](const QTreeWidgetItem* item) {
    const FixtureId id{item->data(0, kIdRole).toUInt()};
    if (id && std::find(ids.begin(), ids.end(), id) == ids.end()) ids.push_back(id);
  };
  for (const QTreeWidgetItem* item : fixtures_->selectedItems()) {
    add(item);
    if (item->data(0, kSegmentRole).isValid()) segment = item->data(0, kSegmentRole).toInt();
    for (int i = 0; i < item->childCount(); ++i) add(item->child(i));
  }
  session_.selection.select(ids.empty() ? Selected{} : Selected{ids});
  session_.selection.chooseSegment(ids.size() == 1 ? segment : 0);
}

void PlanLists::rename(QTreeWidgetItem* item) {
  const FixtureId id{item->data(0, kIdRole).toUInt()};
  const std::string name = item->text(0).trimmed().toStdString();
  if (filling_ || !id) return;
  const QVariant row = item->data(0, kSegmentRole);
  // Not from within the list's own signal: the edit fills the list anew.
  QMetaObject::invokeMethod(
      this,
      [this, id, name, row] {
        shownFixtures_.clear();
        if (name.empty()) return fill();
        session_.edit(tr("rename"), [&](Show& show) {
          changeItem(show.fixtures, id, [&](Fixture& f) {
            (row.isValid() ? f.segments.at(static_cast<std::size_t>(row.toInt())).name : f.name) = name;
          });
        });
      },
      Qt::QueuedConnection);
}

void PlanLists::renameSelected() {
  if (fixtures_->selectedItems().isEmpty()) return;
  fixtures_->setFocus();
  fixtures_->setCurrentItem(fixtures_->selectedItems().front(), 0, QItemSelectionModel::NoUpdate);
  fixtures_->editItem(fixtures_->selectedItems().front(), 0);
}

void PlanLists::makeZone() {
  const FixtureIds ids = session_.selection.fixtures();
  if (ids.empty()) return;
  ZoneId made;
  const Fixture& first = *chispa::find(session_.show().fixtures, ids.front());
  const std::string name = ids.size() == 1 ? first.name : headingOf(first).toStdString();
  session_.edit(tr("make a zone"), [&](Show& show) { made = addZone(show, name, ids); });
  session_.selection.select(made);
}

}  // namespace chispa::desk
