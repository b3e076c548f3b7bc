// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "window.h"

namespace chispa::desk {

/// The window with the demo in it, at Run.
class RunWindow : public WindowTest {
 protected:
  RunWindow() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.resize(1280, 800);
    window_.showWorkspace(Workspace::Run);
    window_.activateWindow();
    settle();
    EXPECT_TRUE(QTest::qWaitForWindowActive(&window_));
  }
  LookId called(const char* name) const {
    const Look* look = findNamed(show().looks, name);
    EXPECT_TRUE(look) << name;
    return look ? look->id : LookId{};
  }
};

}  // namespace chispa::desk
