// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "demowindow.h"
#include <QToolButton>

namespace chispa::desk {

/// The demo in the window, and all that its workspaces can be about.
class DemoScenes : public DemoWindow {
 protected:
  /// What the inspector can be about, with the workspace it belongs to.
  struct Scene {
    QString name;
    Workspace workspace;
    std::function<void()> choose;
  };
  std::vector<Scene> scenes() {
    const auto select = [this](auto what) { return [this, what] { selection_.select(what); }; };
    return {
        {"plan, nothing", Workspace::Plan, [this] { selection_.clear(); }},
        {"plan, a post", Workspace::Plan, select(FixtureIds{findNamed(show().fixtures, "Post 3")->id})},
        {"plan, the sign", Workspace::Plan, select(FixtureIds{findNamed(show().fixtures, "Booth sign")->id})},
        {"plan, a zone", Workspace::Plan, select(findNamed(show().zones, "Column")->id)},
        {"plan, a strip type", Workspace::Plan, select(show().stripTypes.front()->id)},
        {"wire, a controller", Workspace::Wire, select(show().controllers.front()->id)},
        {"wire, a port", Workspace::Wire, select(PortChoice{show().controllers.front()->id, 0})},
        {"wire, a bead", Workspace::Wire, select(BeadPlace{show().controllers.front()->id, 1, 0})},
        {"bench", Workspace::Bench, [this] { selection_.clear(); }},
        {"score, a clip", Workspace::Score, select(ClipIds{stage_.score()->clips.front()->id})},
        {"score, a palette", Workspace::Score, select(show().palettes.front()->id)},
        {"score, the score", Workspace::Score, select(stage_.score()->id)},
        {"run", Workspace::Run, [this] { selection_.clear(); }},
        {"run, a look", Workspace::Run, select(show().looks.front()->id)},
        {"run, a binding", Workspace::Run, select(show().bindings.front()->id)},
        {"run, a set list", Workspace::Run, select(show().setLists.front()->id)},
        {"run, a line", Workspace::Run, select(LineChoice{show().setLists.front()->id, 1})},
        {"run, a rule", Workspace::Run, select(show().rules.front()->id)},
        {"run, the almanac", Workspace::Run, select(AlmanacChoice{})}};
  }
  /// Buttons in sight whose words do not fit.
  std::vector<const QAbstractButton*> cutButtons() const {
    std::vector<const QAbstractButton*> cut;
    for (const QAbstractButton* button : window_.findChildren<QAbstractButton*>()) {
      const auto* tool = qobject_cast<const QToolButton*>(button);
      if (!button->isVisible() || button->text().isEmpty() ||
          (tool && tool->toolButtonStyle() == Qt::ToolButtonIconOnly))
        continue;
      const int wanted =
          button->fontMetrics().horizontalAdvance(QString(button->text()).remove(QLatin1Char('&')));
      if (button->width() < wanted) cut.push_back(button);
    }
    return cut;
  }
  void go(const Scene& scene) {
    window_.showWorkspace(scene.workspace);
    scene.choose();
    QCoreApplication::processEvents();
  }
};

}  // namespace chispa::desk
