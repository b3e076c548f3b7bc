// SPDX-License-Identifier: GPL-3.0-or-later
#include "phone/qrcode.h"

#include <memory>

#include <qrencode.h>

namespace chispa::phone {

QrCode qrCodeOf(const std::string& text) {
  const std::unique_ptr<QRcode, decltype(&QRcode_free)> made(
      QRcode_encodeString8bit(text.c_str(), 0, QR_ECLEVEL_M), QRcode_free);
  QrCode code;
  if (!made) return code;
  code.side = made->width;
  for (int i = 0; i < made->width * made->width; ++i) code.dark.push_back((made->data[i] & 1) != 0);
  return code;
}

}  // namespace chispa::phone
