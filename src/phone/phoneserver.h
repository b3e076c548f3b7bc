// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "core/base/result.h"
#include "core/render/liveevent.h"
#include "phone/videointake.h"

namespace httplib {
class Server;
struct Request;
struct Response;
}  // namespace httplib

namespace chispa::phone {

/// Something that was touched on a phone and is not light: for whoever holds the show.
struct Command {
  std::string what;
  std::uint32_t id = 0;
  double value = 0;
  std::string words;
};

/// Serves the phone page to phones that were paired, and to nobody else. A phone is paired by a random token
/// that stands in a QR code; from then on it has one of its own. All members are for any thread.
class PhoneServer {
 public:
  static constexpr int kPort = 8'470;
  /// Paired phones, and those that look at once.
  static constexpr std::size_t kMaxPhones = 8;

  struct Options {
    /// The chosen interface's own IPv4 address.
    std::string address = "127.0.0.1";
    /// 0 takes any that is free.
    int port = kPort;
    /// Where videos that phones send are kept; must be there.
    std::filesystem::path videoFolder = std::filesystem::temp_directory_path();
  };
  /// Called on threads of the server's, one at a time; must not wait.
  struct Host {
    std::function<void(const LiveEvent&)> play;
    std::function<void(const Command&)> ask;
    /// A phone has sent a video; the next one takes its place.
    std::function<void(const std::filesystem::path&)> video;
  };

  /// Fails if the port is taken or the address is not this machine's.
  static Result<std::unique_ptr<PhoneServer>> open(const Options& options, Host host);
  ~PhoneServer();

  int port() const { return port_; }
  /// The address of the page with the token that pairs a phone: what the QR code says.
  std::string pairingUrl() const;
  /// No phone is paired any more, and the code is another.
  void forgetPhones();
  /// Phones that look now.
  int phones() const { return looking_; }
  /// Requests of strangers, and of phones that ask too much, that were refused.
  std::uint64_t refused() const { return refused_; }

  /// What the page shows; sent to all phones when it is another than before.
  void show(std::string state);
  /// A picture under a name: "light", or "pad/" and a look's id.
  void setPicture(const std::string& name, std::string bytes, std::string type);

 private:
  using Instant = std::chrono::steady_clock::time_point;
  struct Paired {
    std::string token;
    /// Requests left, refilled as time passes.
    double left = 0;
    Instant refilled{};
    /// Looks that it holds, and when it was heard of last.
    std::vector<std::uint32_t> held = {};
    Instant heard{};
  };

  PhoneServer(Options options, Host host);
  void addRoutes();
  void servePage();
  bool isFromHere(const httplib::Request& request) const;
  /// The phone that asks, with one request taken from what it has left; null, with the answer set, if it is
  /// refused. With the mutex held.
  Paired* admitted(const httplib::Request& request, httplib::Response& answer);
  void pair(const httplib::Request& request, httplib::Response& answer);
  void obey(const httplib::Request& request, httplib::Response& answer);
  void takeVideo(const httplib::Request& request, httplib::Response& answer);
  void stream(const httplib::Request& request, httplib::Response& answer);
  void letGoOfTheLost();
  void release(Paired& phone, std::uint32_t look);

  Options options_;
  Host host_;
  VideoIntake videos_;
  int port_ = 0;
  std::unique_ptr<httplib::Server> server_;
  mutable std::mutex mutex_;
  std::condition_variable changed_;
  std::string pairingToken_;
  std::vector<Paired> paired_;
  /// Failed pairings left in this minute.
  int tries_ = 0;
  Instant triesSince_{};
  std::string state_ = "{}";
  std::uint64_t version_ = 1;
  struct Picture {
    std::string bytes;
    std::string type;
  };
  std::map<std::string, Picture> pictures_;
  std::atomic<int> looking_{0};
  std::atomic<std::uint64_t> refused_{0};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
  std::thread janitor_;
};

}  // namespace chispa::phone
