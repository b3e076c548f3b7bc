// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "window.h"

namespace chispa::desk {

/// The window with the demo in it.
class DemoWindow : public WindowTest {
 protected:
  DemoWindow() {
    window_.resize(1280, 800);
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    settle();
  }
};

}  // namespace chispa::desk
