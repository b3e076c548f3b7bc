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

}  // namespace

ToolRow::ToolRow(PlanView& view, QWidget* page) : QWidget(page), view_(view) {
  setObjectName(QStringLiteral("toolRow"));
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(4, 6, 4, 6);
  layout->setSpacing(1);
  const auto addButton = [&](QActionGroup* group, const QString& name, const QString& label,
                             const QString& tip, const char* key) {
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
    layout->addWidget(button);
    return button;
  };
  const ToolEntry tools[] = {
      {"toolSelect", "select", tr("Select"), tr("select and move pieces"), "V", PlanTool::Select},
      {"toolPan", "pan", tr("Move the view"), tr("drag the plan about; the free view is turned"), "H",
       PlanTool::Pan},
      {"toolMeasure", "measure", tr("Measure"), tr("distance and angle between two places"), "M",
       PlanTool::Measure},
      {"toolLamp", "lamp", tr("Lamp"), tr("click where a flood or any single pixel stands"), "A",
       PlanTool::Lamp},
      {"toolLine", "line", tr("Line"), tr("drag from the data-in end to the other"), "L", PlanTool::Line},
      {"toolPath", "path", tr("Path"), tr("click from corner to corner"), "P", PlanTool::Path},
      {"toolMatrix", "matrix", tr("Matrix"), tr("drag from corner to corner"), "G", PlanTool::Matrix},
      {"toolRing", "ring", tr("Ring"), tr("drag from the centre to the rim"), "O", PlanTool::Ring},
      {"toolRings", "rings", tr("Rings"),
       tr("rings one within the other: drag from the centre to the outermost"), "N", PlanTool::Rings},
      {"toolSpiral", "spiral", tr("Spiral"), tr("drag from the centre to its end"), "S", PlanTool::Spiral},
      {"toolCone", "cone", tr("Cone"),
       tr("strings up a roof, a tree or a column: drag from its axis to its foot"), "K", PlanTool::Cone},
      {"toolSpokes", "spokes", tr("Spokes"), tr("strings from a centre: drag from it to their ends"), "Y",
       PlanTool::Spokes},
      {"toolBrush", "brush", tr("Brush"), tr("paint a zone pixel by pixel; Shift erases"), "B",
       PlanTool::Brush},
      {"toolBox", "box", tr("Box"), tr("paint what is in a box; Shift erases"), "X", PlanTool::Box},
      {"toolLasso", "lasso", tr("Lasso"), tr("paint what is within a line; Shift erases"), "Q",
       PlanTool::Lasso}};
  auto* toolGroup = new QActionGroup(page);
  std::vector<PlanTool> order;
  for (const ToolEntry& entry : tools) {
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
  const SideEntry sides[] = {
      {"sideTop", tr("Top"), tr("look from above"), "1", PlanSide::Top},
      {"sideFront", tr("Front"), tr("look from the front"), "2", PlanSide::Front},
      {"sideSide", tr("Side"), tr("look from the right side"), "3", PlanSide::Side},
      {"sideFree", tr("Free"), tr("look from anywhere: the right button, or H and a drag, turns it"), "4",
       PlanSide::Free},
      {"sideUnrolled", tr("Unrolled"), tr("the cells of the selected zone or fixtures as a flat grid"), "5",
       PlanSide::Unrolled}};
  auto* sideGroup = new QActionGroup(page);
  for (const SideEntry& entry : sides) {
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
