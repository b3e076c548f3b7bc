// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/node.h"

#include <algorithm>
#include <cerrno>
#include <cstring>

#include <arpa/inet.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::node {
namespace {

constexpr int kPorts[] = {5568, 6454, 4048, 7890};
/// Protocols by their number in the record.
constexpr const char* kRecorded[] = {"e131", "artnet", "ddp", "opc"};

std::string textOf(const sockaddr_in& address) {
  std::array<char, INET_ADDRSTRLEN> text{};
  inet_ntop(AF_INET, &address.sin_addr, text.data(), text.size());
  return text.data();
}

sockaddr_in senderOf(const Incoming& packet) {
  sockaddr_in from{};
  if (packet.sender.size() == sizeof from) std::memcpy(&from, packet.sender.data(), sizeof from);
  return from;
}

}  // namespace

std::int64_t Node::now_ms() {
  return std::chrono::duration_cast<std::chrono::milliseconds>(
             std::chrono::steady_clock::now().time_since_epoch())
      .count();
}

Node::Node(NodeOptions options) : options_(std::move(options)) {
  if (!options_.memory) return;
  memory_.emplace(*options_.memory);
  memory_->setSpeed(options_.clockSpeed, now_ms());
  if (options_.clock) memory_->setClock(*options_.clock, now_ms());
}

Node::~Node() {
  stopping_ = true;
  if (thread_.joinable()) thread_.join();
  for (const int fd : sockets_)
    if (fd >= 0) ::close(fd);
  for (const OpcClient& client : opcClients_) ::close(client.fd);
  if (recordFile_) std::fclose(recordFile_);
}

