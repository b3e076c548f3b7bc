// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <cstdio>
#include <functional>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <thread>
#include <vector>

#include <netinet/in.h>

#include "node/decode.h"
#include "node/faults.h"
#include "node/memory.h"
#include "node/settings.h"
#include "node/strip.h"
#include "node/universes.h"

namespace chispa::node {

/// How a node is started.
struct NodeOptions {
  std::string name = "Node";
  int ports = 8;
  std::string listen = "127.0.0.1";
  /// Every packet received is appended to this file, if named: protocol, universe, sequence, flags, values.
  std::string recordFile;
  /// E1.31 universes whose multicast groups are joined, on the interface of `listen`.
  std::vector<int> groups = {};
  /// Nothing for a node without a memory of its own.
  std::optional<MemoryLimits> memory = MemoryLimits{};
  /// What its clock shows when it starts; nothing if nobody has set it.
  std::optional<UtcMillis> clock = {};
  /// Seconds of its clock in one.
  double clockSpeed = 1;
};

/// A simulated controller: listens, decodes, and shows what each port's strip would show. Thread-safe.
class Node {
 public:
  explicit Node(NodeOptions options);
  ~Node();
  Node(const Node&) = delete;
  Node& operator=(const Node&) = delete;

  /// Opens its sockets and begins to listen; false with the reason and the cure in `why` if it cannot.
  bool start(std::string& why);

  const NodeOptions& options() const { return options_; }
  std::string name() const;
  std::vector<PortSetup> settings() const;
  void setSettings(std::vector<PortSetup> ports);
  Faults faults() const;
  void setFaults(const Faults& faults);
  /// True while a fault keeps it from hearing and answering.
  bool isSilent() const;

  /// What became of content that was put into the memory.
  enum class Filled { Taken, MemoryFailed, PowerFailed };
  bool hasMemory() const { return options_.memory.has_value(); }
  /// What GET /memory answers; only with a memory, as all of these.
  nlohmann::ordered_json memory();
  Filled fillMemory(Content content);
  void setClock(UtcMillis utc);
  void playScene(int scene);
  /// False if no scene is started by this contact.
  bool pressContact(int contact);
  /// Names of the scenes, in order.
  std::vector<std::string> sceneNames() const;
  /// The scene that the memory shows, from 1; 0 for none, or while data comes in.
  int shownScene() const;

  /// Colours of every pixel of a port in chain order, skipped ones included (dark).
  std::vector<Shown> shown(const PortSetup& port) const;
  /// Colours of all ports in bytes: what GET /light answers.
  std::string light() const;
  /// All of it as JSON: what GET /state answers.
  nlohmann::json state() const;

 private:
  /// Of a clock that never jumps.
  static std::int64_t now_ms();
  /// Where packets come in.
  enum Door { kE131, kArtNet, kDdp, kOpc, kDoors };

  /// Takes note that data came in: the memory steps back.
  void hear() { heardAt_ = std::chrono::steady_clock::now(); }
  bool showsMemory() const;
  bool openSocket(Door door, int kind, std::string& why);
  bool joinGroups(std::string& why) const;
  void listen();
  void receive(Door door);
  void acceptOpc();
  void hearOpc();
  void take(const Incoming& packet);
  void takeArtNet(const Incoming& packet);
  void takeDdp(const Incoming& packet);
  void obey(const ArtAddressOrder& order);
  void answer(const Incoming& asked, std::span<const std::uint8_t> reply) const;
  std::vector<int> portAddresses() const;
  std::array<std::uint8_t, 4> ownAddress() const;
  void record(const std::string& protocol, const DataPacket& packet);
  /// Writes all pages of a row down, as they are when a frame is whole.
  void recordRow(const std::string& protocol);

  NodeOptions options_;
  mutable std::mutex mutex_;
  std::vector<PortSetup> ports_;
  Universes universes_;
  std::optional<Memory> memory_;
  std::optional<std::chrono::steady_clock::time_point> heardAt_;
  FaultyCable cable_;
  std::array<int, kDoors> sockets_{-1, -1, -1, -1};
  /// An Open Pixel Control client, and what of its stream is no whole message yet.
  struct OpcClient {
    int fd = -1;
    std::vector<std::uint8_t> held = {};
  };
  std::vector<OpcClient> opcClients_;
  std::FILE* recordFile_ = nullptr;
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::node
