// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/controller.h"

namespace chispa {

const char* protocolTitle(Protocol protocol) {
  switch (protocol) {
    case Protocol::E131: return "E1.31";
    case Protocol::ArtNet: return "Art-Net";
    case Protocol::Ddp: return "DDP";
  }
  return "";
}

int dataPort(const Controller& controller) {
  if (controller.udpPort != 0) return controller.udpPort;
  switch (controller.protocol) {
    case Protocol::E131: return 5568;
    case Protocol::ArtNet: return 6454;
    case Protocol::Ddp: return 4048;
  }
  return 0;
}

}  // namespace chispa
