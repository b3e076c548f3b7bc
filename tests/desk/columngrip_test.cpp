// SPDX-License-Identifier: GPL-3.0-or-later
// Side columns are made wider by their edge, with the mouse and with keys, and stay so.
#include "desk/parts/columngrip.h"

#include "demowindow.h"

namespace chispa::desk {
namespace {

class ColumnGripTest : public DemoWindow {
 protected:
  ColumnGripTest() { window_.resize(1600, 900); }
  static ColumnGrip* gripIn(QWidget& page) {
    for (auto* grip : page.findChildren<ColumnGrip*>())
      if (grip->isVisible()) return grip;
    ADD_FAILURE() << "no grip is in sight";
    return nullptr;
  }
  /// From where the grip is now, by so many dots; it goes along.
  static void dragBy(ColumnGrip* grip, int by_px) {
    const QPointF from = grip->mapToGlobal(QPointF(2, 100));
    const auto send = [&](QEvent::Type type, QPointF at, Qt::MouseButton button, Qt::MouseButtons held) {
      QMouseEvent event(type, grip->mapFromGlobal(at), at, button, held, {});
      QCoreApplication::sendEvent(grip, &event);
      QCoreApplication::processEvents();
    };
    send(QEvent::MouseButtonPress, from, Qt::LeftButton, Qt::LeftButton);
    for (int i = 1; i <= 4; ++i)
      send(QEvent::MouseMove, from + QPointF(by_px * i / 4.0, 0), Qt::NoButton, Qt::LeftButton);
    send(QEvent::MouseButtonRelease, from + QPointF(by_px, 0), Qt::LeftButton, {});
  }
};

TEST_F(ColumnGripTest, IsDraggedMovedByKeysAndSetBack) {
  auto* grip = gripIn(window_.planPage());
  QWidget* column = grip->parentWidget();
  const int made = column->width();
  EXPECT_EQ(grip->geometry().right(), column->rect().right()) << "at the column's edge";
  dragBy(grip, 80);
  EXPECT_EQ(column->width(), made + 80);
  grip->setFocus();
  QTest::keyClick(grip, Qt::Key_Right);
  EXPECT_EQ(column->width(), made + 88);
  QTest::keyClick(grip, Qt::Key_Left);
  EXPECT_EQ(column->width(), made + 80);
  EXPECT_EQ(QSettings().value(QStringLiteral("columnWidths/plan")).toInt(), made + 80) << "kept";
  QTest::mouseDClick(grip, Qt::LeftButton);
  EXPECT_EQ(column->width(), made);
  dragBy(grip, -200);
  EXPECT_EQ(column->width(), made) << "never narrower than it was made";
}

TEST_F(ColumnGripTest, EscCallsADragOff) {
  auto* grip = gripIn(window_.planPage());
  QWidget* column = grip->parentWidget();
  const int made = column->width();
  QTest::mousePress(grip, Qt::LeftButton, {}, {2, 100});
  QTest::mouseMove(grip, {62, 100});
  EXPECT_GT(column->width(), made);
  // To whoever has the keyboard.
  ASSERT_EQ(QWidget::keyboardGrabber(), grip);
  QTest::keyClick(QWidget::keyboardGrabber(), Qt::Key_Escape);
  EXPECT_EQ(column->width(), made);
  QTest::mouseRelease(grip, Qt::LeftButton, {}, {62, 100});
  EXPECT_EQ(column->width(), made);
  EXPECT_FALSE(QWidget::keyboardGrabber());
}

TEST_F(ColumnGripTest, NeverMakesTheWindowGrow) {
  auto* grip = gripIn(window_.planPage());
  QWidget* column = grip->parentWidget();
  const int made = column->width();
  dragBy(grip, 4000);
  QCoreApplication::processEvents();
  EXPECT_GT(column->width(), made);
  EXPECT_EQ(window_.width(), 1600);
  EXPECT_LE(window_.minimumSizeHint().width(), 1600);
}

TEST_F(ColumnGripTest, TheWidthIsThereAgainWhenThePageIsShown) {
  QSettings().setValue(QStringLiteral("columnWidths/score"), 300);
  window_.showWorkspace(Workspace::Score);
  auto* grip = gripIn(window_.scorePage());
  EXPECT_TRUE(eventually([&] { return grip->parentWidget()->width() == 300; }))
      << grip->parentWidget()->width();
}

}  // namespace
}  // namespace chispa::desk
