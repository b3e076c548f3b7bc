// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/toolrow.h"

#include <QAction>
#include <QActionGroup>
#include <QHBoxLayout>
#include <QToolButton>

#include "desk/parts/icon.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

struct ToolEntry {
  const char* name;
  const char* icon;
  QString label;
  QString tip;
  const char* key;
  PlanTool tool;
};

struct SideEntry {
  const char* name;
  QString label;
  QString tip;
  const char* key;
  PlanSide side;
};

std::vector<ToolEntry> toolEntries() {
  return {{"toolSelect", "select", ToolRow::tr("Select"), ToolRow::tr("select and move pieces"), "V",
           PlanTool::Select},
          {"toolPan", "pan", ToolRow::tr("Move the view"),
           ToolRow::tr("drag the plan about; the free view is turned"), "H", PlanTool::Pan},
          {"toolMeasure", "measure", ToolRow::tr("Measure"),
           ToolRow::tr("distance and angle between two places"), "M", PlanTool::Measure},
          {"toolLamp", "lamp", ToolRow::tr("Lamp"),
           ToolRow::tr("click where a flood or any single pixel stands"), "A", PlanTool::Lamp},
          {"toolLine", "line", ToolRow::tr("Line"), ToolRow::tr("drag from the data-in end to the other"),
           "L", PlanTool::Line},
          {"toolPath", "path", ToolRow::tr("Path"), ToolRow::tr("click from corner to corner"), "P",
           PlanTool::Path},
          {"toolMatrix", "matrix", ToolRow::tr("Matrix"), ToolRow::tr("drag from corner to corner"), "G",
           PlanTool::Matrix},
          {"toolRing", "ring", ToolRow::tr("Ring"), ToolRow::tr("drag from the centre to the rim"), "O",
           PlanTool::Ring},
          {"toolRings", "rings", ToolRow::tr("Rings"),
           ToolRow::tr("rings one within the other: drag from the centre to the outermost"), "N",
           PlanTool::Rings},
          {"toolSpiral", "spiral", ToolRow::tr("Spiral"), ToolRow::tr("drag from the centre to its end"), "S",
           PlanTool::Spiral},
          {"toolCone", "cone", ToolRow::tr("Cone"),
           ToolRow::tr("strings up a roof, a tree or a column: drag from its axis to its foot"), "K",
           PlanTool::Cone},
          {"toolSpokes", "spokes", ToolRow::tr("Spokes"),
           ToolRow::tr("strings from a centre: drag from it to their ends"), "Y", PlanTool::Spokes},
          {"toolBrush", "brush", ToolRow::tr("Brush"),
           ToolRow::tr("paint a zone pixel by pixel; Shift erases"), "B", PlanTool::Brush},
          {"toolBox", "box", ToolRow::tr("Box"), ToolRow::tr("paint what is in a box; Shift erases"), "X",
           PlanTool::Box},
          {"toolLasso", "lasso", ToolRow::tr("Lasso"),
           ToolRow::tr("paint what is within a line; Shift erases"), "Q", PlanTool::Lasso}};
}

std::vector<SideEntry> sideEntries() {
  return {
      {"sideTop", ToolRow::tr("Top"), ToolRow::tr("look from above"), "1", PlanSide::Top},
      {"sideFront", ToolRow::tr("Front"), ToolRow::tr("look from the front"), "2", PlanSide::Front},
      {"sideSide", ToolRow::tr("Side"), ToolRow::tr("look from the right side"), "3", PlanSide::Side},
      {"sideFree", ToolRow::tr("Free"),
       ToolRow::tr("look from anywhere: the right button, or H and a drag, turns it"), "4", PlanSide::Free},
      {"sideUnrolled", ToolRow::tr("Unrolled"),
       ToolRow::tr("the cells of the selected zone or fixtures as a flat grid"), "5", PlanSide::Unrolled}};
}

}  // namespace

QToolButton* ToolRow::addButton(QActionGroup* group, const QString& name, const QString& label,
                                const QString& tip, const char* key) {
  QWidget* page = parentWidget();
  auto* action = new QAction(label, page);
  action->setToolTip(QStringLiteral("%1 — %2 (%3)").arg(label, tip, QLatin1String(key)));
  action->setShortcut(QKeySequence(QLatin1String(key)));
  action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
  action->setCheckable(true);
  page->addAction(action);
  group->addAction(action);
  auto* button = new QToolButton;
  button->setObjectName(name);
  button->setDefaultAction(action);
  button->setAccessibleName(label);
  layout()->addWidget(button);
  return button;
}

ToolRow::ToolRow(PlanView& view, QWidget* page) : QWidget(page), view_(view) {
  setObjectName(QStringLiteral("toolRow"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(4, 6, 4, 6);
  layout->setSpacing(1);
  auto* toolGroup = new QActionGroup(page);
  std::vector<PlanTool> order;
  for (const ToolEntry& entry : toolEntries()) {
    QToolButton* button = addButton(toolGroup, QLatin1String(entry.name), entry.label, entry.tip, entry.key);
    button->setProperty("tool", true);
    icons_.push_back({button->defaultAction(), QLatin1String(entry.icon)});
    button->setToolButtonStyle(Qt::ToolButtonIconOnly);
    button->setIconSize({20, 20});
    connect(button->defaultAction(), &QAction::triggered, &view,
            [&view, tool = entry.tool] { view.setTool(tool); });
    // A double click keeps it in hand: the first of its clicks has taken it.
    button->installEventFilter(this);
    order.push_back(entry.tool);
    if (entry.tool == PlanTool::Measure || entry.tool == PlanTool::Spokes) layout->addSpacing(2);
  }
  layout->addSpacing(2);
  auto* sideGroup = new QActionGroup(page);
  for (const SideEntry& entry : sideEntries()) {
    QToolButton* button = addButton(sideGroup, QLatin1String(entry.name), entry.label, entry.tip, entry.key);
    connect(button->defaultAction(), &QAction::triggered, &view,
            [&view, side = entry.side] { view.setSide(side); });
  }
  layout->addStretch();
  const auto showState = [&view, toolGroup, sideGroup, order] {
    toolGroup->setExclusive(false);
    for (std::size_t i = 0; i < order.size(); ++i)
      toolGroup->actions().at(static_cast<int>(i))->setChecked(order[i] == view.tool());
    toolGroup->setExclusive(true);
    sideGroup->actions().at(static_cast<int>(view.side()))->setChecked(true);
  };
  connect(&view, &PlanView::toolChanged, this, showState);
  connect(&view, &PlanView::sideChanged, this, showState);
  showState();
  refreshIcons();
}

bool ToolRow::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::MouseButtonDblClick) {
    view_.keepTool();
    return true;
  }
  return QWidget::eventFilter(watched, event);
}

void ToolRow::refreshIcons() {
  for (const ToolIcon& tool : icons_) tool.action->setIcon(icon(tool.name));
}

}  // namespace chispa::desk
