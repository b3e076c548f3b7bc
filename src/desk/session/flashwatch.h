// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>

#include <QTimer>

#include "core/check/problems.h"
#include "desk/session/stage.h"

namespace chispa::desk {

/// Looks through the scores for light that flashes too often, in the background, a while after the last edit.
/// UI thread.
class FlashWatch : public QObject {
  Q_OBJECT
 public:
  FlashWatch(const Document& document, const Stage& stage, QObject* parent = nullptr);
  ~FlashWatch() override;

  /// What was found when it looked last.
  const std::vector<Problem>& problems() const { return problems_; }

 signals:
  void found();

 private:
  void look();

  const Document& document_;
  const Stage& stage_;
  QTimer wait_;
  std::vector<Problem> problems_;
  std::shared_ptr<std::atomic<bool>> cancelled_;
};

}  // namespace chispa::desk
