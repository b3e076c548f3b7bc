// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/controller.h"

namespace chispa {

int dataPort(const Controller& controller) {
  return controller.udpPort != 0 ? controller.udpPort : traitsOf(controller.protocol).port;
}

}  // namespace chispa
