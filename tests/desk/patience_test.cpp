// SPDX-License-Identifier: GPL-3.0-or-later
// What takes long, or lies elsewhere: the window lives on, and asks before it reads.
#include "desk/session/patience.h"

#include <atomic>
#include <fstream>
#include <thread>

#include "window.h"
#include <QMessageBox>
#include <QProgressDialog>

#include "core/edit/scoreedits.h"
#include "core/files/showfile.h"
#include "desk/bench/camera/camerathread.h"

namespace chispa::desk {
namespace {

using namespace std::chrono_literals;

class PatienceTest : public WindowTest {
 protected:
  /// Does `act` while the box that comes up is dealt with by `answer`.
  template <class Box>
  void answering(const std::function<void(Box&)>& answer, const std::function<void()>& act) {
    QTimer looking;
    bool wasSeen = false;
    QObject::connect(&looking, &QTimer::timeout, &window_, [&] {
      auto* box = qobject_cast<Box*>(QApplication::activeModalWidget());
      if (!box || !box->isVisible()) return;
      wasSeen = true;
      answer(*box);
    });
    looking.start(50);
    act();
    EXPECT_TRUE(eventually([&] { return wasSeen; }));
    QCoreApplication::processEvents();
  }
  static void click(QDialog& box, const QString& words) {
    for (auto* button : box.findChildren<QPushButton*>())
      if (button->text().remove(QLatin1Char('&')) == words) return QTest::mouseClick(button, Qt::LeftButton);
    ADD_FAILURE() << "no button " << words.toStdString();
    box.reject();
  }
};

TEST_F(PatienceTest, TheWindowLivesOnAndIsToldWhenItIsOver) {
  std::atomic<bool> mayEnd{false};
  int ticks = 0;
  QTimer beating;
  QObject::connect(&beating, &QTimer::timeout, [&] {
    if (++ticks == 20) mayEnd.store(true);
  });
  beating.start(5);
  EXPECT_TRUE(runPatiently(&window_, {"Reading …",
                                      [&] {
                                        while (!mayEnd.load()) std::this_thread::sleep_for(1ms);
                                      },
                                      {}}));
  EXPECT_GE(ticks, 20);
}

TEST_F(PatienceTest, WhatHangsIsCalledOffAndGoesOnUnheard) {
  auto mayEnd = std::make_shared<std::atomic<bool>>(false);
  bool isDone = true;
  answering<QProgressDialog>([](QProgressDialog& dialog) { click(dialog, "Call it off"); },
                             [&] {
                               isDone = runPatiently(&window_, {"Reading …",
                                                                [mayEnd] {
                                                                  while (!mayEnd->load())
                                                                    std::this_thread::sleep_for(1ms);
                                                                },
                                                                {}});
                             });
  EXPECT_FALSE(isDone);
  mayEnd->store(true);
}

TEST_F(PatienceTest, WhatCanNoLongerBeCalledOffIsWaitedFor) {
  std::atomic<bool> mayEnd{false};
  bool isDone = false;
  answering<QProgressDialog>([](QProgressDialog& dialog) { click(dialog, "Call it off"); },
                             [&] {
                               isDone = runPatiently(&window_, {"Saving …",
                                                                [&] {
                                                                  while (!mayEnd.load())
                                                                    std::this_thread::sleep_for(1ms);
                                                                },
                                                                [&] {
                                                                  mayEnd.store(true);
                                                                  return false;
                                                                }});
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
class HungCamera : public eye::FrameSource {
 public:
  explicit HungCamera(std::shared_ptr<std::atomic<bool>> mayEnd) : mayEnd_(std::move(mayEnd)) {}
  std::optional<eye::Frame> next() override {
    while (!mayEnd_->load()) std::this_thread::sleep_for(1ms);
    return std::nullopt;
  }
  bool isLive() const override { return true; }

 private:
  std::shared_ptr<std::atomic<bool>> mayEnd_;
};

TEST_F(PatienceTest, ACameraThatHangsIsLeft) {
  auto mayEnd = std::make_shared<std::atomic<bool>>(false);
  int ends = 0;
  {
    CameraThread thread(std::make_unique<HungCamera>(mayEnd));
    QObject::connect(&thread, &CameraThread::ended, &window_, [&] { ++ends; });
    thread.start();
  }
  // Here it would have been waited for without an end.
  mayEnd->store(true);
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
          click(box, words);
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
  answering<QMessageBox>([](QMessageBox& box) { click(box, "Allow it"); }, [&] { trigger("outsideFiles"); });
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
