// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>

#include "window.h"
#include <QLabel>
#include <QListWidget>
#include <QSpinBox>
#include <QTextDocument>
#include <QTreeWidget>

#include "core/edit/lookedits.h"
#include "desk/takeaway/boarddialog.h"

namespace chispa::desk {
namespace {

/// The window with the demo in it, and light being taken to a board.
class TakeAway : public WindowTest {
 protected:
  TakeAway() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    settle();
    trigger("takeToBoard");
    EXPECT_TRUE(eventually([&] { return the<QDialog>("boardDialog")->isVisible(); }));
  }

  /// Changes the tick of a row, by key.
  void tick(QAbstractItemView* view, const QModelIndex& row) {
    view->setFocus();
    view->setCurrentIndex(row);
    QTest::keyClick(view, Qt::Key_Space);
    QCoreApplication::processEvents();
  }
  void tickRun(const QString& name) {
    auto* runs = the<QListWidget>("boardRuns");
    const auto found = runs->findItems(name, Qt::MatchExactly);
    ASSERT_EQ(found.size(), 1) << name.toStdString();
    tick(runs, runs->model()->index(runs->row(found.front()), 0));
  }
  void tickScene(const QString& name) {
    auto* scenes = the<QTreeWidget>("boardScenes");
    const auto found = scenes->findItems(name, Qt::MatchStartsWith);
    ASSERT_EQ(found.size(), 1) << name.toStdString();
    tick(scenes, scenes->indexFromItem(found.front()));
  }
  QString state() {
    QTextDocument words;
    words.setHtml(the<QLabel>("boardState")->text());
    return words.toPlainText();
  }
  bool waitFor(const QString& words) {
    return eventually([&] { return state().contains(words); });
  }
  std::string read(const QString& file) const {
    std::ifstream in((folder_.path() / "board" / file.toStdString()).string());
    return {std::istreambuf_iterator<char>(in), {}};
  }
};

TEST_F(TakeAway, LightIsMadeToFitAndIsWritten) {
  tickRun(QStringLiteral("Canopy rim (zone)"));
  tickRun(QStringLiteral("Lanterns (zone)"));
  ASSERT_TRUE(waitFor(QStringLiteral("It does not fit. Flash:"))) << state().toStdString();
  EXPECT_FALSE(the<QPushButton>("boardWrite")->isEnabled());
  // What would make it smaller comes a moment later; one of them is taken.
  auto* savings = the<QTreeWidget>("boardSavings");
  ASSERT_TRUE(eventually([&] { return savings->topLevelItemCount() >= 3; }));
  const auto fewer = savings->findItems(QStringLiteral("64 colours"), Qt::MatchStartsWith);
  ASSERT_EQ(fewer.size(), 1);
  savings->setCurrentItem(fewer.front());
  press("boardTake");
  EXPECT_EQ(the<QSpinBox>("boardColours")->value(), 64);
  the<QSpinBox>("boardRate")->setValue(20);
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  ASSERT_TRUE(eventually([&] { return the<QPushButton>("boardWrite")->isEnabled(); }));
  the<BoardDialog>("boardDialog")->writeTo(QString::fromStdString((folder_.path() / "board").string()));
  EXPECT_TRUE(state().startsWith(QStringLiteral("✓ Written")));
  EXPECT_NE(read(QStringLiteral("light.h")).find("#define LIGHT_PIXELS 72"), std::string::npos);
  EXPECT_NE(read(QStringLiteral("player.c")).find("light_poll"), std::string::npos);
  EXPECT_NE(read(QStringLiteral("example-8bit.c")).find("PB0"), std::string::npos);
  EXPECT_NE(read(QStringLiteral("README.md")).find("The Slow Round"), std::string::npos);
}

TEST_F(TakeAway, ScenesFollowInOrderAndAreToldHowTheyAreKept) {
  the<QSpinBox>("boardRate")->setValue(20);
  tickScene(QStringLiteral("The Slow Round"));
  tickScene(QStringLiteral("Quiet rim"));
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  auto* row =
      the<QTreeWidget>("boardScenes")->findItems(QStringLiteral("Quiet rim"), Qt::MatchExactly).front();
  EXPECT_EQ(row->text(1), QStringLiteral("program"));
  EXPECT_TRUE(row->toolTip(1).contains(QStringLiteral("Swell on Canopy rim")))
      << row->toolTip(1).toStdString();
  // A board that is too small is said before anything is written.
  choose("boardKind", QStringLiteral("another"));
  the<QSpinBox>("boardFlash")->setValue(8000);
  the<QSpinBox>("boardRam")->setValue(256);
  EXPECT_TRUE(waitFor(QStringLiteral("It does not fit. Flash:"))) << state().toStdString();
  EXPECT_TRUE(state().contains(QStringLiteral("RAM:")));
  EXPECT_FALSE(the<QPushButton>("boardWrite")->isEnabled());
}

TEST_F(TakeAway, WhatCannotBeIsSaid) {
  tickRun(QStringLiteral("Booth sign"));
  EXPECT_TRUE(waitFor(QStringLiteral("are of different strips"))) << state().toStdString();
  tickRun(QStringLiteral("Booth sign"));
  tickScene(QStringLiteral("The Slow Round"));
  EXPECT_TRUE(waitFor(QStringLiteral("There is nothing to play"))) << state().toStdString();
  EXPECT_FALSE(the<QPushButton>("boardWrite")->isEnabled());
  // A folder that cannot be written.
  the<QSpinBox>("boardRate")->setValue(20);
  tickScene(QStringLiteral("Quiet rim"));
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  the<BoardDialog>("boardDialog")->writeTo(QStringLiteral("/proc/nowhere"));
  EXPECT_TRUE(state().contains(QStringLiteral("/proc/nowhere"))) << state().toStdString();
}

/// The window with the demo, and its paper.
class Book : public WindowTest {};

TEST_F(Book, HoldsTheWholeInstallation) {
  EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
  settle();
  const std::filesystem::path file = folder_.path() / "book.pdf";
  window_.writeBook(QString::fromStdString(file.string()));
  EXPECT_TRUE(told_.isEmpty());
  std::ifstream in(file, std::ios::binary);
  const std::string pdf((std::istreambuf_iterator<char>(in)), {});
  EXPECT_EQ(pdf.rfind("%PDF", 0), 0u);
  std::size_t pages = 0;
  for (std::size_t at = pdf.find("/Type /Page\n"); at != std::string::npos;
       at = pdf.find("/Type /Page\n", at + 1))
    ++pages;
  // Cover, plan, four controllers and the cut list, addresses, desk, rules and nights.
  EXPECT_GE(pages, 10u);
  // Where it cannot be written that is said.
  window_.writeBook(QStringLiteral("/proc/nowhere/book.pdf"));
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_.front().contains(QStringLiteral("/proc/nowhere/book.pdf")));
}

}  // namespace
}  // namespace chispa::desk
