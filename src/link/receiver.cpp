// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/receiver.h"

#include <algorithm>
#include <cerrno>
#include <cstring>

#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/artnet.h"
#include "link/ddp.h"
#include "link/e131.h"
#include "link/socketaddress.h"

namespace chispa::link {
namespace {

using Instant = UniverseMerge::Instant;

constexpr int kMaxClients = 16;
/// Memory is bounded whatever is sent: a network of 63,999 full universes is none that exists.
constexpr std::size_t kMaxUniverses = 4096;

/// Art-Net 4, "ArtSync": a node that hears none for so long shows data at once again.
constexpr std::chrono::seconds kArtSyncLasts{4};
constexpr std::chrono::seconds kLongestWait = kArtSyncLasts;

Instant nowIs() {
  return std::chrono::steady_clock::now().time_since_epoch();
}

std::string textOf(const Cid& cid) {
  constexpr char kDigits[] = "0123456789abcdef";
  std::string text;
  for (const std::uint8_t byte : cid) text += {kDigits[byte >> 4], kDigits[byte & 15]};
  return text;
}

Failure cannotListen(const std::string& address, int port) {
  return {sentence("Nothing can be heard there (%1).", std::strerror(errno)),
          address + ":" + std::to_string(port),
          "Another program may be listening there: end it, or choose another interface."};
}

}  // namespace

Result<std::unique_ptr<Receiver>> Receiver::open(Options options) {
  std::unique_ptr<Receiver> receiver(new Receiver(std::move(options)));
  if (const Outcome opened = receiver->openSockets(); !opened) return opened.failure();
  receiver->thread_ = std::thread([raw = receiver.get()] { raw->run(); });
  return receiver;
}

Receiver::~Receiver() {
  stopping_ = true;
  if (thread_.joinable()) thread_.join();
  for (const ListenSocket& socket : sockets_) ::close(socket.fd);
}

Outcome Receiver::openSockets() {
  const std::tuple<Protocol, int, int> wanted[] = {{Protocol::E131, options_.e131Port, SOCK_DGRAM},
                                                   {Protocol::ArtNet, options_.artNetPort, SOCK_DGRAM},
                                                   {Protocol::Ddp, options_.ddpPort, SOCK_DGRAM},
                                                   {Protocol::Opc, options_.opcPort, SOCK_STREAM}};
  in_addr own{};
  if (inet_pton(AF_INET, options_.address.c_str(), &own) != 1)
    return Failure{"This is no IPv4 address.", options_.address, "Enter one of this machine's."};
  for (const auto& [protocol, port, kind] : wanted)
    if (port != 0)
      if (const auto opened = openSocket(protocol, port, kind, own); !opened) return opened.failure();
  if (options_.e131Port == 0) return Done{};
  for (const int universe : options_.groups)
    if (const Outcome joined = joinGroup(universe, own); !joined) return joined;
  return Done{};
}

Outcome Receiver::joinGroup(int universe, in_addr interface) {
  ip_mreq join{};
  join.imr_multiaddr.s_addr = htonl(e131Group(universe, 0).address);
  join.imr_interface = interface;
  // A socket a group, bound to it: one for all would take the port of every address of this machine, nodes'
  // and other programs' among them.
  const auto socket = openSocket(Protocol::E131, options_.e131Port, SOCK_DGRAM, join.imr_multiaddr);
  if (!socket) return socket.failure();
  if (::setsockopt(*socket, IPPROTO_IP, IP_ADD_MEMBERSHIP, &join, sizeof join) != 0)
    return cannotListen(options_.address, options_.e131Port);
  return Done{};
}

Result<int> Receiver::openSocket(Protocol protocol, int port, int kind, in_addr place) {
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(static_cast<std::uint16_t>(port));
  own.sin_addr = place;
  const ListenSocket socket{::socket(AF_INET, kind | SOCK_NONBLOCK | SOCK_CLOEXEC, 0), protocol,
                            kind == SOCK_STREAM, kind == SOCK_STREAM};
  sockets_.push_back(socket);
  constexpr int kOn = 1;
  constexpr int kBuffer = 4 << 20;
  ::setsockopt(socket.fd, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
  ::setsockopt(socket.fd, SOL_SOCKET, SO_RCVBUF, &kBuffer, sizeof kBuffer);
  if (::bind(socket.fd, reinterpret_cast<const sockaddr*>(&own), sizeof own) != 0 ||
      (socket.isStream && ::listen(socket.fd, kMaxClients) != 0))
    return cannotListen(options_.address, port);
  return socket.fd;
}

void Receiver::run() {
  constexpr int kWait_ms = 50;
  while (!stopping_) {
    std::vector<pollfd> waiting;
    for (const ListenSocket& socket : sockets_) waiting.push_back({socket.fd, POLLIN, 0});
    if (::poll(waiting.data(), waiting.size(), kWait_ms) > 0)
      for (std::size_t i = 0; i < waiting.size(); ++i) {
        if (!(waiting[i].revents & (POLLIN | POLLHUP | POLLERR))) continue;
        ListenSocket& socket = sockets_[i];
        if (socket.isListening)
          acceptClient(ListenSocket(socket));
        else if (socket.isStream)
          hearStream(socket);
        else
          hear(socket);
      }
    std::erase_if(sockets_, [](const ListenSocket& socket) { return socket.fd < 0; });
    const std::scoped_lock lock(mutex_);
    const Instant now = nowIs();
    for (auto& [key, merge] : universes_) {
      if (!merge.expire(now) || !options_.changed) continue;
      options_.changed(key.first, key.second, merge.sources().empty() ? nullptr : &merge.values());
    }
    // The word for it never came: it is too old to be shown.
    std::erase_if(waiting_, [now](const Waiting& w) { return now - w.since >= kLongestWait; });
    std::erase_if(synced_, [now](const auto& entry) { return now - entry.second >= kLongestWait; });
    std::erase_if(universes_, [](const auto& entry) { return entry.second.sources().empty(); });
  }
}

void Receiver::hear(ListenSocket& socket) {
  std::array<std::uint8_t, 2048> buffer;
  sockaddr_in from{};
  for (int packets = 0; packets < 512; ++packets) {
    socklen_t size = sizeof from;
    const ssize_t count =
        ::recvfrom(socket.fd, buffer.data(), buffer.size(), 0, reinterpret_cast<sockaddr*>(&from), &size);
    if (count < 0) return;
    const std::scoped_lock lock(mutex_);
    take(socket, std::span(buffer).first(static_cast<std::size_t>(count)), endpointOf(from));
  }
}

void Receiver::acceptClient(const ListenSocket& socket) {
  sockaddr_in from{};
  socklen_t size = sizeof from;
  const int fd =
      ::accept4(socket.fd, reinterpret_cast<sockaddr*>(&from), &size, SOCK_NONBLOCK | SOCK_CLOEXEC);
  if (fd < 0) return;
  if (std::count_if(sockets_.begin(), sockets_.end(), [](const ListenSocket& d) { return d.isStream; }) >
      kMaxClients) {
    ::close(fd);
    return;
  }
  ListenSocket client{fd, Protocol::Opc, true, false};
  client.peer = endpointOf(from).text();
  sockets_.push_back(std::move(client));
}

void Receiver::hearStream(ListenSocket& socket) {
  std::array<std::uint8_t, 65'536> buffer;
  const ssize_t count = ::recv(socket.fd, buffer.data(), buffer.size(), 0);
  if (count < 0 && (errno == EAGAIN || errno == EINTR)) return;
  if (count <= 0) {
    ::close(socket.fd);
    socket.fd = -1;
    return;
  }
  const std::scoped_lock lock(mutex_);
  socket.opc.feed(std::span(buffer).first(static_cast<std::size_t>(count)),
                  [&](const OpcReader::Message& message) {
                    const bool isColours = message.command == static_cast<std::uint8_t>(OpcCommand::Set8) ||
                                           message.command == static_cast<std::uint8_t>(OpcCommand::Set16);
                    if (isColours)
                      takeRow(Protocol::Opc, socket.peer, 0, message.data);
                    else
                      ++unreadable_;
                  });
}

void Receiver::take(const ListenSocket& socket, std::span<const std::uint8_t> packet, Endpoint from) {
  switch (socket.protocol) {
    case Protocol::E131:
      return takeE131(packet);
    case Protocol::ArtNet:
      return takeArtNet(socket, packet, from);
    case Protocol::Ddp:
      return takeDdp(packet, from);
    case Protocol::Opc:
    case Protocol::SerialDmx:
    case Protocol::Screen:
      // Streams are cut into messages in hearStream(); the others bring no packets.
      break;
  }
}

void Receiver::takeE131(std::span<const std::uint8_t> packet) {
  if (const auto sync = readE131Sync(packet))
    return release({Protocol::E131, sync->universe, textOf(sync->cid)});
  if (readE131Discovery(packet)) return;
  const auto data = readE131Data(packet);
  if (!data) {
    ++unreadable_;
    return;
  }
  // Previews are not for the stage (§6.2.6).
  if (data->isPreview) return;
  const Arrival arrival{textOf(data->cid),
                        data->name,
                        data->priority,
                        data->sequence,
                        data->isTerminated,
                        data->values,
                        data->startCode == kE131PrioritiesCode};
  const bool waits = data->syncUniverse != 0 && !data->isTerminated && !arrival.isPriorities &&
                     waitsForSync({Protocol::E131, data->syncUniverse, arrival.source}, kE131Merge.timeOut);
  if (!waits) return offer(Protocol::E131, data->universe, arrival);
  holdBack({data->syncUniverse,
            Protocol::E131,
            data->universe,
            arrival.source,
            arrival.name,
            arrival.priority,
            arrival.sequence,
            {data->values.begin(), data->values.end()},
            nowIs()});
}

bool Receiver::waitsForSync(const SyncKey& key, Instant longest) const {
  const auto synced = synced_.find(key);
  return synced != synced_.end() && nowIs() - synced->second < longest;
}

/// A newer packet replaces one that still waits.
void Receiver::holdBack(Waiting packet) {
  std::erase_if(waiting_, [&](const Waiting& w) {
    return w.protocol == packet.protocol && w.universe == packet.universe && w.source == packet.source;
  });
  if (waiting_.size() < kMaxUniverses) waiting_.push_back(std::move(packet));
}

void Receiver::takeArtNet(const ListenSocket& socket, std::span<const std::uint8_t> packet, Endpoint from) {
  if (const auto data = readArtDmx(packet)) {
    const std::string source = hostText(from.address);
    // Where two sources are merged, sync packets do not count (Art-Net 4, "ArtSync").
    const auto known = universes_.find({Protocol::ArtNet, data->portAddress});
    const bool isAlone = known == universes_.end() || known->second.sources().empty() ||
                         (known->second.sources().size() == 1 && known->second.sources()[0].id == source);
    if (isAlone && waitsForSync({Protocol::ArtNet, 0, source}, kArtSyncLasts))
      return holdBack({0,
                       Protocol::ArtNet,
                       data->portAddress,
                       source,
                       source,
                       100,
                       data->sequence,
                       {data->values.begin(), data->values.end()},
                       nowIs()});
    return offer(Protocol::ArtNet, data->portAddress,
                 {source, source, 100, data->sequence, false, data->values});
  }
  if (isArtSync(packet)) return release({Protocol::ArtNet, 0, hostText(from.address)});
  if (!isArtPoll(packet)) {
    if (!readArtPollReply(packet)) ++unreadable_;
    return;
  }
  std::array<std::uint8_t, kArtPollReplyPacketSize> reply;
  in_addr own{};
  inet_pton(AF_INET, options_.address.c_str(), &own);
  std::array<std::uint8_t, 4> address;
  std::memcpy(address.data(), &own, address.size());
  writeArtPollReply(reply, address, options_.name);
  const sockaddr_in to = socketAddress(from);
  // Whoever asked and is gone by now asks again.
  [[maybe_unused]] const auto sent =
      ::sendto(socket.fd, reply.data(), reply.size(), 0, reinterpret_cast<const sockaddr*>(&to), sizeof to);
}

void Receiver::takeDdp(std::span<const std::uint8_t> packet, Endpoint from) {
  const auto piece = readDdpData(packet);
  if (!piece) {
    ++unreadable_;
    return;
  }
  takeRow(Protocol::Ddp, hostText(from.address), piece->offset, piece->data);
}

void Receiver::takeRow(Protocol protocol, const std::string& source, std::size_t offset,
                       std::span<const std::uint8_t> bytes) {
  while (!bytes.empty()) {
    const std::size_t block = offset / 512;
    const std::size_t into = offset % 512;
    const std::size_t here = std::min(bytes.size(), 512 - into);
    // A piece changes its own bytes of what the source has said before.
    std::array<std::uint8_t, 512> values{};
    if (const auto merge = universes_.find({protocol, static_cast<int>(block)}); merge != universes_.end())
      for (const auto& known : merge->second.sources())
        if (known.id == source) values = known.values;
    std::copy_n(bytes.begin(), here, values.begin() + static_cast<std::ptrdiff_t>(into));
    offer(protocol, static_cast<int>(block), {source, source, 100, 0, false, values});
    bytes = bytes.subspan(here);
    offset += here;
  }
}

UniverseMerge& Receiver::mergeOf(Protocol protocol, int universe) {
  return universes_
      .try_emplace({protocol, universe}, protocol == Protocol::E131 ? kE131Merge : kArtNetMerge,
                   options_.rule)
      .first->second;
}

void Receiver::offer(Protocol protocol, int universe, const Arrival& arrival) {
  if (universes_.size() >= kMaxUniverses && !universes_.contains({protocol, universe})) return;
  UniverseMerge& merge = mergeOf(protocol, universe);
  if (merge.accept(arrival, nowIs()) && options_.changed)
    options_.changed(protocol, universe, merge.sources().empty() ? nullptr : &merge.values());
}

void Receiver::release(const SyncKey& key) {
  if (synced_.size() < kMaxUniverses || synced_.contains(key)) synced_[key] = nowIs();
  std::erase_if(waiting_, [&](const Waiting& w) {
    if (SyncKey(w.protocol, w.syncUniverse, w.source) != key) return false;
    offer(w.protocol, w.universe, {w.source, w.name, w.priority, w.sequence, false, w.values});
    return true;
  });
}

std::vector<ReceivedUniverse> Receiver::heard() const {
  const std::scoped_lock lock(mutex_);
  std::vector<ReceivedUniverse> all;
  for (const auto& [key, merge] : universes_)
    all.push_back({key.first, key.second, merge.values(), merge.sources()});
  return all;
}

std::uint64_t Receiver::unreadable() const {
  const std::scoped_lock lock(mutex_);
  return unreadable_;
}

}  // namespace chispa::link
