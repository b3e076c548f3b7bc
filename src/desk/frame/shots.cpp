// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/shots.h"

#include <QCoreApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QPixmap>
#include <iostream>

#include "desk/bench/benchpage.h"
#include "desk/frame/mainwindow.h"
#include "desk/plan/planpage.h"
#include "desk/plan/planview.h"
#include "desk/score/clippictures.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"
#include "desk/wire/wirepage.h"

namespace chispa::desk {
namespace {

/// Takes the pictures one after the other.
class Photographer {
 public:
  Photographer(MainWindow& window, const Session& session, QString folder) : window_(window), session_(session), folder_(std::move(folder)) {}

  /// Lets everything that is drawn on workers come in.
  void settle() {
    QElapsedTimer timer;
    timer.start();
    constexpr int kLeast_ms = 500;
    session_.stage.settle();
    while (timer.elapsed() < kLeast_ms || !window_.scorePage().pictures().isIdle()) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
  }

  void take(const QString& name) {
    settle();
    const QString path = QDir(folder_).filePath(name + QStringLiteral(".png"));
    if (window_.grab().save(path)) return;
    std::cerr << path.toStdString() << ": the picture cannot be written. Check the folder.\n";
    good_ = false;
  }

  bool good() const { return good_; }

 private:
  MainWindow& window_;
  Session session_;
  QString folder_;
  bool good_ = true;
};

template <class Id, class List>
Id firstIdWhere(const List& list, const std::string& name) {
  const auto* found = findNamed(list, name);
  return found ? found->id : Id{};
}

/// Zones on the plan: painted, unrolled, around the rim; and the free view.
void takePlan(MainWindow& window, const Session& session, Photographer& photo) {
  const Show& show = session.show();
  PlanView& plan = window.planPage().view();
  session.selection.select(firstIdWhere<ZoneId>(show.zones, "Rim mirrored"));
  plan.setTool(PlanTool::Lasso);
  photo.take(QStringLiteral("plan-zone"));
  plan.setTool(PlanTool::Select);
  session.selection.select(firstIdWhere<ZoneId>(show.zones, "Column diagonal"));
  plan.setSide(PlanSide::Unrolled);
  plan.setTool(PlanTool::Brush);
  photo.take(QStringLiteral("plan-painting"));
  plan.setTool(PlanTool::Select);
  plan.setSide(PlanSide::Free);
  session.selection.select(firstIdWhere<ZoneId>(show.zones, "Roof ribs"));
  photo.take(QStringLiteral("plan-free"));
  plan.setSide(PlanSide::Top);
}

}  // namespace

bool drawShots(MainWindow& window, const Session& session, const QString& folder) {
  QDir().mkpath(folder);
  Photographer photo(window, session, folder);
  window.resize(1280, 800);
  window.show();
  const Show& show = session.show();
  const auto chooseClip = [&](const std::string& effect, Micros at) {
    const Score* score = session.stage.score();
    for (const auto& clip : score ? score->clips : decltype(Score::clips){})
      if (clip->effect == effect && clip->start <= at && clip->end() > at) return session.selection.select(ClipIds{clip->id});
  };
  // A walk of everything but the last round's middle: the canopy, ribs and column are all lit there.
  constexpr Micros kLastRound{54'300'000};
  constexpr Micros kFirstRound{11'450'000};
  photo.settle();
  for (const bool dark : {true, false}) {
    window.setDark(dark);
    const QString suffix = dark ? QString() : QStringLiteral("-light");
    session.stage.seek(kLastRound);
    window.showWorkspace(Workspace::Plan);
    session.selection.select(FixtureIds{firstIdWhere<FixtureId>(show.fixtures, "Post 3")});
    photo.take(QStringLiteral("plan") + suffix);
    if (dark) takePlan(window, session, photo);
    window.showWorkspace(Workspace::Wire);
    const ControllerId rim = firstIdWhere<ControllerId>(show.controllers, "Rim box");
    session.selection.select(BeadPlace{rim, 1, 0});
    photo.take(QStringLiteral("wire") + suffix);
    if (dark) {
      window.wirePage().showSheet(true);
      photo.take(QStringLiteral("address-sheet"));
      window.wirePage().showSheet(false);
    }
    session.stage.seek(kFirstRound);
    window.showWorkspace(Workspace::Score);
    chooseClip("comets", kFirstRound);
    photo.take(QStringLiteral("score") + suffix);
    if (dark) {
      session.selection.select(firstIdWhere<PaletteId>(show.palettes, "Lagoon"));
      window.scorePage().timeline().zoomBy(3);
      photo.take(QStringLiteral("palette"));
      window.scorePage().timeline().zoomToAll();
    }
    window.showWorkspace(Workspace::Bench);
    session.selection.clear();
    session.stage.switchLight(true);
    window.benchPage().choosePort({firstIdWhere<ControllerId>(show.controllers, "Post box"), 0});
    window.benchPage().setWalking(true);
    photo.take(QStringLiteral("bench") + suffix);
    window.benchPage().setWalking(false);
    session.stage.switchLight(false);
    session.stage.seek(kLastRound);
    window.showWorkspace(Workspace::Run);
    photo.take(QStringLiteral("run") + suffix);
  }
  return photo.good();
}

}  // namespace chispa::desk
