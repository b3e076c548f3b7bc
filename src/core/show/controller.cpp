// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/controller.h"

namespace chispa {

int dataPort(const Controller& controller) {
  if (controller.udpPort != 0) return controller.udpPort;
  return controller.protocol == Protocol::E131 ? 5568 : 6454;
}

}  // namespace chispa
