// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>

#include <QProgressBar>
#include <QTimer>

#include "core/base/progress.h"

namespace chispa::desk {

/// Shows how far work elsewhere is, and calls it off; also when it goes. UI thread, but what `begin()` gives
/// is told by any thread, and may outlive the bar.
class WorkBar : public QProgressBar {
 public:
  explicit WorkBar(QWidget* parent = nullptr);
  ~WorkBar() override;

  /// Shows itself for new work, to be told how far it is. What went on before is called off and left alone.
  Progress begin();
  /// Calls the work off; it is at work until it ends.
  void cancel();
  /// Calls the work off and does not wait for it.
  void leave();
  /// Hides itself: the work is over.
  void end();
  bool isAtWork() const { return work_ != nullptr; }

 private:
  struct Work {
    std::atomic<bool> isCancelled = false;
    std::atomic<int> done = 0;
  };

  std::shared_ptr<Work> work_;
  QTimer timer_;
};

}  // namespace chispa::desk
