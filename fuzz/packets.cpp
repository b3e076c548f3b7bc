// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <span>

#include "link/artnet.h"
#include "link/ddp.h"
#include "link/e131.h"

/// Packets from the network, by every reader: what is believed must lie within its bounds.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  using namespace chispa::link;
  const std::span<const std::uint8_t> packet(data, size);
  if (const auto e131 = readE131Data(packet))
    if (e131->values.size() > 512 || e131->universe < 1 || e131->universe > 63'999 || e131->priority > 200)
      std::abort();
  if (const auto page = readE131Discovery(packet))
    if (page->universes.size() > kE131DiscoveryPerPage || page->page > page->lastPage) std::abort();
  readE131Sync(packet);
  if (const auto dmx = readArtDmx(packet))
    if (dmx->values.size() > 512 || dmx->portAddress > 32'767) std::abort();
  if (const auto reply = readArtPollReply(packet))
    if (reply->ports > 4) std::abort();
  isArtPoll(packet);
  isArtSync(packet);
  if (const auto piece = readDdpData(packet))
    if (piece->data.size() > size) std::abort();
  readDdpReply(packet, DdpQuery::Status);
  return 0;
}
