// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include <arpa/inet.h>

#include "link/udp.h"

namespace chispa::link {

/// An endpoint as the socket calls take it, and back.
inline sockaddr_in socketAddress(Endpoint endpoint) {
  sockaddr_in address{};
  address.sin_family = AF_INET;
  address.sin_port = htons(endpoint.port);
  address.sin_addr.s_addr = htonl(endpoint.address);
  return address;
}
inline Endpoint endpointOf(const sockaddr_in& address) {
  return {ntohl(address.sin_addr.s_addr), ntohs(address.sin_port)};
}

/// The dotted numbers of an address, without a port.
inline std::string hostText(std::uint32_t address) {
  const in_addr raw{htonl(address)};
  std::array<char, INET_ADDRSTRLEN> text{};
  inet_ntop(AF_INET, &raw, text.data(), text.size());
  return text.data();
}

}  // namespace chispa::link
