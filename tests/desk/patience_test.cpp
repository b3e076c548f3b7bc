// SPDX-License-Identifier: GPL-3.0-or-later
// What takes long, or lies elsewhere: the window lives on, and asks before it reads.
#include "desk/session/patience.h"

#include <latch>

#include "window.h"
#include <QMessageBox>
#include <QProgressDialog>

#include "core/edit/scoreedits.h"
#include "core/files/showfile.h"
#include "desk/bench/camera/camerathread.h"

namespace chispa::desk {
namespace {

class PatienceTest : public WindowTest {
 protected:
  /// Calls off what is waited for.
  void callingOff(const std::function<void()>& act) {
    answering<QProgressDialog>([](QProgressDialog& dialog) { answer(dialog, "Cancel"); }, act);
  }

  /// What hangs waits for this; shared, as it may outlive the test.
  std::shared_ptr<std::latch> gate_ = std::make_shared<std::latch>(1);
};

TEST_F(PatienceTest, TheWindowLivesOnAndIsToldWhenItIsOver) {
  int beats = 0;
  QTimer beating;
  QObject::connect(&beating, &QTimer::timeout, [&] {
    if (++beats == 20) gate_->count_down();
  });
  beating.start(5);
  EXPECT_TRUE(runPatiently(&window_, {"Reading …", [gate = gate_] { gate->wait(); }, {}}));
  EXPECT_GE(beats, 20);
}

TEST_F(PatienceTest, WhatHangsIsCalledOffAndGoesOnUnheard) {
  bool isDone = true;
  callingOff([&] { isDone = runPatiently(&window_, {"Reading …", [gate = gate_] { gate->wait(); }, {}}); });
  EXPECT_FALSE(isDone);
  gate_->count_down();
}

TEST_F(PatienceTest, WhatCanNoLongerBeCalledOffIsWaitedFor) {
  bool isDone = false;
  const auto tooLate = [this] {
    if (!gate_->try_wait()) gate_->count_down();
    return false;
  };
  callingOff([&] {
    isDone = runPatiently(&window_, {"Saving …", [gate = gate_] { gate->wait(); }, tooLate});
  });
  EXPECT_TRUE(isDone);
}

TEST_F(PatienceTest, WhatIsThrownArrives) {
  EXPECT_THROW(runPatiently(&window_, {"Reading …", [] { throw std::bad_alloc(); }, {}}), std::bad_alloc);
}

TEST_F(PatienceTest, AFileThatIsCalledOffBeforeItIsInPlaceStaysAsItWas) {
  const auto path = folder_.path() / "kept.chispa";
  ASSERT_TRUE(document_.saveAs(path));
  const std::string before = *readFile(path);
  press("addController");
  // Whoever calls it off does so before the last step.
  document_.runSlowly = [](const SlowWork& work) {
    if (work.mayCallOff) {
      EXPECT_TRUE(work.mayCallOff());
    }
    work.run();
    return !work.mayCallOff;
  };
  EXPECT_FALSE(document_.save());
  EXPECT_EQ(*readFile(path), before);
  EXPECT_TRUE(document_.isModified());
  document_.runSlowly = {};
  EXPECT_TRUE(document_.save());
  EXPECT_FALSE(document_.wasChangedOutside());
}

/// A camera whose cable has been pulled in the middle of a frame.
class HungCamera : public vision::FrameSource {
 public:
  explicit HungCamera(std::shared_ptr<std::latch> gate) : gate_(std::move(gate)) {}
  std::optional<vision::Frame> next() override {
    gate_->wait();
    return std::nullopt;
  }
  bool isLive() const override { return true; }

 private:
  std::shared_ptr<std::latch> gate_;
};

TEST_F(PatienceTest, ACameraThatHangsIsLeft) {
  int ends = 0;
  {
    CameraThread thread(std::make_unique<HungCamera>(gate_));
    QObject::connect(&thread, &CameraThread::ended, &window_, [&] { ++ends; });
    thread.start();
  }
  // Here it would have been waited for without an end.
  gate_->count_down();
  ticks(3);
  EXPECT_EQ(ends, 0);
}

class OutsideTest : public PatienceTest {
 protected:
  OutsideTest() {
    std::filesystem::create_directories(folder_.path() / "show");
    std::filesystem::copy(CHISPA_SOURCE_DIR "/demo/slow-round.ogg", folder_.path() / "waltz.ogg");
    Show made;
    addScore(made, "Night", (folder_.path() / "waltz.ogg").string(), Micros(1'000'000));
    EXPECT_TRUE(saveShow(file(), made));
  }
  std::filesystem::path file() const { return folder_.path() / "show" / "night.chispa"; }
  void openAnswering(const QString& words) {
    QString asked;
    answering<QMessageBox>(
        [&](QMessageBox& box) {
          asked = box.text() + box.informativeText();
          answer(box, words);
        },
        [&] {
          ASSERT_TRUE(window_.openFile(QString::fromStdString(file().string())));
          QCoreApplication::processEvents();
        });
    EXPECT_TRUE(asked.contains(QString::fromStdString((folder_.path() / "waltz.ogg").string())))
        << asked.toStdString();
    settle();
  }
};

TEST_F(OutsideTest, IsNotReadBeforeItIsAllowed) {
  openAnswering("Leave them out");
  EXPECT_FALSE(stage_.audio());
  EXPECT_TRUE(stage_.audioTrouble(show().scores[0]->audio).contains("outside"));
  EXPECT_TRUE(the<QAction>("outsideFiles")->isEnabled());
  // The menu asks again.
  answering<QMessageBox>([](QMessageBox& box) { answer(box, "Allow it"); }, [&] { trigger("outsideFiles"); });
  settle();
  EXPECT_TRUE(stage_.audio());
  EXPECT_FALSE(the<QAction>("outsideFiles")->isEnabled());
}

TEST_F(OutsideTest, IsAskedForOnce) {
  openAnswering("Allow it");
  EXPECT_TRUE(stage_.audio());
  ASSERT_TRUE(window_.openFile(QString::fromStdString(file().string())));
  settle();
  EXPECT_TRUE(stage_.audio()) << "it was allowed before";
  EXPECT_FALSE(QApplication::activeModalWidget());
}

TEST_F(OutsideTest, NobodyIsAskedWhereNobodyIs) {
  window_.setUnattended(true);
  ASSERT_TRUE(window_.openFile(QString::fromStdString(file().string())));
  settle();
  EXPECT_FALSE(QApplication::activeModalWidget());
  EXPECT_FALSE(stage_.audio());
  EXPECT_TRUE(the<QAction>("outsideFiles")->isEnabled());
}

}  // namespace
}  // namespace chispa::desk
