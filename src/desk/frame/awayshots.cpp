// SPDX-License-Identifier: GPL-3.0-or-later
// Pictures of nights that play alone, and of light that leaves the computer.
#include <QPushButton>
#include <QTreeWidget>

#include "desk/frame/photographer.h"
#include "desk/run/almanacview.h"
#include "desk/run/nightlogview.h"
#include "desk/run/nightstrip.h"
#include "desk/session/nightdesk.h"
#include "desk/takeaway/boarddialog.h"
#include "desk/takeaway/memorydialog.h"

namespace chispa::desk {
namespace {

/// Performs nothing: only the log is wanted.
class IdleHand final : public engine::Stagehand {
 public:
  void playScore(const ScorePlay& play) override { position_ = play.from; }
  void stopScore(Micros) override {}
  std::optional<Micros> scorePosition() override { return position_; }
  void prepare(ScoreId, Micros) override {}
  void lightLook(LookId) override {}
  void endLook(LookId) override {}
  void switchLight(bool) override {}
  void pass(Micros time) { position_ += time; }

 private:
  Micros position_{0};
};

/// Three weeks of the fair, gone through by the night watch itself; what they drew is that of the light that
/// is lit now.
void writeNights(const Session& session, engine::WallTime until) {
  auto log = engine::NightLog::open(engine::NightLog::usualFile());
  if (!log) return;
  constexpr auto kStep = std::chrono::seconds(10);
  double watts = 0;
  const auto compiled = session.stage.compiled();
  for (const auto& [volts, amps] : frameAmps(*compiled->power, session.stage.frame(), 1.0))
    watts += volts * amps;
  IdleHand hand;
  engine::NightWatch watch(hand, log->get());
  watch.setShow(session.show());
  engine::MonoTime mono{std::chrono::hours(1)};
  auto now = until - std::chrono::days(21);
  watch.begin(now);
  for (; now < until; now += kStep, mono += kStep) {
    hand.pass(std::chrono::duration_cast<Micros>(kStep));
    watch.tick(now, mono);
    if (!watch.slot()) continue;
    const double passed_s = std::chrono::duration<double>(kStep).count();
    constexpr double kFrames = 40;
    engine::NightSum sum;
    sum.light_s = passed_s;
    sum.energy_kwh = watts * passed_s / 3.6e6;
    sum.frames = static_cast<std::uint64_t>(passed_s * kFrames);
    watch.add(sum);
  }
  (*log)->flush();
}

}  // namespace

void takeNights(MainWindow& window, const Session& session, Photographer& photo) {
  const QTemporaryDir state;
  qputenv("XDG_STATE_HOME", state.path().toUtf8());
  const auto now = parseLocal("2026-07-18T23:10:00", *TimeZone::named(session.show().almanac.zone));
  window.night().setClock(std::make_unique<engine::RehearsalClock>(*now, 1));
  NightStrip strip(session, window.night());
  strip.resize(1180, 330);
  strip.show();
  QElapsedTimer waited;
  waited.start();
  constexpr int kMaxWait_ms = 10'000;
  while (!strip.almanac().isFresh() && waited.elapsed() < kMaxWait_ms)
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
  strip.askAbout(*now);
  photo.settle();
  photo.keep(strip.grab().toImage(), QStringLiteral("almanac"));
  writeNights(session, *now);
  NightLogView log(session, nullptr);
  log.setAttribute(Qt::WA_DeleteOnClose, false);
  log.show();
  photo.settle();
  photo.keep(log.grab().toImage(), QStringLiteral("night-log"));
}

void takeBoard(const Session& session, Photographer& photo) {
  BoardDialog dialog(session, nullptr);
  auto* runs = dialog.findChild<QListWidget*>(QStringLiteral("boardRuns"));
  for (int i = 0; i < runs->count(); ++i)
    runs->item(i)->setCheckState(runs->item(i)->text().startsWith(QLatin1String("Lanterns")) ? Qt::Checked
                                                                                             : Qt::Unchecked);
  auto* scenes = dialog.findChild<QTreeWidget*>(QStringLiteral("boardScenes"));
  for (const char* look : {"Full fair", "Dusk glow"})
    scenes->findItems(QLatin1String(look), Qt::MatchExactly).front()->setCheckState(0, Qt::Checked);
  dialog.findChild<QSpinBox*>(QStringLiteral("boardRate"))->setValue(30);
  dialog.findChild<QSpinBox*>(QStringLiteral("boardColours"))->setValue(64);
  scenes->setCurrentItem(scenes->findItems(QStringLiteral("Full fair"), Qt::MatchExactly).front());
  dialog.show();
  QElapsedTimer waited;
  waited.start();
  constexpr int kMaxWait_ms = 60'000;
  const auto* savings = dialog.findChild<QTreeWidget*>(QStringLiteral("boardSavings"));
  while (savings->topLevelItemCount() == 0 && waited.elapsed() < kMaxWait_ms)
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
  photo.settle();
  photo.keep(dialog.grab().toImage(), QStringLiteral("board"));
}

void takeMemory(const Session& session, Photographer& photo) {
  const ControllerId box = session.show().controllers.front()->id;
  session.edit(QStringLiteral("memory"), [box](Show& show) {
    for (const char* look : {"Dusk glow", "Full fair"})
      if (const Look* found = findNamed(show.looks, look)) addMemoryScene(show, box, found->id);
    changeMemory(show, box, [](ControllerMemory& memory) {
      memory.scenes.front().starts = {{0, {NightTimeKind::Sunset, -15}, {}}};
      memory.scenes.back().starts = {{0, {NightTimeKind::Clock, 20 * 60}, {96, "11-27", "01-06", {}, {}}}};
      memory.darkens = {{0, {NightTimeKind::Clock, 22 * 60}, {}}};
      memory.scenes.back().length = Micros(6'000'000);
      memory.tolerance = 2;
    });
  });
  photo.settle();
  MemoryDialog dialog(session, nullptr);
  dialog.show();
  const auto* write = dialog.findChild<QPushButton*>(QStringLiteral("memoryWrite"));
  QElapsedTimer waited;
  waited.start();
  constexpr int kMaxWait_ms = 60'000;
  while (!write->isEnabled() && waited.elapsed() < kMaxWait_ms)
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
  dialog.findChild<QListWidget*>(QStringLiteral("memoryStarts"))->setCurrentRow(2);
  photo.settle();
  photo.keep(dialog.grab().toImage(), QStringLiteral("memory"));
  session.document.undo();
}

}  // namespace chispa::desk
