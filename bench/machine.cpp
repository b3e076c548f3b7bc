// SPDX-License-Identifier: GPL-3.0-or-later
#include "machine.h"

#include <arpa/inet.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::bench {

double cpuSeconds() {
  rusage usage{};
  getrusage(RUSAGE_SELF, &usage);
  const auto seconds = [](const timeval& t) {
    return static_cast<double>(t.tv_sec) + static_cast<double>(t.tv_usec) * 1e-6;
  };
  return seconds(usage.ru_utime) + seconds(usage.ru_stime);
}

LoopbackSocket::LoopbackSocket() : fd_(::socket(AF_INET, SOCK_DGRAM, 0)) {
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
  ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), sizeof own);
  socklen_t size = sizeof own;
  ::getsockname(fd_, reinterpret_cast<sockaddr*>(&own), &size);
  port_ = ntohs(own.sin_port);
}

LoopbackSocket::~LoopbackSocket() {
  ::close(fd_);
}

AllSenders::AllSenders(const Show& show, const CompiledShow& compiled) {
  std::size_t next = 0;
  for (std::size_t c = 0; c < show.controllers.size(); ++c) {
    std::vector<int> numbers;
    first.push_back(next);
    for (; next < compiled.patch.universes.size() &&
           compiled.patch.universes[next].controller == static_cast<int>(c);
         ++next)
      numbers.push_back(compiled.patch.universes[next].universe);
    auto opened = link::ControllerSender::open(*show.controllers[c], numbers, {});
    if (opened) senders.push_back(*std::move(opened));
  }
}

void AllSenders::send(const std::vector<std::uint8_t>& values, engine::MonoTime now) {
  for (std::size_t i = 0; i < senders.size(); ++i)
    senders[i]->send(std::span(values).subspan(first[i] * kUniverseChannels,
                                               senders[i]->universes().size() * kUniverseChannels),
                     now, true);
}

}  // namespace chispa::bench
