// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <thread>
#include <vector>

#include "core/base/result.h"

namespace chispa::link {

/// A message of OSC: its address and the first argument as a number (true 1, false 0, none 1).
struct OscHeard {
  std::string address;
  float value = 1;
};

/// What a packet of Open Sound Control 1.0 holds, bundles opened; time tags count as now, those of the future
/// too. Empty if it is damaged. Parsed by liblo.
std::vector<OscHeard> readOsc(std::span<const std::uint8_t> packet);

/// Hears OSC over UDP on one interface.
class OscServer {
 public:
  /// Called on the server's thread; must not wait.
  using Hear = std::function<void(const OscHeard&)>;
  static constexpr int kPort = 9'127;

  /// Fails if the port is taken or the address is not this machine's. Port 0 takes any that is free.
  static Result<std::unique_ptr<OscServer>> open(const std::string& address, int port, Hear hear);
  ~OscServer();

  int port() const { return port_; }
  /// Packets that were none, and were thrown away.
  std::uint64_t unreadable() const { return unreadable_; }

 private:
  explicit OscServer(Hear hear) : hear_(std::move(hear)) {}
  void run();

  Hear hear_;
  int fd_ = -1;
  int port_ = 0;
  std::atomic<std::uint64_t> unreadable_{0};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::link
