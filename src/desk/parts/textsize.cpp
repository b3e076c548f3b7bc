// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/textsize.h"

#include <algorithm>

#include <QApplication>
#include <QFontInfo>
#include <QSettings>

namespace chispa::desk {
namespace {

const QString kTextSize = QStringLiteral("textSize");
/// Beyond these the window has no room, or cannot be read.
constexpr int kLeastText_px = 11;
constexpr int kMaxText_px = 22;

/// Asked once, before it is ours.
int desktops_px() {
  static const int size = std::clamp(QFontInfo(QApplication::font()).pixelSize(), kLeastText_px, kMaxText_px);
  return size;
}

}  // namespace

TextSize chosenTextSize() {
  const int kept = QSettings().value(kTextSize, static_cast<int>(TextSize::Normal)).toInt();
  return static_cast<TextSize>(std::clamp(kept, 0, static_cast<int>(TextSize::VeryLarge)));
}

void chooseTextSize(TextSize size) {
  QSettings().setValue(kTextSize, static_cast<int>(size));
}

int textSize_px() {
  const int own = desktops_px();
  switch (chosenTextSize()) {
    case TextSize::AsDesktop:
      return own;
    case TextSize::Small:
      return 12;
    case TextSize::Normal:
      break;
    case TextSize::Large:
      return 15;
    case TextSize::VeryLarge:
      return 18;
  }
  return 13;
}

}  // namespace chispa::desk
