// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/finder.h"

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <cstring>
#include <map>
#include <memory>
#include <optional>

#include <ifaddrs.h>
#include <net/if.h>
#include <nlohmann/json.hpp>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include "core/base/utf8.h"
#include "link/artnet.h"
#include "link/ddp.h"
#include "link/e131.h"
#include "link/socketaddress.h"

namespace chispa::link {
namespace {

using SteadyTime = std::chrono::steady_clock;

/// The dotted numbers of an interface's address; empty if it is no IPv4 one.
std::string textOf(const sockaddr* address) {
  if (!address || address->sa_family != AF_INET) return {};
  sockaddr_in in{};
  std::memcpy(&in, address, sizeof in);
  return hostText(endpointOf(in).address);
}

sockaddr_in placeAt(const std::string& address, int port) {
  sockaddr_in to{};
  to.sin_family = AF_INET;
  to.sin_port = htons(static_cast<std::uint16_t>(port));
  inet_pton(AF_INET, address.c_str(), &to.sin_addr);
  return to;
}

/// A socket that asks and listens.
class AskingSocket {
 public:
  /// On `local`:`port`, 0 for any port.
  AskingSocket(const std::string& local, int port)
      : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0)) {
    constexpr int kOn = 1;
    ::setsockopt(fd_, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
    ::setsockopt(fd_, SOL_SOCKET, SO_BROADCAST, &kOn, sizeof kOn);
    const sockaddr_in own = placeAt(local, port);
    if (fd_ < 0 || ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), sizeof own) != 0) error_ = errno;
  }
  ~AskingSocket() {
    if (fd_ >= 0) ::close(fd_);
  }
  AskingSocket(const AskingSocket&) = delete;
  AskingSocket& operator=(const AskingSocket&) = delete;

  int fd() const { return fd_; }
  /// errno of what failed when it was opened or joined; 0 if it works.
  int error() const { return error_; }
  void join(const Endpoint& group, const std::string& local) {
    ip_mreq join{};
    join.imr_multiaddr.s_addr = htonl(group.address);
    inet_pton(AF_INET, local.c_str(), &join.imr_interface);
    if (error_ == 0 && ::setsockopt(fd_, IPPROTO_IP, IP_ADD_MEMBERSHIP, &join, sizeof join) != 0)
      error_ = errno;
  }
  void ask(std::span<const std::uint8_t> packet, const std::string& address, int port) const {
    const sockaddr_in to = placeAt(address, port);
    // Who cannot be asked does not answer: the list says so.
    [[maybe_unused]] const auto sent =
        ::sendto(fd_, packet.data(), packet.size(), 0, reinterpret_cast<const sockaddr*>(&to), sizeof to);
  }
  /// What has arrived, if anything, and from where.
  std::optional<std::pair<std::string, std::vector<std::uint8_t>>> hear() const {
    std::array<std::uint8_t, 2048> buffer;
    sockaddr_in from{};
    socklen_t size = sizeof from;
    const ssize_t count =
        ::recvfrom(fd_, buffer.data(), buffer.size(), 0, reinterpret_cast<sockaddr*>(&from), &size);
    if (count <= 0) return std::nullopt;
    return std::pair(hostText(endpointOf(from).address),
                     std::vector<std::uint8_t>(buffer.begin(), buffer.begin() + count));
  }

 private:
  int fd_;
  int error_ = 0;
};

/// Puts answers together: a node of many ports answers in pieces, and a source tells its universes page by
/// page.
class Answers {
 public:
  explicit Answers(const std::function<void(const FoundController&)>& found) : found_(found) {}

  void takeArtNet(const std::string& from, std::span<const std::uint8_t> packet) {
    const auto reply = readArtPollReply(packet);
    if (!reply) return;
    // Where it answered from is where it is; what it writes about that may be old.
    FoundController one{FoundBy::ArtPoll, from, reply->longName.empty() ? reply->shortName : reply->longName,
                        reply->ports, reply->portAddresses[0]};
    add({FoundBy::ArtPoll, from}, std::max(1, reply->bindIndex), one);
  }
  void takeDiscovery(const std::string& from, std::span<const std::uint8_t> packet) {
    const auto page = readE131Discovery(packet);
    if (!page || page->universes.empty()) return;
    add({FoundBy::UniverseDiscovery, from}, page->page,
        {FoundBy::UniverseDiscovery, from, page->name, static_cast<int>(page->universes.size()),
         page->universes.front()});
  }
  void takeDdp(const std::string& from, std::span<const std::uint8_t> packet) {
    const auto text = readDdpReply(packet, DdpQuery::Status);
    if (!text) return;
    const auto json = nlohmann::json::parse(*text, nullptr, false);
    std::string name = "DDP display";
    if (json.is_object() && json.contains("status") && json["status"].is_object() &&
        json["status"].contains("mod") && json["status"]["mod"].is_string())
      name = asUtf8(json["status"]["mod"].get<std::string>());
    add({FoundBy::DdpStatus, from}, 0, {FoundBy::DdpStatus, from, name, 1, 0});
  }

