// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstddef>
#include <string_view>

#include "core/show/limits.h"

namespace chispa {

/// What a controller is spoken to with.
enum class Protocol {
  E131,
  ArtNet,
  Ddp,
  Opc,        ///< Open Pixel Control, over TCP
  SerialDmx,  ///< E1.11 through an RS-485 adapter; one universe
  Screen,     ///< a rectangle of a screen: each port is a window
};

/// Over what a protocol's bytes travel.
enum class Carrier { Udp, Tcp, Serial, None };

/// How a protocol numbers the bytes of a frame.
enum class UniverseNumbering {
  Universes,    ///< up to 512 channels each, under numbers of their own
  OneUniverse,  ///< a single one, without a number
  Row,          ///< one row of bytes, not numbered in universes
};

/// All that is known of a protocol besides its bytes, which the codecs of link/ know. A new one is a line of
/// the table, a sender (ControllerSender::open), a reader (Receiver::take) and what its form asks for.
struct ProtocolTraits {
  Protocol protocol;
  /// Its word in files; never changes.
  std::string_view key;
  /// Its own name: "E1.31".
  const char* title;
  Carrier carrier;
  /// UDP or TCP port that it is heard at; 0 where it has none.
  int port;
  UniverseNumbering numbering;
  /// The numbers that a universe (of a row: a piece of 512 bytes) may have.
  int firstUniverse;
  int lastUniverse;
};

/// In the order of Protocol: E1.31 (ANSI E1.31-2018), Art-Net 4, DDP, Open Pixel Control, DMX512 (ANSI
/// E1.11).
inline constexpr std::array<ProtocolTraits, 6> kProtocols = {{
    {Protocol::E131, "e131", "E1.31", Carrier::Udp, 5568, UniverseNumbering::Universes, 1,
     limits::kMaxUniverse},
    {Protocol::ArtNet, "artnet", "Art-Net", Carrier::Udp, 6454, UniverseNumbering::Universes, 0, 32'767},
    {Protocol::Ddp, "ddp", "DDP", Carrier::Udp, 4048, UniverseNumbering::Row, 0,
     limits::kMaxRowUniverses - 1},
    {Protocol::Opc, "opc", "OPC", Carrier::Tcp, 7890, UniverseNumbering::Row, 0,
     limits::kMaxRowUniverses - 1},
    {Protocol::SerialDmx, "serial-dmx", "DMX512", Carrier::Serial, 0, UniverseNumbering::OneUniverse, 1, 1},
    {Protocol::Screen, "screen", "Screen", Carrier::None, 0, UniverseNumbering::Row, 0,
     limits::kMaxRowUniverses - 1},
}};

constexpr const ProtocolTraits& traitsOf(Protocol protocol) {
  return kProtocols[static_cast<std::size_t>(protocol)];
}

static_assert(
    [] {
      for (std::size_t i = 0; i < kProtocols.size(); ++i)
        if (kProtocols[i].protocol != static_cast<Protocol>(i)) return false;
      return true;
    }(),
    "the table stands in the order of Protocol");

/// The protocol's own name: "E1.31", "Art-Net", "DDP" …
constexpr const char* protocolTitle(Protocol protocol) {
  return traitsOf(protocol).title;
}
/// True if its data is one row of bytes, not numbered in universes.
constexpr bool isRow(Protocol protocol) {
  return traitsOf(protocol).numbering == UniverseNumbering::Row;
}
/// True if it is reached over a network.
constexpr bool isNetworked(Protocol protocol) {
  return traitsOf(protocol).port != 0;
}

}  // namespace chispa
