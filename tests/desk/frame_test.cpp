// SPDX-License-Identifier: GPL-3.0-or-later
// What stands around the workspaces: start page, history, problems, shortcuts, finder, glow window.
#include <QClipboard>
#include <QDropEvent>
#include <QKeySequenceEdit>
#include <QListWidget>
#include <QMimeData>
#include <QSettings>
#include <QSpinBox>
#include <QTableWidget>
#include <QTreeWidget>

#include "desk/frame/preferences.h"
#include "desk/frame/recentshows.h"
#include "desk/frame/startpage.h"
#include "desk/glow/glowview.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"
#include "desk/window.h"

namespace chispa::desk {
namespace {

class FrameTest : public WindowTest {
 protected:
  FrameTest() {
    window_.resize(1280, 800);
    settle();
  }
  StartPage* start() { return the<StartPage>("startPage"); }
  /// What the finder lists for these words.
  QStringList found(const QString& words) {
    QTest::keyClick(&window_, Qt::Key_K, Qt::ControlModifier);
    auto* field = the<QDialog>("actionFinder")->findChild<QLineEdit*>();
    QTest::keyClicks(field, words);
    QStringList rows;
    const auto* list = the<QDialog>("actionFinder")->findChild<QListWidget*>();
    for (int i = 0; i < list->count(); ++i) rows << list->item(i)->text();
    QTest::keyClick(field, Qt::Key_Escape);
    QCoreApplication::processEvents();
    return rows;
  }
};

TEST_F(FrameTest, AnEmptyPlanOffersBeginnings) {
  EXPECT_TRUE(start()->isVisible());
  press("startTemplate2");
  settle();
  EXPECT_FALSE(start()->isVisible());
  EXPECT_EQ(show().fixtures.size(), 1u);
  EXPECT_EQ(show().looks.size(), 2u);
  trigger("newShow");
  settle();
  EXPECT_TRUE(start()->isVisible()) << "a new show begins with the choice again";
  press("startTemplate0");
  EXPECT_FALSE(start()->isVisible()) << "an empty plan was asked for";
  EXPECT_TRUE(show().fixtures.empty());
}

TEST_F(FrameTest, WhoTakesAToolWantsThePlan) {
  EXPECT_TRUE(start()->isVisible());
  window_.planPage().setFocus();
  QTest::keyClick(&window_.planPage().view(), Qt::Key_L);
  EXPECT_FALSE(start()->isVisible());
  drag(&window_.planPage().view(), {100, 100}, {300, 100});
  EXPECT_EQ(show().fixtures.size(), 1u);
}

TEST_F(FrameTest, TheBenchIsOneClickAwayForAStripInTheHand) {
  press("startBench");
  EXPECT_EQ(window_.workspace(), Workspace::Bench);
}

TEST_F(FrameTest, ShowsThatWereSavedAreOfferedAgainWithAPicture) {
  press("startTemplate3");
  settle();
  const QString file = QString::fromStdString((folder_.path() / "round.chispa").string());
  ASSERT_TRUE(document_.saveAs(file.toStdString()));
  trigger("saveShow");
  EXPECT_EQ(recentShows(), QStringList{file});
  EXPECT_FALSE(pictureOfShow(file).isNull());
  trigger("newShow");
  settle();
  press("startRecent0");
  settle();
  EXPECT_EQ(QString::fromStdString(document_.path().string()), file);
  QFile::remove(file);
  EXPECT_TRUE(recentShows().isEmpty()) << "what is gone is not offered";
}

TEST_F(FrameTest, HistoryIsAListToJumpIn) {
  press("startTemplate0");
  for (const char* name : {"One", "Two", "Three"})
    document_.apply(QString::fromLatin1(name), [name](Show& s) { s.name = name; });
  trigger("showHistory");
  auto* list = the<QListWidget>("historyList");
  ASSERT_EQ(list->count(), 4);
  EXPECT_EQ(list->currentRow(), 3);
  list->setFocus();
  for (int i = 0; i < 2; ++i) QTest::keyClick(list, Qt::Key_Up);
  EXPECT_EQ(show().name, "One");
  QTest::keyClick(list, Qt::Key_End);
  EXPECT_EQ(show().name, "Three");
  trigger("undo");
  EXPECT_EQ(list->currentRow(), 2) << "the list follows";
}

TEST_F(FrameTest, ProblemsAreListedAndGoneTo) {
  press("startTemplate4");
  document_.apply(QStringLiteral("unwire"), [](Show& s) { s.controllers.clear(); });
  settle();
  QTest::keyClick(&window_, Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
  auto* list = the<QTreeWidget>("problemList");
  ASSERT_GT(list->topLevelItemCount(), 0);
  const QTreeWidgetItem* group = list->topLevelItem(0);
  ASSERT_GT(group->childCount(), 1) << group->text(0).toStdString();
  EXPECT_TRUE(group->child(0)->text(0).contains(QStringLiteral("Eaves")))
      << group->child(0)->text(0).toStdString();
  window_.showWorkspace(Workspace::Run);
  list->setCurrentItem(group->child(0));
  QTest::mouseClick(the<QPushButton>("problemGo"), Qt::LeftButton);
  EXPECT_EQ(window_.workspace(), Workspace::Plan);
  EXPECT_EQ(selection_.fixtures().size(), 1u);
  trigger("undo");
  settle();
  EXPECT_NE(list->topLevelItem(0)->text(0), QString()) << "it follows the show";
  EXPECT_LE(list->topLevelItem(0)->childCount(), 1);
}

TEST_F(FrameTest, TheFinderKnowsSubmenusThingsAndWhyNot) {
  press("startTemplate4");
  settle();
  const QStringList beats = found(QStringLiteral("half as many beats"));
  ASSERT_FALSE(beats.isEmpty()) << "it lies in a submenu, and Score is not seen";
  EXPECT_TRUE(beats[0].contains(QStringLiteral("Beats"))) << beats[0].toStdString();
  EXPECT_FALSE(beats[0].contains(QStringLiteral("cannot"))) << "the finder goes to Score";
  EXPECT_FALSE(found(QStringLiteral("Eaves left")).isEmpty()) << "fixtures";
  EXPECT_FALSE(found(QStringLiteral("Effect Snowfall")).isEmpty()) << "effects";
  EXPECT_FALSE(found(QStringLiteral("Spiral")).isEmpty()) << "tools";
  const QStringList redo = found(QStringLiteral("Redo"));
  ASSERT_FALSE(redo.isEmpty());
  EXPECT_TRUE(redo[0].contains(QStringLiteral("cannot be done now"))) << redo[0].toStdString();
}

TEST_F(FrameTest, KeysOfAnActionCanBeChangedAndComeBack) {
  trigger("showShortcuts");
  auto* table = the<QTableWidget>("shortcutTable");
  const auto rowOf = [&](const QString& name) {
    for (int row = 0; row < table->rowCount(); ++row)
      if (table->item(row, 1)->text() == name) return row;
    return -1;
  };
  const int row = rowOf(QStringLiteral("Duplicate"));
  ASSERT_GE(row, 0);
  answering<QDialog>(
      [](QDialog& box) {
        auto* field = box.findChild<QKeySequenceEdit*>();
        if (!field) return;
        field->setKeySequence(QKeySequence(QStringLiteral("Ctrl+Alt+Y")));
        answer(box, QStringLiteral("OK"));
      },
      [&] { emit table->cellActivated(row, 2); });
  auto* action = the<QAction>("duplicate");
  EXPECT_EQ(action->shortcut(), QKeySequence(QStringLiteral("Ctrl+Alt+Y")));
  EXPECT_EQ(table->item(row, 2)->text(), QStringLiteral("Ctrl+Alt+Y"));
  press("shortcutReset");
  EXPECT_EQ(action->shortcut(), QKeySequence(QStringLiteral("Ctrl+D")));
}

TEST_F(FrameTest, TheGlowCanBeHiddenAndStandInAWindowOfItsOwn) {
  press("startTemplate2");
  settle();
  EXPECT_TRUE(window_.planPage().glow().isVisible());
  trigger("showGlow");
  EXPECT_FALSE(window_.planPage().glow().isVisible());
  trigger("showGlow");
  trigger("glowWindow");
  const auto ownWindow = [] {
    for (QWidget* one : QApplication::topLevelWidgets())
      if (one->objectName() == QStringLiteral("glowWindow") && one->isVisible()) return one;
    return static_cast<QWidget*>(nullptr);
  };
  QWidget* own = ownWindow();
  ASSERT_TRUE(own);
  QTest::keyClick(own, Qt::Key_F);
  EXPECT_TRUE(own->isFullScreen());
  QTest::keyClick(own, Qt::Key_Escape);
  EXPECT_FALSE(own->isFullScreen());
  QTest::keyClick(own, Qt::Key_Escape);
  QCoreApplication::processEvents();
  EXPECT_FALSE(ownWindow());
  EXPECT_FALSE(the<QAction>("glowWindow")->isChecked());
}

/// Of the next start: the choices are kept, and a start takes them.
TEST_F(FrameTest, TextSizeAndNumbersAreChosenForTheNextStart) {
  trigger("preferences");
  choose("preferTextSize", QStringLiteral("very large"));
  choose("preferNumbers", QStringLiteral("12.345,6"));
  const QFont font = QApplication::font();
  const QLocale locale;
  applyTheme(*qApp, true);
  writeNumbersAsChosen();
  EXPECT_EQ(QApplication::font().pixelSize(), 18);
  EXPECT_EQ(QLocale().toString(12345.6, 'f', 1), QStringLiteral("12.345,6"));
  choose("preferTextSize", QStringLiteral("normal"));
  choose("preferNumbers", QStringLiteral("12,345.6"));
  applyTheme(*qApp, true);
  writeNumbersAsChosen();
  EXPECT_EQ(QApplication::font().pixelSize(), 13);
  EXPECT_EQ(QLocale().toString(12345.6, 'f', 1), QStringLiteral("12,345.6"));
  QLocale::setDefault(locale);
  QApplication::setFont(font);
}

TEST_F(FrameTest, PreferencesAreFoundByWordsAndTakeEffectAtOnce) {
  trigger("preferences");
  auto* search = the<QLineEdit>("preferenceSearch");
  QTest::keyClicks(search, QStringLiteral("theme"));
  EXPECT_TRUE(the<QComboBox>("preferTheme")->isVisible());
  EXPECT_FALSE(the<QWidget>("preferLast")->isVisible());
  choose("preferTheme", QStringLiteral("light"));
  EXPECT_EQ(chosenTheme(), ThemeChoice::Light);
  choose("preferTheme", QStringLiteral("dark"));
}

TEST_F(FrameTest, FixturesAndLooksAreCopiedCutAndPastedByKeys) {
  press("startTemplate4");
  settle();
  window_.planPage().view().setFocus();
  selection_.select(FixtureIds{show().fixtures[0]->id});
  QTest::keyClick(&window_.planPage().view(), Qt::Key_C, Qt::ControlModifier);
  QTest::keyClick(&window_.planPage().view(), Qt::Key_V, Qt::ControlModifier);
  ASSERT_EQ(show().fixtures.size(), 6u);
  EXPECT_EQ(selection_.fixtures(), FixtureIds{show().fixtures.back()->id}) << "what was pasted is selected";
  QTest::keyClick(&window_.planPage().view(), Qt::Key_X, Qt::ControlModifier);
  EXPECT_EQ(show().fixtures.size(), 5u);
  // The other show, as another window would have it.
  document_.start(ShowTemplate::Ring);
  settle();
  QTest::keyClick(&window_.planPage().view(), Qt::Key_V, Qt::ControlModifier);
  EXPECT_EQ(show().fixtures.size(), 2u);
  QApplication::clipboard()->setText(QStringLiteral("nothing of ours"));
  trigger("pasteThings");
  EXPECT_EQ(show().fixtures.size(), 2u);
  EXPECT_EQ(told_.size(), 1) << told_.join("; ").toStdString();
}

TEST_F(FrameTest, FilesCanBeDroppedAnywhere) {
  const auto dropped = [this](const QString& file) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter({300, 300}, Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(&window_, &enter);
    QDropEvent event({300, 300}, Qt::CopyAction, &data, Qt::LeftButton, {});
    QApplication::sendEvent(&window_, &event);
    settle();
  };
  dropped(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa"));
  EXPECT_EQ(show().fixtures.size(), 49u);
  const std::size_t scores = show().scores.size();
  dropped(kWaltz);
  EXPECT_EQ(show().scores.size(), scores + 1);
  EXPECT_EQ(window_.workspace(), Workspace::Score);
  dropped(QStringLiteral(CHISPA_SOURCE_DIR "/CMakeLists.txt"));
  EXPECT_FALSE(told_.isEmpty()) << "a text is read as points, and says what is wrong";
  const qsizetype before = told_.size();
  dropped(QStringLiteral(CHISPA_BIN_DIR "/chispa"));
  ASSERT_GT(told_.size(), before);
  EXPECT_TRUE(told_.back().contains(QStringLiteral("no kind that is known")));
}

TEST_F(FrameTest, ASilentScoreIsMadeWithoutAFile) {
  press("startTemplate1");
  window_.showWorkspace(Workspace::Score);
  answering<QDialog>(
      [](QDialog& box) {
        auto* bars = box.findChild<QSpinBox*>(QStringLiteral("silentBars"));
        if (!bars) return;
        bars->setFocus();
        bars->selectAll();
        QTest::keyClicks(bars, QStringLiteral("8"));
        answer(box, QStringLiteral("OK"));
      },
      [&] { trigger("newSilentScore"); });
  ASSERT_EQ(show().scores.size(), 1u);
  EXPECT_EQ(show().scores[0]->length, micros(16)) << "eight bars of four at 120";
  stage_.play();
  EXPECT_TRUE(stage_.isPlaying());
}

}  // namespace
}  // namespace chispa::desk
