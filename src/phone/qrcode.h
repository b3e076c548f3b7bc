// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

namespace chispa::phone {

/// A QR code (ISO/IEC 18004): side × side modules, row by row, without its quiet zone.
struct QrCode {
  int side = 0;
  std::vector<bool> dark;

  bool isDark(int x, int y) const { return dark[static_cast<std::size_t>(y * side + x)]; }
};

/// The code of `text`, by libqrencode; of no side if it is too long.
QrCode qrCodeOf(const std::string& text);

}  // namespace chispa::phone
