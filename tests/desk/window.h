// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "temporary.h"
#include <QAction>
#include <QApplication>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QPushButton>
#include <QSettings>
#include <QtTest>
#include <gtest/gtest.h>

#include "desk/frame/mainwindow.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"
#include "desk/wire/loomview.h"
#include "desk/wire/wirepage.h"

namespace chispa::desk {

/// The music of the demo.
inline const QString kWaltz = QStringLiteral(CHISPA_SOURCE_DIR "/demo/slow-round.ogg");
/// What is drawn by lot is the same in every run.
constexpr unsigned kSeed = 20'261'123;

/// The real window over an empty show, and the hands of a maker.
class WindowTest : public testing::Test {
 protected:
  WindowTest() {
    // What is kept of controllers is the test's own.
    qputenv("XDG_STATE_HOME", QByteArray::fromStdString((folder_.path() / "home").string()));
    qputenv("XDG_CACHE_HOME", QByteArray::fromStdString((folder_.path() / "cache").string()));
    QSettings::setPath(QSettings::IniFormat, QSettings::UserScope,
                       QString::fromStdString(folder_.path().string()));
    window_.tell = [this](const QString& words) { told_ << words; };
    // What would go along is told, and gone along with.
    document_.mayLose = [this](const QString&, const Losses& losses) {
      lost_ = losses;
      return true;
    };
    window_.show();
    // Keys reach the window once it is the active one, which takes a moment on a busy machine.
    EXPECT_TRUE(QTest::qWaitForWindowActive(&window_, 60'000));
  }

  const Show& show() const { return document_.show(); }
  void settle() {
    stage_.settle();
    QCoreApplication::processEvents();
  }
  /// Lets events run until `condition` holds, for up to a minute.
  bool eventually(const std::function<bool()>& condition) { return QTest::qWaitFor(condition, 60'000); }

  /// Lets the stage tick so many times, for what must not happen meanwhile.
  void ticks(int count) {
    int seen = 0;
    const auto connection = QObject::connect(&stage_, &Stage::ticked, &window_, [&seen] { ++seen; });
    EXPECT_TRUE(eventually([&] { return seen >= count; }));
    QObject::disconnect(connection);
  }

  template <class Widget>
  Widget* the(const char* name) {
    QCoreApplication::processEvents();
    auto* found = window_.findChild<Widget*>(QLatin1String(name));
    EXPECT_TRUE(found) << "no widget called " << name;
    return found;
  }
  void press(const char* button) { QTest::mouseClick(the<QAbstractButton>(button), Qt::LeftButton); }
  void trigger(const char* action) { the<QAction>(action)->trigger(); }
  /// Runs `act` while the box that comes up is dealt with by `answer`.
  template <class Box>
  void answering(const std::function<void(Box&)>& answer, const std::function<void()>& act) {
    bool wasAsked = false;
    // Again and again: on a busy machine the box may not be there yet, or not hear a click yet.
    QTimer looking;
    QObject::connect(&looking, &QTimer::timeout, &window_, [&] {
      auto* box = qobject_cast<Box*>(QApplication::activeModalWidget());
      if (!box || !box->isVisible()) return;
      wasAsked = true;
      answer(*box);
    });
    looking.start(50);
    act();
    EXPECT_TRUE(eventually([&] { return wasAsked; }));
    QCoreApplication::processEvents();
  }
  /// Clicks the button of a box whose words begin so.
  static void answer(QDialog& box, const QString& words) {
    for (auto* button : box.findChildren<QAbstractButton*>())
      if (button->text().remove(QLatin1Char('&')).startsWith(words))
        return QTest::mouseClick(button, Qt::LeftButton);
    ADD_FAILURE() << "no such answer: " << words.toStdString();
    box.reject();
  }
  void drag(QWidget* on, QPointF from, QPointF to) {
    QTest::mousePress(on, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 4; ++i) QTest::mouseMove(on, (from + (to - from) * i / 4).toPoint());
    QTest::mouseRelease(on, Qt::LeftButton, {}, to.toPoint());
    QCoreApplication::processEvents();
  }
  /// Types into a field of the inspector and leaves it.
  void type(const char* field, const QString& words) {
    auto* edit = the<QLineEdit>(field);
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, words);
    QTest::keyClick(edit, Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  void setNumber(const char* field, double value) {
    the<QDoubleSpinBox>(field)->setValue(value);
    QCoreApplication::processEvents();
  }
  void choose(const char* field, const QString& words) {
    auto* box = the<QComboBox>(field);
    const int index = box->findText(words, Qt::MatchStartsWith);
    ASSERT_GE(index, 0) << words.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
    QCoreApplication::processEvents();
  }

  test::TemporaryFolder folder_;
  QStringList told_;
  Losses lost_;
  Document document_{folder_.path() / "state"};
  Selection selection_;
  Stage stage_{document_, engine::makeSilence("test")};
  MainWindow window_{document_, selection_, stage_};
};

}  // namespace chispa::desk
