// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <netinet/in.h>

#include <atomic>
#include <cstdio>
#include <functional>
#include <map>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "node/decode.h"
#include "node/settings.h"

namespace chispa::node {

/// How a node is started.
struct NodeOptions {
  std::string name = "Node";
  int ports = 8;
  std::string listen = "127.0.0.1";
  /// Every packet received is appended to this file, if named: protocol, universe, sequence, flags, values.
  std::string recordFile;
};

/// A colour as the LED shows it, its white chip added to the three others.
struct Shown {
  int r = 0;
  int g = 0;
  int b = 0;
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
  std::vector<PortSetup> settings() const;
  void setSettings(std::vector<PortSetup> ports);

  /// Colours of every pixel of a port in chain order, skipped ones included (dark).
  std::vector<Shown> shown(const PortSetup& port) const;
  /// All of it as JSON: what GET /state answers.
  nlohmann::json state() const;

 private:
  /// "e131", "artnet" or "ddp", and the number of the universe or page.
  using Stream = std::pair<std::string, int>;
  struct Universe {
    std::array<std::uint8_t, 512> values{};
    std::uint64_t packets = 0;
    std::uint64_t lost = 0;
    std::uint8_t sequence = 0;
    bool terminated = false;
    std::string source;
  };

  bool openSocket(int port, int& fd, std::string& why) const;
  void listen();
  void receive(int fd, const std::function<void(std::span<const std::uint8_t>)>& take);
  void accept(const DdpPiece& piece);
  /// Takes data, and answers polls.
  void acceptArtNet(std::span<const std::uint8_t> bytes);
  void accept(const std::string& protocol, const DataPacket& packet);
  void record(const std::string& protocol, const DataPacket& packet);

  NodeOptions options_;
  mutable std::mutex mutex_;
  std::vector<PortSetup> ports_;
  std::map<Stream, Universe> universes_;
  int e131Socket_ = -1;
  int artNetSocket_ = -1;
  int ddpSocket_ = -1;
  /// Who sent the packet that is being looked at.
  sockaddr_in asker_{};
  std::FILE* recordFile_ = nullptr;
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::node
