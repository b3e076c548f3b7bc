// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <span>

#include "node/decode.h"

/// The simulated controller's own readers.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  using namespace chispa::node;
  const std::span<const std::uint8_t> packet(data, size);
  for (const auto& read : {readE131(packet), readArtDmx(packet)})
    if (read && (read->count < 0 || read->count > 512)) std::abort();
  readArtAddress(packet);
  isArtPoll(packet);
  isDdpStatusQuery(packet);
  if (const auto piece = readDdp(packet))
    if (piece->data.size() > size) std::abort();
  if (const auto message = readOpc(packet))
    if (message->size > size || message->data.size() + 4 != message->size) std::abort();
  return 0;
}
