// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/node.h"

#include <arpa/inet.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <functional>

namespace chispa::node {
namespace {

constexpr int kE131Port = 5568;
constexpr int kArtNetPort = 6454;
constexpr int kDdpPort = 4048;

std::string hexColour(Shown c) {
  char text[8];
  std::snprintf(text, sizeof text, "#%02x%02x%02x", static_cast<unsigned>(c.r & 255), static_cast<unsigned>(c.g & 255),
                static_cast<unsigned>(c.b & 255));
  return text;
}

/// How many packets are missing between two sequence numbers; Art-Net never uses 0.
std::uint64_t missedBetween(const std::string& protocol, std::uint8_t before, std::uint8_t now) {
  const bool artNet = protocol == "artnet";
  const int turn = artNet ? 255 : 256;
  const int gap = (now - before + turn) % turn - 1;
  // A small step back is a packet overtaken by another, not 250 lost ones.
  constexpr int kBackwards = 20;
  return gap > 0 && gap < turn - kBackwards ? static_cast<std::uint64_t>(gap) : 0;
}

}  // namespace

Node::Node(NodeOptions options) : options_(std::move(options)) {}

Node::~Node() {
  stopping_ = true;
  if (thread_.joinable()) thread_.join();
  for (const int fd : {e131Socket_, artNetSocket_, ddpSocket_})
    if (fd >= 0) ::close(fd);
  if (recordFile_) std::fclose(recordFile_);
}

bool Node::openSocket(int port, int& fd, std::string& why) const {
  fd = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
  sockaddr_in address{};
  address.sin_family = AF_INET;
  address.sin_port = htons(static_cast<std::uint16_t>(port));
  const std::string place = options_.listen + ":" + std::to_string(port);
  if (fd < 0 || inet_pton(AF_INET, options_.listen.c_str(), &address.sin_addr) != 1) {
    why = place + ": this is no IPv4 address. Give one of this machine's, for example 127.0.0.11.";
    return false;
  }
  constexpr int kBuffer = 8 << 20;
  ::setsockopt(fd, SOL_SOCKET, SO_RCVBUF, &kBuffer, sizeof kBuffer);
  if (::bind(fd, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0) {
    why = place + ": cannot listen there (" + std::strerror(errno) +
          "). Another program or node may be using it: end that one, or choose another address with --listen.";
    return false;
  }
  return true;
}

bool Node::start(std::string& why) {
  if (!openSocket(kE131Port, e131Socket_, why) || !openSocket(kArtNetPort, artNetSocket_, why) || !openSocket(kDdpPort, ddpSocket_, why)) return false;
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
  pollfd waiting[3] = {{e131Socket_, POLLIN, 0}, {artNetSocket_, POLLIN, 0}, {ddpSocket_, POLLIN, 0}};
  constexpr int kWait_ms = 50;
  while (!stopping_) {
    if (::poll(waiting, 3, kWait_ms) <= 0) continue;
    if (waiting[0].revents & POLLIN) receive(e131Socket_, [this](auto bytes) { if (const auto packet = readE131(bytes)) accept("e131", *packet); });
    if (waiting[1].revents & POLLIN) receive(artNetSocket_, [this](auto bytes) { acceptArtNet(bytes); });
    if (waiting[2].revents & POLLIN) receive(ddpSocket_, [this](auto bytes) { if (const auto piece = readDdp(bytes)) accept(*piece); });
  }
}

void Node::receive(int fd, const std::function<void(std::span<const std::uint8_t>)>& take) {
  std::array<std::uint8_t, 2048> buffer;
  while (true) {
    socklen_t length = sizeof asker_;
    const ssize_t size = ::recvfrom(fd, buffer.data(), buffer.size(), 0, reinterpret_cast<sockaddr*>(&asker_), &length);
    if (size <= 0) break;
    take(std::span(buffer).first(static_cast<std::size_t>(size)));
  }
  if (recordFile_) std::fflush(recordFile_);
}

void Node::acceptArtNet(std::span<const std::uint8_t> bytes) {
  if (const auto packet = readArtDmx(bytes)) accept("artnet", *packet);
  if (!isArtPoll(bytes)) return;
  in_addr own{};
  inet_pton(AF_INET, options_.listen.c_str(), &own);
  std::array<std::uint8_t, 4> address;
  std::memcpy(address.data(), &own, address.size());
  int first = 0;
  for (const PortSetup& port : settings())
    if (port.protocol == "artnet" && !port.sections.empty() && first == 0) first = port.sections.front().universe;
  const auto reply = artPollReply(address, options_.name, options_.ports, first);
  ::sendto(artNetSocket_, reply.data(), reply.size(), 0, reinterpret_cast<const sockaddr*>(&asker_), sizeof asker_);
}

void Node::accept(const DdpPiece& piece) {
  const std::scoped_lock lock(mutex_);
  // The row is kept in pages of 512 bytes, numbered from 0, beside the universes of the other protocols.
  for (std::size_t i = 0; i < piece.data.size(); ++i) {
    const std::size_t at = piece.offset + i;
    universes_[{"ddp", static_cast<int>(at / 512)}].values[at % 512] = piece.data[i];
  }
  Universe& first = universes_[{"ddp", 0}];
  ++first.packets;
  first.sequence = piece.sequence;
}

void Node::accept(const std::string& protocol, const DataPacket& packet) {
  const std::scoped_lock lock(mutex_);
  Universe& universe = universes_[{protocol, packet.universe}];
  if (universe.packets > 0 && !universe.terminated)
    universe.lost += missedBetween(protocol, universe.sequence, packet.sequence);
  universe.sequence = packet.sequence;
  universe.source = packet.sourceName;
  universe.terminated = packet.terminated;
  ++universe.packets;
  // Values that come with the end of a stream are not to be shown (E1.31 §6.2.6).
  if (!packet.terminated) std::copy_n(packet.values.begin(), packet.count, universe.values.begin());
  if (recordFile_) record(protocol, packet);
}

void Node::record(const std::string& protocol, const DataPacket& packet) {
  const std::uint8_t head[5] = {static_cast<std::uint8_t>(protocol == "e131" ? 0 : 1),
                                static_cast<std::uint8_t>(packet.universe >> 8),
                                static_cast<std::uint8_t>(packet.universe & 255), packet.sequence,
                                static_cast<std::uint8_t>(packet.terminated ? 1 : 0)};
  std::fwrite(head, 1, sizeof head, recordFile_);
  std::fwrite(packet.values.data(), 1, packet.values.size(), recordFile_);
}

std::vector<PortSetup> Node::settings() const {
  const std::scoped_lock lock(mutex_);
  return ports_;
}

void Node::setSettings(std::vector<PortSetup> ports) {
  const std::scoped_lock lock(mutex_);
  ports_ = std::move(ports);
}

namespace {

/// Reads values from the universes of a port one after the other.
class ValueReader {
 public:
  using ByteAt = std::function<int(int universe, int channel)>;

  ValueReader(const PortSetup& port, const Section& section, ByteAt byteAt)
      : port_(port), section_(section), byteAt_(std::move(byteAt)), universe_(section.universe), channel_(section.channel) {}

  Shown next() {
    const int bytes = section_.bits / 8;
    const int width = static_cast<int>(section_.order.size()) * bytes;
    if (!port_.isPacked && channel_ + width - 1 > port_.channelsPerUniverse) turnPage();
    Shown colour;
    for (const char letter : section_.order) {
      // Of 16 bits the coarse half is what an 8-bit picture can show.
      const int value = byte();
      for (int fine = 1; fine < bytes; ++fine) byte();
      switch (letter) {
        case 'R': colour.r += value; break;
        case 'G': colour.g += value; break;
        case 'B': colour.b += value; break;
        default: colour = {colour.r + value, colour.g + value, colour.b + value};
      }
    }
    return {std::min(255, colour.r), std::min(255, colour.g), std::min(255, colour.b)};
  }

 private:
  void turnPage() {
    ++universe_;
    channel_ = 1;
  }
  int byte() {
    if (channel_ > port_.channelsPerUniverse) turnPage();
    return byteAt_(universe_, channel_++);
  }

  const PortSetup& port_;
  const Section& section_;
  ByteAt byteAt_;
  int universe_;
  int channel_;
};

}  // namespace

std::vector<Shown> Node::shown(const PortSetup& port) const {
  const std::scoped_lock lock(mutex_);
  const auto byteAt = [&](int universe, int channel) {
    const auto found = universes_.find({port.protocol, universe});
    return found == universes_.end() ? 0 : static_cast<int>(found->second.values[static_cast<std::size_t>(channel - 1)]);
  };
  std::vector<Shown> all;
  for (const Section& section : port.sections) {
    all.insert(all.end(), static_cast<std::size_t>(section.skippedBefore), Shown{});
    ValueReader reader(port, section, byteAt);
    Shown value;
    for (int i = 0; i < section.pixels; ++i) {
      if (i % section.grouping == 0) value = reader.next();
      all.push_back(value);
    }
  }
  return all;
}

nlohmann::json Node::state() const {
  const auto ports = settings();
  nlohmann::json root = {{"name", options_.name}, {"listen", options_.listen}};
  root["settings"] = toJson(ports);
  root["ports"] = nlohmann::json::array();
  for (const PortSetup& port : ports) {
    auto colours = nlohmann::json::array();
    for (const Shown colour : shown(port)) colours.push_back(hexColour(colour));
    root["ports"].push_back({{"port", port.port}, {"shows", std::move(colours)}});
  }
  root["universes"] = nlohmann::json::array();
  const std::scoped_lock lock(mutex_);
  for (const auto& [stream, universe] : universes_)
    root["universes"].push_back({{"protocol", stream.first},
                                 {"universe", stream.second},
                                 {"packets", universe.packets},
                                 {"lost", universe.lost},
                                 {"sequence", universe.sequence},
                                 {"terminated", universe.terminated},
                                 {"source", universe.source}});
  return root;
}

}  // namespace chispa::node
