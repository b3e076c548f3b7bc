// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/controller.h"

namespace chispa {

const char* protocolTitle(Protocol protocol) {
  switch (protocol) {
    case Protocol::E131:
      return "E1.31";
    case Protocol::ArtNet:
      return "Art-Net";
    case Protocol::Ddp:
      return "DDP";
    case Protocol::Opc:
      return "OPC";
    case Protocol::SerialDmx:
      return "DMX512";
    case Protocol::Screen:
      return "Screen";
  }
  return "";
}

bool isRow(Protocol protocol) {
  return protocol == Protocol::Ddp || protocol == Protocol::Opc || protocol == Protocol::Screen;
}

bool isNetworked(Protocol protocol) {
  return protocol != Protocol::SerialDmx && protocol != Protocol::Screen;
}

int dataPort(const Controller& controller) {
  if (controller.udpPort != 0) return controller.udpPort;
  switch (controller.protocol) {
    case Protocol::E131:
      return 5568;
    case Protocol::ArtNet:
      return 6454;
    case Protocol::Ddp:
      return 4048;
    case Protocol::Opc:
      return 7890;
    case Protocol::SerialDmx:
    case Protocol::Screen:
      return 0;
  }
  return 0;
}

}  // namespace chispa
