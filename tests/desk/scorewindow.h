// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "demowindow.h"

namespace chispa::desk {

/// The window with the demo's score open.
class ScoreWindowTest : public DemoWindow {
 protected:
  ScoreWindowTest() {
    window_.showWorkspace(Workspace::Score);
    settle();
  }
  TimelineView& timeline() { return window_.scorePage().timeline(); }
  const Score& score() const { return *stage_.score(); }
};

}  // namespace chispa::desk
