// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/patience.h"

#include <future>

#include <QCoreApplication>
#include <QEventLoop>
#include <QProgressDialog>
#include <QTimer>

#include "desk/session/pools.h"

namespace chispa::desk {
namespace {

using namespace std::chrono_literals;

/// What most work ends within: the window need not speak of it.
constexpr auto kMoment = 100ms;
constexpr int kLook_ms = 20;

bool isDone(const std::future<void>& work) {
  return work.wait_for(0ms) == std::future_status::ready;
}

/// True when the work is over; false when it was called off.
bool waitVisibly(QWidget* window, const SlowWork& work, const std::future<void>& ending) {
  QProgressDialog dialog(work.what, QCoreApplication::translate("Patience", "Cancel"), 0, 0, window);
  dialog.setObjectName(QStringLiteral("patience"));
  dialog.setWindowModality(Qt::ApplicationModal);
  dialog.setMinimumDuration(0);
  dialog.setAutoClose(false);
  dialog.setAutoReset(false);
  QEventLoop loop;
  bool isCalledOff = false;
  QObject::connect(&dialog, &QProgressDialog::canceled, &loop, [&] {
    isCalledOff = !work.mayCallOff || work.mayCallOff();
    if (isCalledOff) return loop.quit();
    // It has hidden itself.
    dialog.show();
  });
  QTimer look;
  QObject::connect(&look, &QTimer::timeout, &loop, [&] {
    if (isDone(ending)) loop.quit();
  });
  look.start(kLook_ms);
  dialog.show();
  loop.exec();
  return !isCalledOff;
}

}  // namespace

bool runPatiently(QWidget* window, const SlowWork& work) {
  auto task = std::make_shared<std::packaged_task<void()>>(work.run);
  std::future<void> ending = task->get_future();
  pools::files().start([task] { (*task)(); });
  if (ending.wait_for(kMoment) != std::future_status::ready && !waitVisibly(window, work, ending))
    return false;
  // Hands on what it threw.
  ending.get();
  return true;
}

}  // namespace chispa::desk
