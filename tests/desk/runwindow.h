// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "demowindow.h"

namespace chispa::desk {

/// The window with the demo in it, at Run.
class RunWindow : public DemoWindow {
 protected:
  RunWindow() {
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
