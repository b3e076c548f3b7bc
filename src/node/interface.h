// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <string>
#include <thread>

#include "node/node.h"

namespace httplib {
class Server;
struct Response;
}  // namespace httplib

namespace chispa::node {

/// The node interface over HTTP: a page at /, GET /state, GET and PUT /settings and /faults
/// (docs/node-interface.md).
class Interface {
 public:
  explicit Interface(Node& node);
  ~Interface();

  /// Begins to answer at `address`:`port`; false with the reason in `why` if it cannot.
  bool start(const std::string& address, int port, std::string& why);

 private:
  void addRoutes();
  void addMemoryRoutes();
  void takeSettings(const std::string& body, httplib::Response& answer);
  void takeMemory(const std::string& body, httplib::Response& answer);
  /// Reads the number `key` of a body; `take` says whether there is such a one.
  void takeNumber(const std::string& body, const char* key, httplib::Response& answer,
                  const std::function<bool(int)>& take);

  Node& node_;
  std::unique_ptr<httplib::Server> server_;
  std::thread thread_;
};

}  // namespace chispa::node
