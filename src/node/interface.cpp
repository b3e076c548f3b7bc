// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/interface.h"

#include <algorithm>

#include <arpa/inet.h>
#include <httplib.h>

#include "node/page.h"

namespace chispa::node {

Interface::Interface(Node& node) : node_(node), server_(std::make_unique<httplib::Server>()) {
  // A memory's values come as two letters each.
  constexpr std::size_t kMaxBody = std::size_t{16} << 20;
  server_->set_payload_max_length(kMaxBody);
  addRoutes();
}

Interface::~Interface() {
  server_->stop();
  if (thread_.joinable()) thread_.join();
}

namespace {

template <class Json>
void answerJson(httplib::Response& answer, const Json& json) {
  answer.set_content(json.dump(-1, ' ', false, Json::error_handler_t::replace), "application/json");
}

/// A page of another place must not reach a node through a visitor's browser: by a name that leads here (the
/// Host is no name), or by a script of its own (the Origin is this host). Programs send no Origin.
bool isFromHere(const httplib::Request& request) {
  const std::string host = request.get_header_value("Host");
  const std::string name = host.substr(0, host.rfind(':'));
  in_addr numeric{};
  if (name != "localhost" && inet_pton(AF_INET, name.c_str(), &numeric) != 1) return false;
  return !request.has_header("Origin") || request.get_header_value("Origin") == "http://" + host;
}

void refuse(httplib::Response& answer, int status, const std::string& why) {
  answer.status = status;
  answer.set_content(why, "text/plain");
}

}  // namespace

void Interface::addRoutes() {
  server_->Get("/", [](const httplib::Request&, httplib::Response& answer) {
    answer.set_content(settingsPage(), "text/html; charset=utf-8");
  });
  server_->Get("/state", [this](const httplib::Request&, httplib::Response& answer) {
    answerJson(answer, node_.state());
  });
  server_->Get("/light", [this](const httplib::Request&, httplib::Response& answer) {
    answer.set_content(node_.light(), "application/octet-stream");
  });
  server_->Get("/settings", [this](const httplib::Request&, httplib::Response& answer) {
    answerJson(answer, toJson(node_.settings()));
  });
  server_->Put("/settings", [this](const httplib::Request& request, httplib::Response& answer) {
    takeSettings(request.body, answer);
  });
  server_->Get("/faults", [this](const httplib::Request&, httplib::Response& answer) {
    answerJson(answer, toJson(node_.faults()));
  });
  server_->Put("/faults", [this](const httplib::Request& request, httplib::Response& answer) {
    std::string why;
    const auto faults = parseFaults(request.body, why);
    if (!faults) return refuse(answer, 400, why);
    node_.setFaults(*faults);
    answerJson(answer, toJson(node_.faults()));
  });
  addMemoryRoutes();
  // A silent node lets a question hang, as one that is switched off does.
  server_->set_pre_routing_handler([this](const httplib::Request& request, httplib::Response& answer) {
    if (!isFromHere(request)) {
      refuse(answer, 403, "this page may be asked by its address only, and by itself");
      return httplib::Server::HandlerResponse::Handled;
    }
    if (!node_.isSilent() || request.path == "/faults") return httplib::Server::HandlerResponse::Unhandled;
    refuse(answer, 503, "silent");
    return httplib::Server::HandlerResponse::Handled;
  });
}

void Interface::addMemoryRoutes() {
  // Calls `answerIt` for nodes that have a memory.
  const auto withMemory = [this](auto answerIt) {
    return [this, answerIt](const httplib::Request& request, httplib::Response& answer) {
      if (!node_.hasMemory()) return refuse(answer, 404, "it has no memory of its own");
      answerIt(request, answer);
    };
  };
  server_->Get("/memory", withMemory([this](const httplib::Request&, httplib::Response& answer) {
                 answerJson(answer, node_.memory());
               }));
  server_->Put("/memory", withMemory([this](const httplib::Request& request, httplib::Response& answer) {
                 takeMemory(request.body, answer);
               }));
  server_->Put("/memory/play", withMemory([this](const httplib::Request& request, httplib::Response& answer) {
                 takeNumber(request.body, "scene", answer, [this](int scene) {
                   node_.playScene(scene);
                   return true;
                 });
               }));
  server_->Put("/memory/contact",
               withMemory([this](const httplib::Request& request, httplib::Response& answer) {
                 takeNumber(request.body, "contact", answer,
                            [this](int contact) { return node_.pressContact(contact); });
               }));
  server_->Put("/clock", withMemory([this](const httplib::Request& request, httplib::Response& answer) {
                 const auto json = nlohmann::json::parse(request.body, nullptr, false);
                 const auto utc = json.is_object() && json.contains("utc") && json["utc"].is_string()
                                      ? parseUtc(json["utc"].get<std::string>())
                                      : std::nullopt;
                 if (!utc) return refuse(answer, 400, "utc is no instant as 2026-12-24T16:30:00Z");
                 node_.setClock(*utc);
                 answerJson(answer, node_.memory()["clock"]);
               }));
}

void Interface::takeNumber(const std::string& body, const char* key, httplib::Response& answer,
                           const std::function<bool(int)>& take) {
  const auto json = nlohmann::json::parse(body, nullptr, false);
  constexpr int kMax = 1000;
  const bool isNumber = json.is_object() && json.contains(key) && json[key].is_number_integer();
  const double number = isNumber ? json[key].get<double>() : -1;
  if (!(number >= 0 && number <= kMax)) return refuse(answer, 400, std::string(key) + " is no number of one");
  if (!take(static_cast<int>(number)))
    return refuse(answer, 404, std::string("nothing is started by this ") + key);
  answerJson(answer, nlohmann::ordered_json{{"playing", node_.memory()["playing"]}});
}

void Interface::takeMemory(const std::string& body, httplib::Response& answer) {
  const Faults faults = node_.faults();
  if (faults.refusesPush) return refuse(answer, 403, "it takes nothing into its memory now");
  std::string why;
  auto content = parseContent(body, *node_.options().memory, why);
  if (!content) return refuse(answer, 400, why);
  switch (node_.fillMemory(*std::move(content))) {
    case Node::Filled::Taken:
      return answerJson(answer, node_.memory());
    case Node::Filled::MemoryFailed:
      return refuse(answer, 507,
                    "memory was full after scene " + std::to_string(faults.memoryFailsAfterScene) +
                        "; it keeps what it had");
    case Node::Filled::PowerFailed:
      return refuse(answer, 503, "silent");
  }
}

void Interface::takeSettings(const std::string& body, httplib::Response& answer) {
  std::string why;
  auto wanted = parseSettings(body, node_.options().ports, why);
  if (!wanted) return refuse(answer, 400, why);
  const Faults faults = node_.faults();
  if (faults.refusesPush) return refuse(answer, 403, "it does not take settings now");
  if (faults.failsAfterPort > 0) {
    // Memory fails in the middle: the first ports are written, the rest is as it was.
    auto mixed = node_.settings();
    std::erase_if(mixed, [&](const PortSetup& p) { return p.port <= faults.failsAfterPort; });
    for (const PortSetup& port : *wanted)
      if (port.port <= faults.failsAfterPort) mixed.push_back(port);
    std::sort(mixed.begin(), mixed.end(),
              [](const PortSetup& a, const PortSetup& b) { return a.port < b.port; });
    node_.setSettings(std::move(mixed));
    return refuse(answer, 500, "memory failed after port " + std::to_string(faults.failsAfterPort));
  }
  node_.setSettings(*std::move(wanted));
  answerJson(answer, toJson(node_.settings()));
}

bool Interface::start(const std::string& address, int port, std::string& why) {
  // By itself the library shares the port with whoever has it already; a node that is started again may have
  // it at once.
  server_->set_socket_options([](auto socket) {
    constexpr int kOn = 1;
    ::setsockopt(socket, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
  });
  if (!server_->bind_to_port(address.c_str(), port)) {
    why = address + ":" + std::to_string(port) +
          ": cannot answer HTTP there. Another program may be using the port: " +
          "end that one, or choose another with --http.";
    return false;
  }
  thread_ = std::thread([this] { server_->listen_after_bind(); });
  return true;
}

}  // namespace chispa::node
