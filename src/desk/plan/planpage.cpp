// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planpage.h"

#include <QActionGroup>
#include <QEvent>
#include <QFileDialog>
#include <QHeaderView>
#include <QInputDialog>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QToolButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/files/pointfile.h"
#include "core/files/showfile.h"
#include "core/zone/cells.h"
#include "desk/glow/glowview.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

constexpr int kIdRole = Qt::UserRole;
constexpr int kSideWidth = 206;

/// "Post 7" → "Post": what numbered fixtures of one kind have in common.
QString stem(const std::string& name) {
  QString base = text(name);
  while (!base.isEmpty() && base.back().isDigit()) base.chop(1);
  return base.trimmed();
}

QLabel* heading(const QString& words) {
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("heading"));
  return label;
}

}  // namespace

PlanPage::PlanPage(const Session& session, QWidget* parent)
    : QWidget(parent), session_(session), view_(new PlanView(session)), glow_(new GlowView(session.stage, view_)) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(makeLists());
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  column->addWidget(makeTools());
  column->addWidget(view_, 1);
  row->addLayout(column, 1);
  view_->installEventFilter(this);
  connect(&session_.document, &Document::showChanged, this, &PlanPage::fillLists);
  connect(&session_.document, &Document::opened, this, &PlanPage::fillLists);
  connect(&session_.selection, &Selection::changed, this, &PlanPage::showSelection);
  fillLists();
}

QWidget* PlanPage::makeLists() {
  auto* panel = new QWidget;
  panel->setObjectName(QStringLiteral("sidePanel"));
  panel->setFixedWidth(kSideWidth);
  auto* column = new QVBoxLayout(panel);
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
  fixtures_->setToolTip(tr("What is built. F2 renames, Delete deletes, Ctrl+D duplicates."));
  fixtures_->setColumnCount(2);
  fixtures_->setHeaderHidden(true);
  fixtures_->setIndentation(14);
  fixtures_->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  fixtures_->header()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  fixtures_->header()->setStretchLastSection(false);
  fixtures_->setSelectionMode(QAbstractItemView::ExtendedSelection);
  fixtures_->setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::DoubleClicked);
  connect(fixtures_, &QTreeWidget::itemSelectionChanged, this, &PlanPage::takeTreeSelection);
  connect(fixtures_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item) { rename(item); });
  column->addWidget(fixtures_, 3);
  column->addSpacing(8);
  column->addWidget(heading(tr("Zones")));
  zones_ = new QListWidget;
  zones_->setObjectName(QStringLiteral("zoneList"));
  zones_->setAccessibleName(tr("Zones"));
  zones_->setToolTip(tr("Sets of cells on which light is programmed."));
  connect(zones_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    if (!filling_ && item) session_.selection.select(ZoneId{item->data(kIdRole).toUInt()});
  });
  column->addWidget(zones_, 2);
  auto* make = new QPushButton(tr("Make a zone"));
  make->setObjectName(QStringLiteral("makeZone"));
  make->setToolTip(tr("A zone of the selected fixtures, in their order"));
  connect(make, &QPushButton::clicked, this, &PlanPage::makeZone);
  column->addWidget(make);
  return panel;
}

