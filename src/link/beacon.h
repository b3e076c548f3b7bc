// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>

#include "link/e131.h"

namespace chispa::link {

/// Tells the network every 10 s which universes a source sends by multicast (E1.31 §8: universe discovery).
/// All memory is taken when it is made.
class DiscoveryBeacon {
 public:
  /// An empty one, which says nothing.
  DiscoveryBeacon() = default;
  /// `universes` rising; `local` as for UdpSender.
  static Result<DiscoveryBeacon> open(const E131Source& source, std::vector<int> universes,
                                      const std::string& local, int port = kE131Port);

  /// Goes on where `before` was if it says the same: a program made anew does not announce itself anew.
  void takeOver(const DiscoveryBeacon& before) noexcept {
    if (pages_ == before.pages_ && group_ == before.group_ && local_ == before.local_)
      sentAt_ = before.sentAt_;
  }
  /// Sends the list if it is due. Never blocks.
  void tick(std::chrono::nanoseconds now) noexcept;

 private:
  UdpSender socket_;
  std::vector<std::vector<std::uint8_t>> pages_;
  std::vector<Endpoint> group_;
  std::string local_;
  std::chrono::nanoseconds sentAt_{-1'000'000'000'000};
};

}  // namespace chispa::link
