// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "link/artnet.h"
#include "link/udp.h"

namespace chispa::link {

/// Speaks with one Art-Net node: asks what it is and programmes it. Calls wait for its answers, a second at
/// most.
class ArtNetClient {
 public:
  /// Listens at this machine's Art-Net port on the interface that leads to `host`, where nodes answer. Fails
  /// if that is taken, or the host is not known.
  static Result<std::unique_ptr<ArtNetClient>> open(const std::string& host);
  ~ArtNetClient();
  ArtNetClient(const ArtNetClient&) = delete;
  ArtNetClient& operator=(const ArtNetClient&) = delete;

  /// Everything it answers to an ArtPoll: a reply for each four ports; empty if it is silent.
  std::vector<ArtPollReply> poll() const;
  /// Sends an ArtAddress; fails if it makes no sense or the node does not answer it.
  Outcome order(const ArtAddress& wanted) const;

 private:
  ArtNetClient(int fd, Endpoint node) : fd_(fd), node_(node) {}
  bool send(std::span<const std::uint8_t> packet) const;
  std::vector<ArtPollReply> replies() const;

  int fd_;
  Endpoint node_;
};

}  // namespace chispa::link
