// SPDX-License-Identifier: GPL-3.0-or-later
// Problems are listed, and what one thing mends is mended from the list.
#include "carousel/carousel.h"
#include "window.h"
#include <QTreeWidget>

#include "core/files/showfile.h"

namespace chispa::desk {
namespace {

/// The demo, whose last bead reaches beyond its fixture, as after a change by hand in its file.
Show withALongBead() {
  Show show = demo::carousel();
  Controller box = *show.controllers.back();
  for (Port& port : box.ports)
    for (Bead& bead : port.run) {
      const Fixture* fixture = find(show.fixtures, bead.fixture);
      if (bead.first + bead.count != pixelCount(*fixture)) continue;
      bead.count += 5;
      put(show.controllers, box);
      return show;
    }
  return show;
}

TEST_F(WindowTest, AProblemIsMendedFromTheListAndComesBackWithUndo) {
  const auto path = folder_.path() / "long.chispa";
  ASSERT_TRUE(saveShow(path.string(), withALongBead()));
  ASSERT_TRUE(window_.openFile(QString::fromStdString(path.string())));
  settle();
  const Show broken = show();
  QTest::keyClick(&window_, Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
  auto* list = the<QTreeWidget>("problemList");
  auto* mending = the<QPushButton>("problemMend");
  ASSERT_TRUE(list && mending);
  EXPECT_FALSE(mending->isEnabled()) << "nothing is chosen";
  const auto found =
      list->findItems(QStringLiteral("ends before pixel"), Qt::MatchContains | Qt::MatchRecursive, 1);
  ASSERT_EQ(found.size(), 1);
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(found.front()).center());
  ASSERT_TRUE(mending->isEnabled());
  QTest::mouseClick(mending, Qt::LeftButton);
  QCoreApplication::processEvents();
  EXPECT_NE(show(), broken);
  EXPECT_TRUE(list->findItems(QStringLiteral("ends before pixel"), Qt::MatchContains | Qt::MatchRecursive, 1)
                  .isEmpty());
  trigger("undo");
  EXPECT_EQ(show(), broken);
}

}  // namespace
}  // namespace chispa::desk
