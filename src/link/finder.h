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

/// A controller that answered an ArtPoll.
struct FoundController {
  std::string address;
  std::string name;
  /// Outputs it has, and the Port-Address of the first.
  int ports = 0;
  int firstUniverse = 0;

  bool operator==(const FoundController&) const = default;
};

/// Where to look.
struct FindRequest {
  Interface interface;
  /// Addresses that are asked one by one, besides everybody on the interface's network.
  std::vector<std::string> addresses;
};

/// Asks twice and listens for three seconds (Art-Net 4: nodes answer within one); `found` is called once for each
/// controller as it answers. Blocks until then, or until `cancelled`. Fails if the interface cannot be used.
Outcome findControllers(const FindRequest& request, const std::function<void(const FoundController&)>& found, const std::atomic<bool>& cancelled);

}  // namespace chispa::link
