// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::desk {

/// How large the letters of the window are. Kept by QSettings.
enum class TextSize { AsDesktop, Small, Normal, Large, VeryLarge };
TextSize chosenTextSize();
/// Holds from the next start: widths are measured in letters when a window is made.
void chooseTextSize(TextSize size);
/// What the choice comes to, in pixels. Ask before a font of ours is set. UI thread.
int textSize_px();

}  // namespace chispa::desk
