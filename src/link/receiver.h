// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <thread>
#include <tuple>

#include <netinet/in.h>

#include "core/show/controller.h"
#include "link/merge.h"
#include "link/opc.h"
#include "link/udp.h"

namespace chispa::link {

/// A universe as it arrives, merged.
struct ReceivedUniverse {
  Protocol protocol = Protocol::E131;
  /// By the protocol's own number; of a row, the block of 512 bytes, from 0.
  int universe = 0;
  std::array<std::uint8_t, 512> values{};
  std::vector<UniverseMerge::Source> sources;
};

/// Listens to what others send: E1.31 (unicast, and the groups asked for), Art-Net, DDP and Open Pixel
/// Control; merges sources, obeys sync packets, and answers ArtPoll and DDP queries. A thread of its own; all
/// members are thread-safe.
class Receiver {
 public:
  struct Options {
    /// The interface's own IPv4 address, or 0.0.0.0 for all.
    std::string address = "127.0.0.1";
    /// E1.31 universes whose multicast groups are joined.
    std::vector<int> groups;
    MergeRule rule = MergeRule::HighestWins;
    /// Ports by protocol; 0 does not listen to it.
    int e131Port = 5568;
    int artNetPort = 6454;
    int ddpPort = 4048;
    int opcPort = 7890;
    std::string name = "Chispa";
    /// Told of each universe whenever it was heard, with its merged values, or null once nobody sends it any
    /// more. On the receiver's thread; must not wait.
    std::function<void(Protocol, int universe, const std::array<std::uint8_t, 512>* values)> changed = {};
  };

  /// Fails if a port is taken or the address is not this machine's.
  static Result<std::unique_ptr<Receiver>> open(Options options);
  ~Receiver();
  Receiver(const Receiver&) = delete;
  Receiver& operator=(const Receiver&) = delete;

  /// Everything that is heard now, by protocol and number. Silent sources are left out.
  std::vector<ReceivedUniverse> heard() const;
  /// Packets that were none of these, and were thrown away.
  std::uint64_t unreadable() const;

 private:
  explicit Receiver(Options options) : options_(std::move(options)) {}
  struct ListenSocket {
    int fd = -1;
    Protocol protocol = Protocol::E131;
    bool isStream = false;
    bool isListening = false;
    OpcReader opc = {};
    std::string peer = {};
  };
  /// A packet that waits for its sync.
  struct Waiting {
    int syncUniverse = 0;
    Protocol protocol = Protocol::E131;
    int universe = 0;
    std::string source;
    std::string name;
    int priority = 100;
    std::uint8_t sequence = 0;
    std::vector<std::uint8_t> values;
    UniverseMerge::Instant since{0};
  };
  /// Whose word frees what: a protocol, the sync universe, and the source. A sync of another source is none.
  using SyncKey = std::tuple<Protocol, int, std::string>;

  Outcome openSockets();
  /// The socket's descriptor, which is closed with all others.
  Result<int> openSocket(Protocol protocol, int port, int kind, in_addr place);
  Outcome joinGroup(int universe, in_addr interface);
  void run();
  void hear(ListenSocket& socket);
  void hearStream(ListenSocket& socket);
  void acceptClient(const ListenSocket& socket);
  void take(const ListenSocket& socket, std::span<const std::uint8_t> packet, Endpoint from);
  void takeE131(std::span<const std::uint8_t> packet);
  void takeArtNet(const ListenSocket& socket, std::span<const std::uint8_t> packet, Endpoint from);
  void takeDdp(std::span<const std::uint8_t> packet, Endpoint from);
  void takeRow(Protocol protocol, const std::string& source, std::size_t offset,
               std::span<const std::uint8_t> bytes);
  void offer(Protocol protocol, int universe, const Arrival& arrival);
  bool waitsForSync(const SyncKey& key, UniverseMerge::Instant longest) const;
  void holdBack(Waiting packet);
  void release(const SyncKey& key);
  UniverseMerge& mergeOf(Protocol protocol, int universe);

  Options options_;
  std::vector<ListenSocket> sockets_;
  mutable std::mutex mutex_;
  std::map<std::pair<Protocol, int>, UniverseMerge> universes_;
  std::vector<Waiting> waiting_;
  /// When each sync universe was last heard; data waits only for one that comes.
  std::map<SyncKey, UniverseMerge::Instant> synced_;
  std::uint64_t unreadable_ = 0;
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::link