 private:
  void add(const std::pair<FoundBy, std::string>& who, int piece, const FoundController& one) {
    // No network has so many; a flood of made-up ones takes no more memory.
    constexpr std::size_t kMaxKnown = 4096;
    constexpr std::size_t kMaxPieces = 256;
    if (known_.size() >= kMaxKnown && !known_.contains(who)) return;
    auto& pieces = known_[who];
    if (pieces.size() >= kMaxPieces) return;
    if (!pieces.try_emplace(piece, one).second) return;
    FoundController all = pieces.begin()->second;
    all.ports = 0;
    for (const auto& [index, part] : pieces) all.ports += part.ports;
    found_(all);
  }

  const std::function<void(const FoundController&)>& found_;
  std::map<std::pair<FoundBy, std::string>, std::map<int, FoundController>> known_;
};

/// The sockets of one interface.
struct InterfaceSockets {
  /// Discovery is bound to the group itself: whoever receives E1.31 on this machine keeps its own addresses.
  explicit InterfaceSockets(const Interface& interface)
      : place(interface),
        artNet(interface.address, kArtNetPort),
        ddp(interface.address, 0),
        discovery(hostText(e131Group(kE131DiscoveryUniverse, 0).address), kE131Port) {
    discovery.join(e131Group(kE131DiscoveryUniverse, 0), interface.address);
  }

  void ask(const std::vector<std::string>& addresses) const {
    std::array<std::uint8_t, kArtPollPacketSize> poll;
    writeArtPoll(poll);
    std::array<std::uint8_t, kDdpHeaderSize> query;
    writeDdpQuery(query, DdpQuery::Status);
    std::vector<std::string> all = addresses;
    if (!place.broadcast.empty()) all.push_back(place.broadcast);
    for (const std::string& address : all) {
      artNet.ask(poll, address, kArtNetPort);
      ddp.ask(query, address, kDdpPort);
    }
  }

  Interface place;
  AskingSocket artNet;
  AskingSocket ddp;
  AskingSocket discovery;
};

}  // namespace

std::vector<Interface> localInterfaces() {
  std::vector<Interface> all;
  ifaddrs* first = nullptr;
  if (getifaddrs(&first) != 0) return all;
  for (const ifaddrs* at = first; at; at = at->ifa_next) {
    const std::string address = textOf(at->ifa_addr);
    if (address.empty() || !(at->ifa_flags & IFF_UP)) continue;
    all.push_back(
        {at->ifa_name, address, at->ifa_flags & IFF_BROADCAST ? textOf(at->ifa_broadaddr) : std::string()});
  }
  freeifaddrs(first);
  return all;
}

Outcome findControllers(const FindRequest& request, const std::function<void(const FoundController&)>& found,
                        const std::atomic<bool>& cancelled,
                        const std::function<void(const Failure&)>& trouble) {
  std::vector<std::unique_ptr<InterfaceSockets>> all;
  for (const Interface& interface : request.interfaces) {
    auto own = std::make_unique<InterfaceSockets>(interface);
    const auto tell = [&](const AskingSocket& socket, const std::string& what, int port) {
      const Failure failure{
          what + " from there (" + std::strerror(socket.error()) + ").",
          interface.address + ":" + std::to_string(port),
          "Another program may be using it on this interface: end it, or choose another interface."};
      if (trouble) trouble(failure);
      return failure;
    };
    if (own->discovery.error() != 0) tell(own->discovery, "E1.31 sources cannot be heard", kE131Port);
    if (own->artNet.error() != 0) {
      const Failure failure = tell(own->artNet, "Art-Net cannot be asked", kArtNetPort);
      if (request.interfaces.size() == 1) return failure;
    }
    all.push_back(std::move(own));
  }
  if (all.empty()) return Failure{"No interface is chosen.", "", "Choose at least one network to look in."};
  // Sources tell themselves every ten seconds only: who is not heard in this time is found the next time.
  constexpr auto kListen = std::chrono::milliseconds(3800);
  constexpr auto kAskAgain = std::chrono::milliseconds(1500);
  constexpr int kMaxAsked = 2;
  constexpr int kWait_ms = 50;
  Answers answers(found);
  const auto begun = SteadyTime::now();
  for (int asked = 0; SteadyTime::now() - begun < kListen && !cancelled;) {
    if (asked < kMaxAsked && SteadyTime::now() - begun >= asked * kAskAgain) {
      ++asked;
      for (const auto& own : all) own->ask(request.addresses);
    }
    std::vector<pollfd> waiting;
    for (const auto& own : all)
      for (const AskingSocket* socket : {&own->artNet, &own->ddp, &own->discovery})
        waiting.push_back({socket->fd(), POLLIN, 0});
    if (::poll(waiting.data(), waiting.size(), kWait_ms) <= 0) continue;
    // A flood does not keep it from looking at the time.
    constexpr int kMaxAtOnce = 256;
    const auto take = [](AskingSocket& socket, auto taken) {
      for (int i = 0; i < kMaxAtOnce; ++i) {
        const auto heard = socket.hear();
        if (!heard) return;
        taken(heard->first, heard->second);
      }
    };
    for (const auto& own : all) {
      take(own->artNet, [&](const auto& from, const auto& packet) { answers.takeArtNet(from, packet); });
      take(own->ddp, [&](const auto& from, const auto& packet) { answers.takeDdp(from, packet); });
      take(own->discovery,
           [&](const auto& from, const auto& packet) { answers.takeDiscovery(from, packet); });
    }
  }
  return Done{};
}

}  // namespace chispa::link