QWidget* PlanPage::makeTools() {
  auto* row = new QWidget;
  row->setObjectName(QStringLiteral("toolRow"));
  auto* layout = new QHBoxLayout(row);
  layout->setContentsMargins(8, 6, 8, 6);
  layout->setSpacing(4);
  const auto addGroup = [&](auto* group, const auto& entries, auto chosen) {
    for (const auto& [name, label, tip, key, value] : entries) {
      auto* button = new QToolButton;
      auto* action = new QAction(label, this);
      action->setToolTip(tip + (QString(key).isEmpty() ? QString() : QStringLiteral(" (%1)").arg(key)));
      action->setShortcut(QKeySequence(key));
      action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
      action->setCheckable(true);
      button->setObjectName(name);
      button->setDefaultAction(action);
      button->setAccessibleName(label);
      addAction(action);
      group->addAction(action);
      connect(action, &QAction::triggered, this, [chosen, value = value] { chosen(value); });
      layout->addWidget(button);
    }
  };
  struct ToolEntry { QString name, label, tip, key; PlanTool value; };
  const ToolEntry tools[] = {{"toolSelect", tr("Select"), tr("Select and move pieces"), "V", PlanTool::Select},
                             {"toolLine", tr("Line"), tr("Drag from the data-in end to the other"), "L", PlanTool::Line},
                             {"toolPath", tr("Path"), tr("Click from corner to corner; double click or Enter ends"), "P", PlanTool::Path},
                             {"toolMatrix", tr("Matrix"), tr("Drag from corner to corner"), "G", PlanTool::Matrix},
                             {"toolRing", tr("Ring"), tr("Drag from the centre to the rim"), "O", PlanTool::Ring},
                             {"toolRings", tr("Rings"), tr("Rings one within the other: drag from the centre to the outermost"), "N", PlanTool::Rings},
                             {"toolSpiral", tr("Spiral"), tr("Drag from the centre to its end"), "S", PlanTool::Spiral},
                             {"toolCone", tr("Cone"), tr("Strings up a roof, a tree or a column: drag from its axis to its foot"), "K", PlanTool::Cone},
                             {"toolSpokes", tr("Spokes"), tr("Strings from a centre: drag from it to their ends"), "Y", PlanTool::Spokes}};
  auto* toolGroup = new QActionGroup(this);
  addGroup(toolGroup, tools, [this](PlanTool tool) { view_->setTool(tool); });
  layout->addSpacing(16);
  struct SideEntry { QString name, label, tip, key; PlanSide value; };
  const SideEntry sides[] = {{"sideTop", tr("Top"), tr("Look from above"), "1", PlanSide::Top},
                             {"sideFront", tr("Front"), tr("Look from the front"), "2", PlanSide::Front},
                             {"sideSide", tr("Side"), tr("Look from the side"), "3", PlanSide::Side}};
  auto* sideGroup = new QActionGroup(this);
  addGroup(sideGroup, sides, [this](PlanSide side) { view_->setSide(side); });
  sideGroup->actions().front()->setChecked(true);
  layout->addStretch();
  const auto showTool = [this, toolGroup] { toolGroup->actions().at(static_cast<int>(view_->tool()))->setChecked(true); };
  connect(view_, &PlanView::toolChanged, this, showTool);
  showTool();
  return row;
}

void PlanPage::fillLists() {
  filling_ = true;
  fillFixtures();
  fillZones();
  filling_ = false;
  showSelection();
}

void PlanPage::fillFixtures() {
  QSet<QString> open;
  for (int i = 0; i < fixtures_->topLevelItemCount(); ++i)
    if (fixtures_->topLevelItem(i)->isExpanded()) open.insert(fixtures_->topLevelItem(i)->data(0, kIdRole + 1).toString());
  fixtures_->clear();
  std::map<QString, int> kinds;
  for (const auto& fixture : session_.show().fixtures) ++kinds[stem(fixture->name)];
  std::map<QString, QTreeWidgetItem*> groups;
  int sum = 0;
  for (const auto& fixture : session_.show().fixtures) {
    const QString kind = stem(fixture->name);
    const int count = pixelCount(*fixture);
    sum += count;
    auto* item = new QTreeWidgetItem({text(fixture->name), QString::number(count)});
    item->setData(0, kIdRole, fixture->id.value);
    item->setFlags(item->flags() | Qt::ItemIsEditable);
    item->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
    item->setForeground(1, theme().quiet);
    if (kinds[kind] == 1) {
      fixtures_->addTopLevelItem(item);
      continue;
    }
    QTreeWidgetItem*& group = groups[kind];
    if (!group) {
      group = new QTreeWidgetItem({QStringLiteral("%1 ×%2").arg(kind).arg(kinds[kind])});
      group->setData(0, kIdRole + 1, kind);
      group->setTextAlignment(1, Qt::AlignRight | Qt::AlignVCenter);
      group->setForeground(1, theme().quiet);
      fixtures_->addTopLevelItem(group);
      group->setExpanded(open.contains(kind));
    }
    group->addChild(item);
    group->setText(1, QString::number(group->text(1).toInt() + count));
  }
  pixels_->setText(tr("%L1 px").arg(sum));
}

void PlanPage::fillZones() {
  zones_->clear();
  const PixelMap map = mapPixels(session_.show());
  for (const auto& zone : session_.show().zones) {
    const ZoneCells cells = cellsOf(session_.show(), map, *zone);
    const QString size = cells.rows > 1 ? QStringLiteral("%1 × %2").arg(cells.columns).arg(cells.rows) : tr("%1 cells").arg(cells.count());
    auto* item = new QListWidgetItem(text(zone->name) + QStringLiteral("   ") + size);
    item->setData(kIdRole, zone->id.value);
    item->setToolTip(tr("%1: %2").arg(text(zone->name), size));
    zones_->addItem(item);
  }
}

void PlanPage::showSelection() {
  filling_ = true;
  fixtures_->clearSelection();
  for (QTreeWidgetItemIterator it(fixtures_); *it; ++it) {
    const FixtureId id{(*it)->data(0, kIdRole).toUInt()};
    if (!id || !session_.selection.has(id)) continue;
    (*it)->setSelected(true);
    if ((*it)->parent() && session_.selection.fixtures().size() == 1) (*it)->parent()->setExpanded(true);
  }
  const auto* zone = std::get_if<ZoneId>(&session_.selection.now());
  if (!zone) zones_->setCurrentItem(nullptr);
  for (int i = 0; zone && i < zones_->count(); ++i)
    if (zones_->item(i)->data(kIdRole).toUInt() == zone->value) zones_->setCurrentRow(i);
  filling_ = false;
}

