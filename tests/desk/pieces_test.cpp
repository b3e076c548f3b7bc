// SPDX-License-Identifier: GPL-3.0-or-later
// Plan, loom and timeline draw their pieces themselves: what a screen reader, and who waits with the pointer,
// is told of them.
#include "demowindow.h"
#include <QAccessible>
#include <QAccessibleActionInterface>
#include <QHelpEvent>
#include <QToolTip>

#include "desk/plan/planview.h"
#include "desk/score/timelineview.h"
#include "desk/wire/loomview.h"

namespace chispa::desk {
namespace {

class ToldPieces : public DemoWindow {
 protected:
  QAccessibleInterface& readerOf(QWidget* view) {
    QAccessibleInterface* reader = QAccessible::queryAccessibleInterface(view);
    EXPECT_TRUE(reader && reader->isValid());
    EXPECT_EQ(reader->role(), QAccessible::List);
    return *reader;
  }
  /// The one of this name; null if there is none.
  static QAccessibleInterface* named(QAccessibleInterface& view, const QString& name) {
    for (int i = 0; i < view.childCount(); ++i)
      if (view.child(i)->text(QAccessible::Name) == name) return view.child(i);
    return nullptr;
  }
  static void press(QAccessibleInterface& piece) {
    piece.actionInterface()->doAction(QAccessibleActionInterface::pressAction());
  }
  /// What is told where a piece lies on the view.
  static QString tipOn(QWidget* receiver, QPoint at) {
    QHelpEvent help(QEvent::ToolTip, at, receiver->mapToGlobal(at));
    QApplication::sendEvent(receiver, &help);
    return QToolTip::text();
  }
  template <class View>
  View* view(Workspace workspace) {
    window_.showWorkspace(workspace);
    settle();
    return window_.findChild<View*>();
  }
};

TEST_F(ToldPieces, ThePlanTellsItsFixtures) {
  auto* plan = view<PlanView>(Workspace::Plan);
  auto& reader = readerOf(plan);
  EXPECT_EQ(reader.childCount(), std::ssize(show().fixtures));
  QAccessibleInterface* post = named(reader, QStringLiteral("Post 3"));
  ASSERT_TRUE(post);
  EXPECT_EQ(reader.indexOfChild(post), reader.indexOfChild(named(reader, QStringLiteral("Post 3"))));
  EXPECT_TRUE(post->text(QAccessible::Description).contains(QStringLiteral("Post box, port")))
      << post->text(QAccessible::Description).toStdString();
  EXPECT_FALSE(post->state().selected);
  press(*post);
  EXPECT_TRUE(selection_.has(findNamed(show().fixtures, "Post 3")->id));
  EXPECT_TRUE(post->state().selected);
  const QRect place = post->rect();
  EXPECT_TRUE(QRect(plan->mapToGlobal(QPoint(0, 0)), plan->size()).intersects(place));
  EXPECT_EQ(reader.childAt(place.center().x(), place.center().y())->role(), QAccessible::ListItem);
}

TEST_F(ToldPieces, ThePointerIsToldTheFixtureAndItsAddress) {
  auto* plan = view<PlanView>(Workspace::Plan);
  const auto& piece = *std::find_if(plan->pieces().begin(), plan->pieces().end(),
                                    [](const auto& one) { return one.fixture->name == "Post 3"; });
  const QString tip = tipOn(plan, plan->toScreen(piece.flat.front()).toPoint());
  EXPECT_TRUE(tip.contains(QStringLiteral(", pixel "))) << tip.toStdString();
  EXPECT_TRUE(tip.contains(QStringLiteral(", address "))) << tip.toStdString();
}

TEST_F(ToldPieces, TheLoomTellsControllersPortsAndBeads) {
  auto* loom = view<LoomView>(Workspace::Wire);
  auto& reader = readerOf(loom);
  QAccessibleInterface* box = named(reader, QStringLiteral("Post box"));
  ASSERT_TRUE(box);
  press(*box);
  const ControllerId id = findNamed(show().controllers, "Post box")->id;
  EXPECT_TRUE(selection_.has(id));
  QAccessibleInterface* port = named(reader, QStringLiteral("Post box, port 2"));
  ASSERT_TRUE(port);
  press(*port);
  EXPECT_TRUE(selection_.has(PortChoice{id, 1}));
  QAccessibleInterface* bead = nullptr;
  for (int i = 0; i < reader.childCount() && !bead; ++i)
    if (reader.child(i)->text(QAccessible::Name).endsWith(QStringLiteral(", on Post box, port 2")))
      bead = reader.child(i);
  ASSERT_TRUE(bead);
  EXPECT_TRUE(bead->text(QAccessible::Description).contains(QStringLiteral("pixels from address ")))
      << bead->text(QAccessible::Description).toStdString();
  press(*bead);
  EXPECT_TRUE(selection_.has(BeadPlace{id, 1, 0}));
  EXPECT_TRUE(bead->state().selected);
}

TEST_F(ToldPieces, TheTimelineTellsItsClipsAndMarks) {
  auto* timeline = view<TimelineView>(Workspace::Score);
  auto& reader = readerOf(timeline);
  const auto& clips = stage_.score()->clips;
  ASSERT_EQ(reader.childCount(), std::ssize(clips));
  QAccessibleInterface* first = reader.child(0);
  EXPECT_FALSE(first->text(QAccessible::Name).isEmpty());
  EXPECT_TRUE(first->text(QAccessible::Description).contains(QStringLiteral(" to "))) << "from when to when";
  press(*first);
  EXPECT_EQ(selection_.clips(), ClipIds{clips.front()->id});
  // One that has a stave to itself, where all of it is in sight.
  const auto seen = std::find_if(clips.begin(), clips.end(), [&](const auto& clip) {
    const QRectF box = timeline->clipBox(clip->id);
    return clip->layer == 0 && box.height() > 8 && box.left() > 250 &&
           QRectF(timeline->viewport()->rect()).contains(box);
  });
  ASSERT_NE(seen, clips.end());
  const QString tip = tipOn(timeline->viewport(), timeline->clipBox((*seen)->id).center().toPoint());
  const QString name = reader.child(static_cast<int>(seen - clips.begin()))->text(QAccessible::Name);
  EXPECT_TRUE(tip.startsWith(name)) << tip.toStdString() << " on " << name.toStdString();
}

/// What was told of is gone: whoever still holds it is told that, and nothing is read that is not there.
TEST_F(ToldPieces, AreInvalidOnceTheyAreGone) {
  auto& reader = readerOf(view<PlanView>(Workspace::Plan));
  QAccessibleInterface* last = reader.child(reader.childCount() - 1);
  ASSERT_TRUE(last->isValid());
  press(*last);
  trigger("delete");
  EXPECT_FALSE(last->isValid());
  EXPECT_TRUE(last->text(QAccessible::Name).isEmpty());
  EXPECT_TRUE(last->rect().isEmpty());
}

}  // namespace
}  // namespace chispa::desk
