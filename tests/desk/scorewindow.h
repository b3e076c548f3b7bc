// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "window.h"

namespace chispa::desk {

/// The window with the demo's score open.
class ScoreWindowTest : public WindowTest {
 protected:
  ScoreWindowTest() {
    window_.resize(1280, 800);
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.showWorkspace(Workspace::Score);
    settle();
  }
  TimelineView& timeline() { return window_.scorePage().timeline(); }
  const Score& score() const { return *stage_.score(); }
};

}  // namespace chispa::desk
