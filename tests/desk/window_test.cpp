// SPDX-License-Identifier: GPL-3.0-or-later
#include "window.h"

#include <csignal>
#include <fstream>

#include "carousel/carousel.h"
#include <QAbstractButton>
#include <QAbstractSlider>
#include <QListWidget>
#include <QScrollBar>
#include <QTreeWidget>

#include "core/edit/scoreedits.h"
#include "core/files/showfile.h"
#include "desk/frame/actionfinder.h"
#include "desk/session/journalwriter.h"

namespace chispa::desk {
namespace {

const QString kDemo = QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa");

/// The demo is open.
class DemoWindowTest : public WindowTest {
 protected:
  DemoWindowTest() {
    EXPECT_TRUE(window_.openFile(kDemo));
    settle();
  }
  ClipId clipOf(const std::string& effect) const {
    for (const auto& clip : stage_.score()->clips)
      if (clip->effect == effect) return clip->id;
    return {};
  }
};

TEST_F(DemoWindowTest, EveryFieldAndButtonHasANameAndATooltip) {
  for (int workspace = 0; workspace < 5; ++workspace) {
    window_.showWorkspace(static_cast<Workspace>(workspace));
    const Selected selections[] = {Selected{},
                                   Selected{FixtureIds{show().fixtures[0]->id}},
                                   Selected{ClipIds{clipOf("comets")}},
                                   Selected{show().controllers[0]->id},
                                   Selected{show().palettes[0]->id},
                                   Selected{show().zones[0]->id},
                                   Selected{BeadPlace{show().controllers[0]->id, 0, 0}}};
    for (const Selected& selected : selections) {
      selection_.select(selected);
      QCoreApplication::processEvents();
      for (QWidget* widget : window_.findChildren<QWidget*>()) {
        const bool speaks = qobject_cast<QAbstractButton*>(widget) || qobject_cast<QComboBox*>(widget) ||
                            qobject_cast<QAbstractSpinBox*>(widget) || qobject_cast<QAbstractSlider*>(widget);
        if (!speaks || !widget->isVisible() || qobject_cast<QScrollBar*>(widget)) continue;
        const auto* button = qobject_cast<QAbstractButton*>(widget);
        EXPECT_FALSE(widget->accessibleName().isEmpty() && (!button || button->text().isEmpty()))
            << widget->objectName().toStdString();
        EXPECT_FALSE(widget->toolTip().isEmpty()) << widget->objectName().toStdString();
        EXPECT_NE(widget->focusPolicy(), Qt::NoFocus) << widget->objectName().toStdString();
      }
    }
  }
}

TEST_F(DemoWindowTest, TheWindowFitsA1280By800Screen) {
  window_.resize(1280, 800);
  QCoreApplication::processEvents();
  EXPECT_EQ(window_.width(), 1280);
  EXPECT_EQ(window_.height(), 800);
}

TEST_F(DemoWindowTest, DraggingAFixtureMovesItInOneStep) {
  PlanView& plan = window_.planPage().view();
  window_.showWorkspace(Workspace::Plan);
  QCoreApplication::processEvents();
  const FixtureId sign = findNamed(show().fixtures, "Path edge")->id;
  const Vec3 pixel = positions(*find(show().fixtures, sign))[150];
  const Show before = show();
  drag(&plan, plan.toScreen(pixel), plan.toScreen(pixel + Vec3{0.5, 0.25, 0}));
  EXPECT_NEAR(find(show().fixtures, sign)->place.position_m.x, 0.5, 0.051);
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(DemoWindowTest, DeletingARenamedFixtureAndUndoingGivesItBack) {
  const Show before = show();
  selection_.select(FixtureIds{findNamed(show().fixtures, "Booth sign")->id});
  trigger("delete");
  EXPECT_FALSE(findNamed(show().fixtures, "Booth sign"));
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(DemoWindowTest, PixelsLengthAndPitchFollowFromEachOther) {
  selection_.select(FixtureIds{findNamed(show().fixtures, "Rib 1")->id});
  choose("follows", QStringLiteral("pixels per metre"));
  setNumber("length", 3.0);
  EXPECT_NEAR(the<QDoubleSpinBox>("perMetre")->value(), 10.0, 0.01);
  choose("follows", QStringLiteral("the length"));
  setNumber("perMetre", 60);
  EXPECT_NEAR(the<QDoubleSpinBox>("length")->value(), 0.5, 1e-3);
  setNumber("pixels", 60);
  EXPECT_NEAR(the<QDoubleSpinBox>("length")->value(), 1.0, 1e-3);
  EXPECT_EQ(show().controllers[0]->ports[2].run[0].count, 60) << "the bead follows";
}

TEST_F(DemoWindowTest, AClipIsDraggedToABarAndResized) {
  window_.showWorkspace(Workspace::Score);
  QCoreApplication::processEvents();
  TimelineView& timeline = window_.scorePage().timeline();
  const ClipId id = clipOf("loudness");
  const Show before = show();
  const QRectF box = timeline.clipBox(id);
  const auto& bars = laneOf(*stage_.score(), LaneKind::Bars)->marks;
  const Micros start = findClip(*stage_.score(), id)->start;
  const double bar = timeline.xOf(bars[1].at) - timeline.xOf(bars[0].at);
  drag(timeline.viewport(), box.center(), box.center() + QPointF(2 * bar + 1, 0));
  EXPECT_EQ(findClip(*stage_.score(), id)->start, start + (bars[2].at - bars[0].at)) << "it snaps to the bar";
  const QRectF moved = timeline.clipBox(id);
  const Micros length = findClip(*stage_.score(), id)->length;
  drag(timeline.viewport(), {moved.right() - 2, moved.center().y()},
       {moved.right() - 2 - bar, moved.center().y()});
  EXPECT_LT(findClip(*stage_.score(), id)->length, length);
  trigger("undo");
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(DemoWindowTest, AKeyPlacesAMarkWhilePlaying) {
  window_.showWorkspace(Workspace::Score);
  TimelineView& timeline = window_.scorePage().timeline();
  stage_.seek(Micros(10'000'000));
  QTest::keyClick(&timeline, Qt::Key_Space);
  EXPECT_TRUE(eventually([this] { return stage_.position() > Micros(10'050'000); }));
  QTest::keyClick(&timeline, Qt::Key_M);
  QTest::keyClick(&timeline, Qt::Key_Space);
  const MarkLane* lane = laneOf(*stage_.score(), LaneKind::Free);
  ASSERT_TRUE(lane);
  EXPECT_GT(lane->marks[0].at, Micros(10'000'000));
}

TEST_F(DemoWindowTest, AChangedPaletteReachesTheFrame) {
  const auto lit = [this] { return stage_.frame(); };
  stage_.seek(Micros(20'000'000));
  settle();
  const PixelFrame before = lit();
  const PaletteId fair = findNamed(show().palettes, "Fair")->id;
  document_.apply(QStringLiteral("palette"), [&](Show& s) {
    changeItem(s.palettes, fair, [](Palette& p) {
      for (auto& stop : p.stops) stop.colour = {10, 255, 10};
    });
  });
  settle();
  EXPECT_TRUE(eventually([&] { return !(lit() == before); }));
}

TEST_F(DemoWindowTest, ScissorsCutABeadAtThePointer) {
  window_.showWorkspace(Workspace::Wire);
  QCoreApplication::processEvents();
  LoomView& loom = window_.wirePage().loom();
  const auto* thread = loom.layoutNow().chainOf(findNamed(show().controllers, "Booth box")->id, 0);
  const QPointF middle = thread->beads[0].box.center();
  loom.setFocus();
  QTest::keyClick(&loom, Qt::Key_C);
  QTest::mouseClick(&loom, Qt::LeftButton, {}, middle.toPoint());
  const auto& run = findNamed(show().controllers, "Booth box")->ports[0].run;
  ASSERT_EQ(run.size(), 2u);
  EXPECT_NEAR(run[0].count, 384, 4);
  EXPECT_EQ(run[0].count + run[1].count, 768);
}

TEST_F(DemoWindowTest, ADamagedShowIsRefusedAndTheOpenOneStays) {
  const Show before = show();
  std::ofstream(folder_.path() / "cut.chispa") << R"({"format": "chispa-show", "fix)";
  EXPECT_FALSE(window_.openFile(QString::fromStdString((folder_.path() / "cut.chispa").string())));
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("damaged")));
  EXPECT_EQ(show(), before);
}

TEST_F(DemoWindowTest, AMissingAudioFileIsSaidAndPlaysSilently) {
  std::filesystem::copy(kDemo.toStdString(), folder_.path() / "alone.chispa");
  ASSERT_TRUE(window_.openFile(QString::fromStdString((folder_.path() / "alone.chispa").string())));
  settle();
  EXPECT_TRUE(stage_.audioTrouble("slow-round.ogg").contains(QStringLiteral("not there")));
  stage_.play();
  EXPECT_TRUE(eventually([this] { return stage_.position() > Micros(20'000); }));
  stage_.pause();
}

TEST_F(DemoWindowTest, EveryActionIsFoundByTyping) {
  const auto found = [this](const QString& words) {
    QTest::keyClick(&window_, Qt::Key_K, Qt::ControlModifier);
    auto* finder = window_.findChild<ActionFinder*>();
    EXPECT_TRUE(finder);
    QTest::keyClicks(finder->findChild<QLineEdit*>(), words);
    const int count = finder->findChild<QListWidget*>()->count();
    delete finder;
    return count;
  };
  // In menus of menus, on pages that are not seen, among tools and finders, and in what a tip says.
  for (const char* words :
       {"beats", "compare", "picture", "add controller", "brush", "spectrum", "record", "stave"})
    EXPECT_GT(found(QLatin1String(words)), 0) << words;
  EXPECT_EQ(found(QStringLiteral("no such thing")), 0);
  QTest::keyClick(&window_, Qt::Key_K, Qt::ControlModifier);
  auto* typed = window_.findChild<ActionFinder*>()->findChild<QLineEdit*>();
  QTest::keyClicks(typed, QStringLiteral("light swi"));
  QTest::keyClick(typed, Qt::Key_Return);
  EXPECT_TRUE(stage_.isLit());
}

TEST_F(DemoWindowTest, OpeningAnotherShowSwitchesLightOff) {
  stage_.switchLight(true);
  document_.start();
  EXPECT_FALSE(stage_.isLit());
}

TEST_F(DemoWindowTest, ThemesChangeWithoutLosingAnything) {
  const Show before = show();
  selection_.select(ClipIds{clipOf("comets")});
  window_.setDark(false);
  window_.setDark(true);
  EXPECT_EQ(show(), before);
  EXPECT_EQ(selection_.clips().size(), 1u);
}

/// The journal is written by itself, well within a second of an edit, while the program lives.
TEST_F(DemoWindowTest, UnsavedWorkIsOnDiskBeforeASecondIsOver) {
  document_.apply(QStringLiteral("edit"), [](Show& s) { addFixture(s, LineShape{9, 0.1}, {}); });
  QTest::qWait(900);
  std::filesystem::path journal;
  for (const auto& entry : std::filesystem::directory_iterator(folder_.path() / "state"))
    if (entry.path().extension() == ".jsonl") journal = entry.path();
  std::filesystem::create_directory(folder_.path() / "after");
  std::filesystem::copy(journal, folder_.path() / "after" / "left.jsonl");
  const auto left = findLeftJournals(folder_.path() / "after").left;
  ASSERT_EQ(left.size(), 1u);
  EXPECT_EQ(left[0].show, show());
  EXPECT_EQ(left[0].showPath, document_.path().string());
}

/// Of edits that come while it writes the newest is kept, and in order.
TEST(JournalWriter, EndsWithTheNewestOfManyEdits) {
  const test::TemporaryFolder folder;
  Show show;
  auto begun = Journal::begin(folder.path() / "live", "", show);
  ASSERT_TRUE(begun);
  JournalWriter writer(*std::move(begun));
  QSignalSpy failures(&writer, &JournalWriter::failed);
  const auto onDisk = [&folder] {
    const auto copy = folder.path() / "copy";
    std::filesystem::remove_all(copy);
    std::filesystem::create_directory(copy);
    for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "live"))
      std::filesystem::copy(entry.path(), copy / "left.jsonl");
    const auto left = findLeftJournals(copy).left;
    return left.empty() ? Show{} : left.front().show;
  };
  for (int i = 0; i < 60; ++i) {
    addFixture(show, LineShape{2, 0.1}, {});
    writer.write(show);
    if (i % 7 == 0) QCoreApplication::processEvents();
  }
  writer.finish();
  EXPECT_EQ(onDisk(), show);
  // Without being waited for it gets there by itself.
  show.name = "Later";
  writer.write(show);
  EXPECT_TRUE(QTest::qWaitFor([&] { return onDisk().name == "Later"; }, 20'000));
  EXPECT_EQ(failures.count(), 0);
}

/// The real program, edited through its own window by another process's hands is hard to do; here a child
/// process runs a window of its own, edits, and is killed with signal 9.
TEST(Crash, Signal9LosesNothingOlderThanASecond) {
  const test::TemporaryFolder folder;
  QProcess child;
  QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
  environment.insert(QStringLiteral("CHISPA_TEST_STATE"), QString::fromStdString(folder.path().string()));
  environment.remove(QStringLiteral("GTEST_TOTAL_SHARDS"));
  child.setProcessEnvironment(environment);
  child.start(QCoreApplication::applicationFilePath(),
              {QStringLiteral("--gtest_also_run_disabled_tests"),
               QStringLiteral("--gtest_filter=Crash.DISABLED_EditForEver")});
  ASSERT_TRUE(child.waitForStarted());
  QByteArray said;
  while (said.count("edited\n") < 20 && child.waitForReadyRead(10'000)) said += child.readAllStandardOutput();
  const auto edited = said.count("edited\n");
  ASSERT_GE(edited, 20);
  ::kill(static_cast<pid_t>(child.processId()), SIGKILL);
  child.waitForFinished();
  const auto left = findLeftJournals(folder.path()).left;
  ASSERT_EQ(left.size(), 1u);
  // It edits every 50 ms: 20 edits are one second's work at most.
  EXPECT_GE(static_cast<qsizetype>(left[0].show.fixtures.size()), edited - 20);
  EXPECT_GT(left[0].changes, 0);
}

TEST(Crash, DISABLED_EditForEver) {
  Document document(qEnvironmentVariable("CHISPA_TEST_STATE").toStdString());
  while (true) {
    document.apply(QStringLiteral("add"), [](Show& show) { addFixture(show, LineShape{5, 0.1}, {}); });
    std::cout << "edited\n" << std::flush;
    QTest::qWait(50);
  }
}

TEST_F(WindowTest, RecoveredWorkIsUnsavedAndComplete) {
  LeftJournal left;
  left.showPath = kDemo.toStdString();
  left.show = demo::carousel();
  addFixture(left.show, LineShape{5, 0.1}, {});
  document_.adopt(left);
  EXPECT_EQ(show(), left.show);
  EXPECT_TRUE(document_.isModified());
  EXPECT_EQ(document_.path(), left.showPath);
}

TEST_F(WindowTest, KeysReachEveryWorkspace) {
  for (int i = 0; i < 5; ++i) {
    QTest::keyClick(&window_, static_cast<Qt::Key>(Qt::Key_1 + i), Qt::ControlModifier);
    EXPECT_EQ(static_cast<int>(window_.workspace()), i);
  }
}

}  // namespace
}  // namespace chispa::desk
