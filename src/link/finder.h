// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace chispa::link {

/// A network interface of this machine.
struct Interface {
  std::string name;
  std::string address;
  /// Empty where there is no broadcast, as on loopback.
  std::string broadcast;
};
/// All interfaces that are up and have an IPv4 address.
std::vector<Interface> localInterfaces();

/// How something made itself known.
enum class FoundBy { ArtPoll, UniverseDiscovery, DdpStatus };

/// A controller that answered, or a source that said what it sends.
struct FoundController {
  FoundBy by = FoundBy::ArtPoll;
  std::string address;
  std::string name;
  /// Outputs it has, and the Port-Address of the first; for a source the universes it sends, and the lowest.
  int ports = 0;
  int firstUniverse = 0;

  bool operator==(const FoundController&) const = default;
};

/// Where to look.
struct FindRequest {
  std::vector<Interface> interfaces;
  /// Addresses that are asked one by one, besides everybody on the interfaces' networks.
  std::vector<std::string> addresses;
};

/// Asks twice by ArtPoll and by DDP status, listens for E1.31 universe discovery, and is done within four
/// seconds (Art-Net 4: nodes answer within three); `found` is called as answers arrive, once more if a later
/// answer adds ports to an earlier one. Blocks until then, or until `cancelled`. Fails if no interface can be
/// used; a part that cannot be listened to is told to `trouble`.
Outcome findControllers(const FindRequest& request, const std::function<void(const FoundController&)>& found,
                        const std::atomic<bool>& cancelled,
                        const std::function<void(const Failure&)>& trouble = {});

}  // namespace chispa::link
