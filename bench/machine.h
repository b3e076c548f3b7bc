// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <memory>
#include <vector>

#include "core/render/compiled.h"
#include "core/show/show.h"
#include "engine/clock.h"
#include "link/sender.h"

namespace chispa::bench {

/// Processor time of this program so far, of all its threads, in seconds.
double cpuSeconds();

/// A UDP socket on a free port of 127.0.0.1.
class LoopbackSocket {
 public:
  LoopbackSocket();
  ~LoopbackSocket();
  LoopbackSocket(const LoopbackSocket&) = delete;
  LoopbackSocket& operator=(const LoopbackSocket&) = delete;
  int fd() const { return fd_; }
  int port() const { return port_; }

 private:
  int fd_;
  int port_ = 0;
};

/// One sender for all universes of a show.
struct AllSenders {
  AllSenders(const Show& show, const CompiledShow& compiled);
  void send(const std::vector<std::uint8_t>& values, engine::MonoTime now);

  std::vector<std::size_t> first;
  std::vector<std::unique_ptr<link::ControllerSender>> senders;
};

}  // namespace chispa::bench