void PlanPage::takeTreeSelection() {
  if (filling_) return;
  FixtureIds ids;
  const auto add = [&ids](const QTreeWidgetItem* item) {
    const FixtureId id{item->data(0, kIdRole).toUInt()};
    if (id && std::find(ids.begin(), ids.end(), id) == ids.end()) ids.push_back(id);
  };
  for (const QTreeWidgetItem* item : fixtures_->selectedItems()) {
    add(item);
    for (int i = 0; i < item->childCount(); ++i) add(item->child(i));
  }
  session_.selection.select(ids.empty() ? Selected{} : Selected{ids});
}

void PlanPage::rename(QTreeWidgetItem* item) {
  const FixtureId id{item->data(0, kIdRole).toUInt()};
  const std::string name = item->text(0).trimmed().toStdString();
  if (filling_ || !id) return;
  if (name.empty()) return fillLists();
  // Not from within the list's own signal: the edit fills the list anew.
  QMetaObject::invokeMethod(
      this, [this, id, name] { session_.edit(tr("rename"), [&](Show& show) { changeItem(show.fixtures, id, [&](Fixture& f) { f.name = name; }); }); },
      Qt::QueuedConnection);
}

void PlanPage::renameSelected() {
  if (fixtures_->selectedItems().isEmpty()) return;
  fixtures_->setFocus();
  fixtures_->setCurrentItem(fixtures_->selectedItems().front(), 0, QItemSelectionModel::NoUpdate);
  fixtures_->editItem(fixtures_->selectedItems().front(), 0);
}

void PlanPage::makeZone() {
  const FixtureIds ids = session_.selection.fixtures();
  if (ids.empty()) return;
  ZoneId made;
  const QString name = stem(chispa::find(session_.show().fixtures, ids.front())->name);
  session_.edit(tr("make a zone"), [&](Show& show) { made = addZone(show, name.toStdString(), ids); });
  session_.selection.select(made);
}

void PlanPage::importPoints(QString path, double metresPerUnit) {
  if (path.isEmpty()) {
    path = QFileDialog::getOpenFileName(this, tr("Points from a file"), {}, tr("Points (*.csv *.txt *.json);;All files (*)"));
    if (path.isEmpty()) return;
    bool chosen = false;
    const QString unit = QInputDialog::getItem(this, tr("Points from a file"), tr("The numbers are in"), {tr("metres"), tr("millimetres")}, 0, false, &chosen);
    if (!chosen) return;
    metresPerUnit = unit == tr("metres") ? 1 : 0.001;
  }
  const auto content = readFile(path.toStdString());
  const auto points = content ? parsePoints(*content, path.toStdString(), metresPerUnit) : Result<std::vector<Vec3>>(content.failure());
  if (!points) {
    emit failed(text(points.failure().text()));
    return;
  }
  FixtureId added;
  session_.edit(tr("import points"), [&](Show& show) { added = addFixture(show, PointsShape{*points}, {}); });
  session_.selection.select(FixtureIds{added});
  view_->frameAll();
}

void PlanPage::exportPoints(QString path) {
  if (path.isEmpty()) path = QFileDialog::getSaveFileName(this, tr("Places of the selected pixels"), tr("points.csv"), tr("Table (*.csv);;JSON point list (*.json)"));
  if (path.isEmpty()) return;
  std::vector<Vec3> points;
  for (const FixtureId id : session_.selection.fixtures())
    for (const Vec3& point : positions(*chispa::find(session_.show().fixtures, id))) points.push_back(point);
  const Outcome written = writeFileAtomically(path.toStdString(), path.endsWith(QStringLiteral(".json")) ? pointsJson(points) : pointsCsv(points));
  if (!written) emit failed(text(written.failure().text()));
}

void PlanPage::placeGlow() {
  const int wide = std::clamp(view_->width() * 3 / 10, 160, 420);
  const int tall = wide * 2 / 3;
  glow_->setGeometry(view_->width() - wide - 12, view_->height() - tall - 12, wide, tall);
}

bool PlanPage::eventFilter(QObject* watched, QEvent* event) {
  if (watched == view_ && event->type() == QEvent::Resize) placeGlow();
  return QWidget::eventFilter(watched, event);
}

void PlanPage::resizeEvent(QResizeEvent*) { placeGlow(); }

}  // namespace chispa::desk
