// SPDX-License-Identifier: GPL-3.0-or-later
// Copy, cut and paste of what is selected, its names by F2, and music that cannot be read.
#include <fstream>

#include "demowindow.h"
#include <QClipboard>

#include "core/edit/scoreedits.h"

namespace chispa::desk {
namespace {

class Clipboard : public DemoWindow {
 protected:
  const Score& score() const { return *stage_.score(); }
};

/// As another window of Chispa has it: what the timeline copied is on the desktop's clipboard.
TEST_F(Clipboard, ClipsOfAnotherWindowArePastedAtThePlayhead) {
  window_.showWorkspace(Workspace::Score);
  const std::size_t count = score().clips.size();
  const Clip original = *score().clips.front();
  selection_.select(ClipIds{original.id});
  QTest::keyClick(&window_.scorePage().timeline(), Qt::Key_C, Qt::ControlModifier);
  stage_.seek(std::chrono::seconds(40));
  window_.showWorkspace(Workspace::Plan);
  trigger("pasteThings");
  EXPECT_EQ(window_.workspace(), Workspace::Score) << "where clips are seen";
  ASSERT_EQ(score().clips.size(), count + 1);
  const ClipIds made = selection_.clips();
  ASSERT_EQ(made.size(), 1U) << "what was pasted is selected";
  const Clip& copy = *chispa::find(score().clips, made.front());
  EXPECT_EQ(copy.start, Micros(std::chrono::seconds(40)));
  EXPECT_EQ(copy.length, original.length);
  EXPECT_EQ(copy.zone, original.zone);
  trigger("undo");
  EXPECT_EQ(score().clips.size(), count);
}

TEST_F(Clipboard, WhatIsCutIsPastedInAnotherShow) {
  const std::size_t count = show().zones.size();
  const std::string name = show().zones.front()->name;
  selection_.select(show().zones.front()->id);
  trigger("cutThings");
  EXPECT_EQ(show().zones.size(), count - 1);
  trigger("pasteThings");
  ASSERT_EQ(show().zones.size(), count);
  EXPECT_EQ(show().zones.back()->name, name);
  EXPECT_TRUE(told_.isEmpty());
}

TEST_F(Clipboard, ClipsNeedAScore) {
  selection_.select(ClipIds{score().clips.front()->id});
  trigger("copyThings");
  document_.apply(QStringLiteral("without"), [](Show& show) {
    while (!show.scores.empty()) remove(show.scores, show.scores.front()->id);
    show.setLists.clear();
    show.rules.clear();
    show.bindings.clear();
  });
  settle();
  ASSERT_TRUE(show().scores.empty()) << told_.join('|').toStdString();
  const Show before = show();
  trigger("pasteThings");
  EXPECT_EQ(show(), before);
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_.front().contains(QStringLiteral("no score")));
}

/// F2 goes to the name of whatever is selected.
TEST_F(Clipboard, F2IsForTheNameOfWhatIsSelected) {
  const std::vector<std::pair<Selected, Workspace>> all{
      {show().zones.front()->id, Workspace::Plan},     {show().controllers.front()->id, Workspace::Wire},
      {show().palettes.front()->id, Workspace::Score}, {show().stripTypes.front()->id, Workspace::Plan},
      {show().scores.front()->id, Workspace::Score},   {show().looks.front()->id, Workspace::Run},
      {show().bindings.front()->id, Workspace::Run},   {show().setLists.front()->id, Workspace::Run},
      {show().rules.front()->id, Workspace::Run}};
  for (const auto& [selected, workspace] : all) {
    window_.showWorkspace(workspace);
    selection_.select(selected);
    QCoreApplication::processEvents();
    QTest::keyClick(&window_, Qt::Key_F2);
    auto* field = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    ASSERT_TRUE(field) << selected.index();
    EXPECT_TRUE(field->objectName().endsWith(QStringLiteral("Name"))) << field->objectName().toStdString();
    EXPECT_EQ(field->selectedText(), field->text()) << "typing replaces it";
  }
}

TEST_F(Clipboard, MusicThatCannotBeReadLeavesAScoreThatPlaysSilently) {
  window_.showWorkspace(Workspace::Score);
  const auto file = folder_.path() / "noise.mp3";
  std::ofstream(file) << "this is no music at all";
  window_.scorePage().newScore(QString::fromStdString(file.string()));
  settle();
  ASSERT_TRUE(eventually([this] { return score().length > Micros(0); }));
  EXPECT_EQ(score().length, silentLength(120, 4, 64));
  EXPECT_EQ(beatMarksOf(score()).bars.size(), 64U);
  ASSERT_EQ(told_.size(), 1) << told_.join('|').toStdString();
  EXPECT_TRUE(told_.front().contains(QStringLiteral("noise.mp3"))) << told_.front().toStdString();
  EXPECT_TRUE(told_.front().contains(QStringLiteral("plays silently")));
  stage_.play();
  EXPECT_TRUE(eventually([this] { return stage_.position() > Micros(20'000); }));
  stage_.pause();
  trigger("undo");
  EXPECT_EQ(show().scores.size(), 1U) << "one step of undo";
}

}  // namespace
}  // namespace chispa::desk
