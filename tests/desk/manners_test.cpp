// SPDX-License-Identifier: GPL-3.0-or-later
// What holds everywhere in the window: everything has a name and words for the pointer, can be reached by the
// keyboard, can be read, and what an action changes can be taken back.
#include <cmath>

#include "carousel/carousel.h"
#include "scenes.h"
#include <QAbstractItemView>
#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QButtonGroup>
#include <QLabel>
#include <QMenuBar>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>

#include "core/colour/rgb.h"
#include "desk/bench/benchpage.h"
#include "desk/parts/theme.h"
#include "desk/run/runpage.h"
#include "desk/score/clippictures.h"
#include "desk/session/nightdesk.h"

namespace chispa::desk {
namespace {

class MannersTest : public DemoScenes {
 protected:
  /// Everything in sight that answers to the mouse or the keyboard.
  std::vector<QWidget*> fields() const {
    std::vector<QWidget*> found;
    for (QWidget* widget : window_.findChildren<QWidget*>()) {
      if (!widget->isVisible() || qobject_cast<QScrollBar*>(widget)) continue;
      // What a field is made of inside speaks for the field.
      const QWidget* parent = widget->parentWidget();
      if (qobject_cast<const QAbstractSpinBox*>(parent) || qobject_cast<const QComboBox*>(parent) ||
          (qobject_cast<const QLineEdit*>(parent) && !qobject_cast<QLineEdit*>(widget)))
        continue;
      const bool isField = qobject_cast<QAbstractButton*>(widget) || qobject_cast<QLineEdit*>(widget) ||
                           qobject_cast<QComboBox*>(widget) || qobject_cast<QAbstractSpinBox*>(widget) ||
                           qobject_cast<QAbstractItemView*>(widget) ||
                           qobject_cast<QAbstractSlider*>(widget) ||
                           (widget->focusPolicy() & Qt::StrongFocus) == Qt::StrongFocus;
      if (isField) found.push_back(widget);
    }
    return found;
  }
  static QString nameOf(const QWidget* widget) {
    return QString::fromLatin1(widget->metaObject()->className()) + QLatin1Char(' ') + widget->objectName();
  }
};

TEST_F(MannersTest, EveryFieldHasANameForThoseWhoCannotSeeIt) {
  QStringList nameless;
  for (const Scene& scene : scenes()) {
    go(scene);
    for (const QWidget* field : fields()) {
      const auto* button = qobject_cast<const QAbstractButton*>(field);
      if (field->accessibleName().isEmpty() && (!button || button->text().isEmpty()))
        nameless << scene.name + QStringLiteral(": ") + nameOf(field);
    }
  }
  EXPECT_TRUE(nameless.isEmpty()) << nameless.join(QLatin1Char('\n')).toStdString();
}

TEST_F(MannersTest, EveryFieldHasWordsForThePointer) {
  QStringList wordless;
  for (const Scene& scene : scenes()) {
    go(scene);
    for (QWidget* field : fields()) {
      const auto* area = qobject_cast<const QAbstractScrollArea*>(field);
      // Whole pages take keys, but hold the fields that have words.
      if (field->layout() || qobject_cast<const QScrollArea*>(field)) continue;
      if (field->toolTip().isEmpty() && (!area || area->viewport()->toolTip().isEmpty()))
        wordless << scene.name + QStringLiteral(": ") + nameOf(field);
    }
  }
  EXPECT_TRUE(wordless.isEmpty()) << wordless.join(QLatin1Char('\n')).toStdString();
}

TEST_F(MannersTest, EveryFieldIsReachedByTheTabKey) {
  QStringList lost;
  for (const Scene& scene : scenes()) {
    go(scene);
    for (const QWidget* field : fields()) {
      // Of buttons that exclude each other Tab reaches the one that is down, and arrows the others.
      const auto* button = qobject_cast<const QAbstractButton*>(field);
      if (button && button->group() && button->group()->exclusive() && !button->isChecked()) continue;
      if (field->isEnabled() && !(field->focusPolicy() & Qt::TabFocus))
        lost << scene.name + QStringLiteral(": ") + nameOf(field);
    }
  }
  EXPECT_TRUE(lost.isEmpty()) << lost.join(QLatin1Char('\n')).toStdString();
}

TEST_F(MannersTest, NothingIsCutOffAtTheEdgeOfTheWindow) {
  QStringList cut;
  for (const Scene& scene : scenes()) {
    go(scene);
    EXPECT_EQ(window_.size(), QSize(1280, 800)) << scene.name.toStdString() << " makes the window grow";
    for (const QAbstractButton* button : cutButtons())
      cut << scene.name + QStringLiteral(": ") + button->text();
  }
  EXPECT_TRUE(cut.isEmpty()) << cut.join(QLatin1Char('\n')).toStdString();
}

TEST_F(MannersTest, WhatAnActionChangesIsTakenBackByOneUndo) {
  // These ask something, or leave; the last two change the whole window, which takes long, and never the
  // show.
  const QStringList asking = {"newShow", "quit",     "openDemo",   "about",   "findAction", "undo",
                              "redo",    "saveShow", "openRecent", "evening", "openGuide",  "toggleTheme"};
  int changed = 0;
  for (const Scene& scene : scenes()) {
    // In Run every change draws all pads anew: one thing that is selected there stands for all.
    if (scene.name.startsWith(QStringLiteral("run, ")) && scene.name != QStringLiteral("run, a line"))
      continue;
    bool isThere = false;
    for (QAction* action : window_.findChildren<QAction*>()) {
      if (action->text().contains(QStringLiteral("…")) || action->menu() || action->isSeparator() ||
          action->objectName().isEmpty() || asking.contains(action->objectName()))
        continue;
      if (!std::exchange(isThere, true)) go(scene);
      if (!action->isEnabled()) continue;
      isThere = false;
      // What an action before began to record ends here, and is an edit of that one.
      window_.runPage().record(false);
      window_.night().stop();
      document_.seal();
      const Show before = show();
      action->trigger();
      QCoreApplication::processEvents();
      if (show() == before) continue;
      ++changed;
      trigger("undo");
      ASSERT_EQ(show(), before) << scene.name.toStdString() << ": " << action->objectName().toStdString()
                                << ", what is left: " << document_.undoName().toStdString()
                                << ", taken back: " << document_.redoName().toStdString();
    }
    stage_.setPart({});
    stage_.pause();
    stage_.setRate(1);
    stage_.switchLight(false);
  }
  EXPECT_GT(changed, 30) << "or nothing was tried";
}

/// WCAG 2.1, 1.4.3: contrast of two colours, 1–21.
double contrast(const QColor& a, const QColor& b) {
  const auto luminance = [](const QColor& c) {
    const Rgb light = toLinear({static_cast<std::uint8_t>(c.red()), static_cast<std::uint8_t>(c.green()),
                                static_cast<std::uint8_t>(c.blue())});
    return 0.2126 * static_cast<double>(light.r) + 0.7152 * static_cast<double>(light.g) +
           0.0722 * static_cast<double>(light.b);
  };
  const double x = luminance(a), y = luminance(b);
  return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

TEST_F(MannersTest, TextCanBeReadInBothThemes) {
  constexpr double kLeast = 4.5;
  for (const bool isDark : {true, false}) {
    window_.setDark(isDark);
    for (const QColor& ground : {theme().window, theme().panel, theme().raised}) {
      EXPECT_GE(contrast(theme().text, ground), kLeast) << isDark << ground.name().toStdString();
      EXPECT_GE(contrast(theme().quiet, ground), kLeast) << isDark << ground.name().toStdString();
    }
    EXPECT_GE(contrast(theme().text, theme().selectedGround()), kLeast) << isDark;
  }
  window_.setDark(true);
}

/// Counts what is painted.
class PaintCounter : public QObject {
 public:
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == QEvent::Paint) ++painted[QString::fromLatin1(watched->metaObject()->className())];
    return false;
  }
  QMap<QString, int> painted;
};

/// With nothing playing and the light off, neither plan nor glow nor timeline is painted again.
TEST_F(MannersTest, NothingIsPaintedWhereNothingMoves) {
  window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa"));
  for (const Workspace workspace : {Workspace::Plan, Workspace::Score, Workspace::Run}) {
    window_.showWorkspace(workspace);
    settle();
    // Pictures that are still being drawn on workers come in.
    EXPECT_TRUE(eventually([this] { return window_.scorePage().pictures().isIdle(); }));
    ticks(20);
    PaintCounter counter;
    qApp->installEventFilter(&counter);
    ticks(15);
    qApp->removeEventFilter(&counter);
    for (const char* name :
         {"chispa::desk::PlanView", "chispa::desk::GlowView", "chispa::desk::OverviewStrip"})
      EXPECT_EQ(counter.painted.value(QLatin1String(name)), 0)
          << name << " in " << static_cast<int>(workspace);
  }
}

TEST_F(MannersTest, ActionsHaveNoShortcutInCommon) {
  for (const Scene& scene : scenes()) {
    go(scene);
    QMap<QString, QStringList> actions;
    for (const QAction* action : window_.findChildren<QAction*>()) {
      const auto* owner = qobject_cast<const QWidget*>(action->parent());
      const bool isOfPart = action->shortcutContext() == Qt::WidgetShortcut ||
                            action->shortcutContext() == Qt::WidgetWithChildrenShortcut;
      if (!action->isEnabled() || (isOfPart && owner && !owner->isVisible())) continue;
      for (const QKeySequence& keys : action->shortcuts())
        if (!keys.isEmpty()) actions[keys.toString()] << action->text();
    }
    for (auto keys = actions.cbegin(); keys != actions.cend(); ++keys)
      EXPECT_EQ(keys.value().size(), 1) << scene.name.toStdString() << ", " << keys.key().toStdString()
                                        << ": " << keys.value().join(QLatin1String(" / ")).toStdString();
  }
}

}  // namespace
}  // namespace chispa::desk
