// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <string>
#include <vector>

#include <arpa/inet.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::link {

/// A UDP socket on a port of the system's choice.
class Listener {
 public:
  explicit Listener(const std::string& address) : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_NONBLOCK, 0)) {
    sockaddr_in own{};
    own.sin_family = AF_INET;
    inet_pton(AF_INET, address.c_str(), &own.sin_addr);
    ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), sizeof own);
    socklen_t size = sizeof own;
    ::getsockname(fd_, reinterpret_cast<sockaddr*>(&own), &size);
    port_ = ntohs(own.sin_port);
    const int buffer = 8 << 20;
    ::setsockopt(fd_, SOL_SOCKET, SO_RCVBUF, &buffer, sizeof buffer);
  }
  ~Listener() { ::close(fd_); }

  int port() const { return port_; }
  std::vector<std::string> take() const {
    std::vector<std::string> packets;
    std::array<char, 2048> buffer;
    for (ssize_t size = 0; (size = ::recv(fd_, buffer.data(), buffer.size(), 0)) > 0;)
      packets.emplace_back(buffer.data(), static_cast<std::size_t>(size));
    return packets;
  }

 private:
  int fd_;
  int port_ = 0;
};

}  // namespace chispa::link
