// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/beacon.h"

#include <algorithm>

namespace chispa::link {

Result<DiscoveryBeacon> DiscoveryBeacon::open(const E131Source& source, std::vector<int> universes,
                                              const std::string& local, int port) {
  DiscoveryBeacon beacon;
  const Endpoint group = e131Group(kE131DiscoveryUniverse, port);
  auto socket = UdpSender::open(group, Reach::Groups, local);
  if (!socket) return socket.failure();
  beacon.socket_ = *std::move(socket);
  beacon.group_ = {group};
  beacon.local_ = local;
  const std::size_t count =
      std::max<std::size_t>(1, (universes.size() + kE131DiscoveryPerPage - 1) / kE131DiscoveryPerPage);
  for (std::size_t page = 0; page < count; ++page) {
    const auto from = std::span(universes).subspan(page * kE131DiscoveryPerPage);
    beacon.pages_.push_back(e131Discovery(source, static_cast<int>(page), static_cast<int>(count) - 1,
                                          from.first(std::min(from.size(), kE131DiscoveryPerPage))));
  }
  return beacon;
}

void DiscoveryBeacon::tick(std::chrono::nanoseconds now) noexcept {
  // E131_UNIVERSE_DISCOVERY_INTERVAL, appendix A.
  constexpr std::chrono::seconds kEvery{10};
  if (pages_.empty() || now - sentAt_ < kEvery) return;
  sentAt_ = now;
  constexpr std::uint8_t kOne[] = {1};
  for (const auto& page : pages_) socket_.send(page, page.size(), kOne, group_);
}

}  // namespace chispa::link
