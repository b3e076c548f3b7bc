// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/osc.h"

#include <array>
#include <cerrno>
#include <cmath>
#include <cstring>

#include <arpa/inet.h>
#include <lo/lo.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::link {
namespace {

constexpr std::size_t kMaxPacket = 8'192;
constexpr int kDeepestBundle = 4;
/// "#bundle" and a time tag (OSC 1.0, "OSC Bundles").
constexpr std::size_t kBundleHead = 16;

float numberOf(lo_message message) {
  const int count = lo_message_get_argc(message);
  if (count == 0) return 1;
  const char type = lo_message_get_types(message)[0];
  if (type == LO_TRUE) return 1;
  if (type == LO_FALSE || type == LO_NIL) return 0;
  lo_arg* first = lo_message_get_argv(message)[0];
  if (!lo_is_numerical_type(static_cast<lo_type>(type))) return 1;
  const auto value = static_cast<float>(lo_hires_val(static_cast<lo_type>(type), first));
  return std::isfinite(value) ? value : 0;
}

void readMessage(std::span<const std::uint8_t> bytes, std::vector<OscHeard>& heard) {
  if (bytes.empty() || bytes[0] != '/') return;
  // liblo writes into what it reads.
  std::vector<std::uint8_t> copy(bytes.begin(), bytes.end());
  const auto end = static_cast<const std::uint8_t*>(std::memchr(copy.data(), 0, copy.size()));
  if (!end) return;
  const std::string address(copy.begin(), copy.begin() + (end - copy.data()));
  int result = 0;
  lo_message message = lo_message_deserialise(copy.data(), copy.size(), &result);
  if (!message) return;
  heard.push_back({address, numberOf(message)});
  lo_message_free(message);
}

std::size_t bigEndian(const std::uint8_t* at) {
  return std::size_t{at[0]} << 24 | std::size_t{at[1]} << 16 | std::size_t{at[2]} << 8 | at[3];
}

void readAny(std::span<const std::uint8_t> bytes, int depth, std::vector<OscHeard>& heard) {
  if (bytes.size() < 8 || std::memcmp(bytes.data(), "#bundle", 8) != 0) return readMessage(bytes, heard);
  if (bytes.size() < kBundleHead || depth >= kDeepestBundle) return;
  bytes = bytes.subspan(kBundleHead);
  while (bytes.size() >= 4) {
    const std::size_t size = bigEndian(bytes.data());
    bytes = bytes.subspan(4);
    if (size > bytes.size()) return;
    readAny(bytes.first(size), depth + 1, heard);
    bytes = bytes.subspan(size);
  }
}

}  // namespace

std::vector<OscHeard> readOsc(std::span<const std::uint8_t> packet) {
  std::vector<OscHeard> heard;
  if (packet.size() <= kMaxPacket) readAny(packet, 0, heard);
  return heard;
}

Result<std::unique_ptr<OscServer>> OscServer::open(const std::string& address, int port, Hear hear) {
  std::unique_ptr<OscServer> server(new OscServer(std::move(hear)));
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(static_cast<std::uint16_t>(port));
  const auto failed = [&](const std::string& why) {
    return Failure{sentence("OSC cannot be heard on %1, port %2 (%3).", address, port, why),
                   {},
                   "Choose another port, or an address of this computer."};
  };
  if (::inet_pton(AF_INET, address.c_str(), &own.sin_addr) != 1) return failed("no IPv4 address");
  server->fd_ = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
  if (server->fd_ < 0 || ::bind(server->fd_, reinterpret_cast<sockaddr*>(&own), sizeof own) != 0)
    return failed(std::strerror(errno));
  socklen_t size = sizeof own;
  ::getsockname(server->fd_, reinterpret_cast<sockaddr*>(&own), &size);
  server->port_ = ntohs(own.sin_port);
  server->thread_ = std::thread([raw = server.get()] { raw->run(); });
  return server;
}

OscServer::~OscServer() {
  stopping_ = true;
  if (thread_.joinable()) thread_.join();
  if (fd_ >= 0) ::close(fd_);
}

void OscServer::run() {
  constexpr int kWait_ms = 50;
  std::array<std::uint8_t, kMaxPacket> buffer;
  while (!stopping_) {
    pollfd waiting{fd_, POLLIN, 0};
    if (::poll(&waiting, 1, kWait_ms) <= 0) continue;
    const ssize_t count = ::recv(fd_, buffer.data(), buffer.size(), 0);
    if (count < 0) continue;
    const auto heard = readOsc(std::span(buffer).first(static_cast<std::size_t>(count)));
    if (heard.empty()) ++unreadable_;
    for (const OscHeard& one : heard) hear_(one);
  }
}

}  // namespace chispa::link