bool Node::openSocket(Door door, int kind, std::string& why) {
  int& fd = sockets_[door];
  fd = ::socket(AF_INET, kind | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
  sockaddr_in address{};
  address.sin_family = AF_INET;
  address.sin_port = htons(static_cast<std::uint16_t>(kPorts[door]));
  const std::string place = options_.listen + ":" + std::to_string(kPorts[door]);
  if (fd < 0 || inet_pton(AF_INET, options_.listen.c_str(), &address.sin_addr) != 1) {
    why = place + ": this is no IPv4 address. Give one of this machine's, for example 127.0.0.11.";
    return false;
  }
  constexpr int kBuffer = 8 << 20;
  constexpr int kOn = 1;
  ::setsockopt(fd, SOL_SOCKET, SO_RCVBUF, &kBuffer, sizeof kBuffer);
  // A TCP port stays taken for a while after its last connection; a packet port does not.
  if (kind == SOCK_STREAM) ::setsockopt(fd, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
  // Packets to a group do not arrive at a socket that is bound to an address.
  if (door == kE131 && !options_.groups.empty()) address.sin_addr.s_addr = htonl(INADDR_ANY);
  if (::bind(fd, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0 ||
      (kind == SOCK_STREAM && ::listen(fd, 4) != 0)) {
    why =
        place + ": cannot listen there (" + std::strerror(errno) +
        "). Another program or node may be using it: end that one, or choose another address with --listen.";
    return false;
  }
  return true;
}

bool Node::joinGroups(std::string& why) const {
  for (const int universe : options_.groups) {
    ip_mreq join{};
    join.imr_multiaddr.s_addr = htonl(0xefff0000u | static_cast<std::uint32_t>(universe & 0xffff));
    inet_pton(AF_INET, options_.listen.c_str(), &join.imr_interface);
    if (::setsockopt(sockets_[kE131], IPPROTO_IP, IP_ADD_MEMBERSHIP, &join, sizeof join) == 0) continue;
    why = "universe " + std::to_string(universe) + ": its multicast group cannot be joined (" +
          std::strerror(errno) + "). Choose an interface with multicast with --listen.";
    return false;
  }
  return true;
}

bool Node::start(std::string& why) {
  if (!openSocket(kE131, SOCK_DGRAM, why) || !openSocket(kArtNet, SOCK_DGRAM, why) ||
      !openSocket(kDdp, SOCK_DGRAM, why) || !openSocket(kOpc, SOCK_STREAM, why) || !joinGroups(why))
    return false;
  if (!options_.recordFile.empty()) {
    recordFile_ = std::fopen(options_.recordFile.c_str(), "wb");
    if (!recordFile_) {
      why = options_.recordFile + ": cannot be written (" + std::strerror(errno) + "). Choose another file.";
      return false;
    }
  }
  thread_ = std::thread([this] { listen(); });
  return true;
}

void Node::listen() {
  while (!stopping_) {
    std::vector<pollfd> waiting;
    for (const int fd : sockets_) waiting.push_back({fd, POLLIN, 0});
    for (const OpcClient& client : opcClients_) waiting.push_back({client.fd, POLLIN, 0});
    // Delayed packets come out of the cable while nothing new arrives.
    const bool plays = memory_ && !memory_->isEmpty();
    const int wait_ms = !cable_.isEmpty() ? 2 : plays ? 20 : 50;
    if (::poll(waiting.data(), waiting.size(), wait_ms) > 0) {
      for (const Door door : {kE131, kArtNet, kDdp})
        if (waiting[door].revents & POLLIN) receive(door);
      if (waiting[kOpc].revents & POLLIN) acceptOpc();
      hearOpc();
    }
    const std::scoped_lock lock(mutex_);
    cable_.takeDue(std::chrono::steady_clock::now(), [this](const Incoming& packet) { take(packet); });
    if (memory_) memory_->advance(now_ms());
    if (recordFile_) std::fflush(recordFile_);
  }
}

void Node::receive(Door door) {
  std::array<std::uint8_t, 2048> buffer;
  constexpr int kMaxAtOnce = 512;
  for (int packets = 0; packets < kMaxAtOnce; ++packets) {
    sockaddr_in from{};
    socklen_t length = sizeof from;
    const ssize_t size = ::recvfrom(sockets_[door], buffer.data(), buffer.size(), 0,
                                    reinterpret_cast<sockaddr*>(&from), &length);
    if (size <= 0) break;
    Incoming packet{door, {buffer.begin(), buffer.begin() + size}, std::vector<std::uint8_t>(sizeof from)};
    std::memcpy(packet.sender.data(), &from, sizeof from);
    const std::scoped_lock lock(mutex_);
    cable_.put(std::move(packet), std::chrono::steady_clock::now());
  }
}

void Node::acceptOpc() {
  constexpr std::size_t kMaxClients = 8;
  const int fd = ::accept4(sockets_[kOpc], nullptr, nullptr, SOCK_NONBLOCK | SOCK_CLOEXEC);
  if (fd < 0) return;
  if (opcClients_.size() < kMaxClients)
    opcClients_.push_back({fd});
  else
    ::close(fd);
}

void Node::hearOpc() {
  std::array<std::uint8_t, 65'536> buffer;
  for (OpcClient& client : opcClients_) {
    const ssize_t size = ::recv(client.fd, buffer.data(), buffer.size(), 0);
    if (size < 0 && (errno == EAGAIN || errno == EINTR)) continue;
    if (size <= 0) {
      ::close(client.fd);
      client.fd = -1;
      continue;
    }
    client.held.insert(client.held.end(), buffer.begin(), buffer.begin() + size);
    while (const auto message = readOpc(client.held)) {
      const std::scoped_lock lock(mutex_);
      const auto now = std::chrono::steady_clock::now();
      constexpr int kSetColours8 = 0;
      constexpr int kSetColours16 = 2;
      const bool isColours = message->command == kSetColours8 || message->command == kSetColours16;
      if (isColours && !cable_.isSilent(now)) {
        hear();
        universes_.acceptRow("opc", "opc", 0, message->data, 0, now);
        if (recordFile_) recordRow("opc");
      }
      client.held.erase(client.held.begin(),
                        client.held.begin() + static_cast<std::ptrdiff_t>(message->size));
    }
  }
  std::erase_if(opcClients_, [](const OpcClient& client) { return client.fd < 0; });
}

void Node::take(const Incoming& packet) {
  const auto now = std::chrono::steady_clock::now();
  if (packet.door == kArtNet) return takeArtNet(packet);
  if (packet.door == kDdp) return takeDdp(packet);
  const auto data = readE131(packet.bytes);
  if (!data) return;
  // A stream that ends leaves the light to the memory at once.
  if (data->terminated)
    heardAt_.reset();
  else
    hear();
  // The sender's CID tells sources apart.
  universes_.accept("e131", std::string(packet.bytes.begin() + 22, packet.bytes.begin() + 38), *data, now);
  if (recordFile_) record("e131", *data);
}

void Node::takeArtNet(const Incoming& packet) {
  if (const auto data = readArtDmx(packet.bytes)) {
    hear();
    universes_.accept("artnet", textOf(senderOf(packet)), *data, std::chrono::steady_clock::now());
    if (recordFile_) record("artnet", *data);
    return;
  }
  if (const auto order = readArtAddress(packet.bytes))
    obey(*order);
  else if (!isArtPoll(packet.bytes))
    return;
  for (const auto& reply : artPollReplies(ownAddress(), options_.name, portAddresses()))
    answer(packet, reply);
}

void Node::takeDdp(const Incoming& packet) {
  if (isDdpStatusQuery(packet.bytes)) return answer(packet, ddpStatusReply(options_.name));
  const auto piece = readDdp(packet.bytes);
  if (!piece) return;
  hear();
  universes_.acceptRow("ddp", textOf(senderOf(packet)), piece->offset, piece->data, piece->sequence,
                       std::chrono::steady_clock::now());
  if (recordFile_ && piece->push) recordRow("ddp");
}

void Node::answer(const Incoming& asked, std::span<const std::uint8_t> reply) const {
  const sockaddr_in to = senderOf(asked);
  // Whoever asked and is gone by now asks again.
  [[maybe_unused]] const auto sent =
      ::sendto(sockets_[static_cast<std::size_t>(asked.door)], reply.data(), reply.size(), 0,
               reinterpret_cast<const sockaddr*>(&to), sizeof to);
}

std::array<std::uint8_t, 4> Node::ownAddress() const {
  in_addr own{};
  inet_pton(AF_INET, options_.listen.c_str(), &own);
  std::array<std::uint8_t, 4> address;
  std::memcpy(address.data(), &own, address.size());
  return address;
}

std::vector<int> Node::portAddresses() const {
  std::vector<int> addresses(static_cast<std::size_t>(options_.ports), 0);
  for (const PortSetup& port : ports_)
    if (port.protocol == "artnet" && !port.sections.empty())
      addresses[static_cast<std::size_t>(port.port - 1)] = port.sections.front().universe;
  return addresses;
}

void Node::obey(const ArtAddressOrder& order) {
  if (!order.longName.empty())
    options_.name = order.longName;
  else if (!order.shortName.empty())
    options_.name = order.shortName;
  for (int i = 0; i < 4; ++i) {
    const auto& wanted = order.outputs[static_cast<std::size_t>(i)];
    const int number = (order.bindIndex - 1) * 4 + i + 1;
    if (!wanted || number > options_.ports) continue;
    auto found =
        std::find_if(ports_.begin(), ports_.end(), [number](const PortSetup& p) { return p.port == number; });
    if (found == ports_.end())
      found = ports_.insert(ports_.end(), PortSetup{number, "artnet", {}, 512, false});
    found->protocol = "artnet";
    if (found->sections.empty()) found->sections.push_back({});
    // What stands behind the first section moves with it.
    const int by = *wanted - found->sections.front().universe;
    for (Section& section : found->sections) section.universe += by;
  }
}

void Node::record(const std::string& protocol, const DataPacket& packet) {
  const auto number = std::find(std::begin(kRecorded), std::end(kRecorded), protocol) - std::begin(kRecorded);
  const std::uint8_t head[5] = {static_cast<std::uint8_t>(number),
                                static_cast<std::uint8_t>(packet.universe >> 8),
                                static_cast<std::uint8_t>(packet.universe & 255), packet.sequence,
                                static_cast<std::uint8_t>(packet.terminated ? 1 : 0)};
  std::fwrite(head, 1, sizeof head, recordFile_);
  std::fwrite(packet.values.data(), 1, packet.values.size(), recordFile_);
}

void Node::recordRow(const std::string& protocol) {
  DataPacket packet;
  for (const int page : universes_.numbersOf(protocol)) {
    packet.universe = page;
    for (int channel = 1; channel <= 512; ++channel)
      packet.values[static_cast<std::size_t>(channel - 1)] =
          static_cast<std::uint8_t>(universes_.valueAt(protocol, page, channel));
    record(protocol, packet);
  }
}

}  // namespace chispa::node
