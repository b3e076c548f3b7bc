// SPDX-License-Identifier: GPL-3.0-or-later
// A recording, head and blocks, read at some instants and sent to nobody.
#include <cstddef>
#include <cstdint>
#include <fstream>

#include <unistd.h>

#include "core/recording/recording.h"
#include "engine/recordingsender.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const std::string path = "/tmp/chispa-fuzz-" + std::to_string(::getpid()) + ".chirec";
  std::ofstream(path, std::ios::binary | std::ios::trunc)
      .write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
  auto opened = chispa::RecordingReader::open(path);
  if (!opened) return 0;
  chispa::RecordingReader reader = *std::move(opened);
  constexpr std::size_t kMaxUniverses = 500;
  if (reader.universes().size() > kMaxUniverses) return 0;
  chispa::RecordingHead head = reader.head();
  for (auto& controller : head.rig.controllers) {
    chispa::Controller here = *controller;
    here.host = "127.0.0.1";
    here.udpPort = 9;
    here.delivery = chispa::Delivery::Unicast;
    here.localAddress.clear();
    if (here.protocol == chispa::Protocol::SerialDmx || here.protocol == chispa::Protocol::Opc)
      here.protocol = chispa::Protocol::ArtNet;
    controller = std::make_shared<const chispa::Controller>(std::move(here));
  }
  auto sender = chispa::engine::RecordingSender::open(head, {});
  for (const chispa::Micros at :
       {reader.length(), chispa::Micros(0), reader.length() / 2, reader.length() / 2 + chispa::Micros(1)}) {
    const auto values = reader.at(at);
    if (values && sender) {
      auto& ready = const_cast<chispa::engine::RecordingSender&>(*sender);
      ready.send(*values, std::chrono::nanoseconds(at.count()));
    }
  }
  return 0;
}
