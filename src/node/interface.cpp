// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/interface.h"

#include <httplib.h>

namespace chispa::node {

Interface::Interface(Node& node) : node_(node), server_(std::make_unique<httplib::Server>()) {
  constexpr std::size_t kMostBody = 1 << 20;
  server_->set_payload_max_length(kMostBody);
  addRoutes();
}

Interface::~Interface() {
  server_->stop();
  if (thread_.joinable()) thread_.join();
}

void Interface::addRoutes() {
  server_->Get("/state", [this](const httplib::Request&, httplib::Response& answer) {
    answer.set_content(node_.state().dump(), "application/json");
  });
  server_->Get("/settings", [this](const httplib::Request&, httplib::Response& answer) {
    answer.set_content(toJson(node_.settings()).dump(), "application/json");
  });
  server_->Put("/settings", [this](const httplib::Request& request, httplib::Response& answer) {
    std::string why;
    auto settings = parseSettings(request.body, node_.options().ports, why);
    if (!settings) {
      answer.status = 400;
      answer.set_content(why, "text/plain");
      return;
    }
    node_.setSettings(*std::move(settings));
    answer.set_content(toJson(node_.settings()).dump(), "application/json");
  });
}

bool Interface::start(const std::string& address, int port, std::string& why) {
  // Without this the library shares the port with whoever has it already.
  server_->set_socket_options([](auto) {});
  if (!server_->bind_to_port(address.c_str(), port)) {
    why = address + ":" + std::to_string(port) + ": cannot answer HTTP there. Another program may be using the port: " +
          "end that one, or choose another with --http.";
    return false;
  }
  thread_ = std::thread([this] { server_->listen_after_bind(); });
  return true;
}

}  // namespace chispa::node
