// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/nodehttp.h"

#include <httplib.h>

namespace chispa::link {
namespace {

httplib::Client clientOf(const Controller& controller) {
  httplib::Client client(controller.host, controller.setupPort);
  client.set_connection_timeout(2);
  client.set_read_timeout(3);
  return client;
}

Failure noAnswer(const Controller& controller, const std::string& why) {
  return {sentence("The controller does not answer its set-up interface (%1).", why), setupPlace(controller),
          "Check that it is switched on, its address, and its set-up port."};
}

}  // namespace

std::string setupPlace(const Controller& controller) {
  return controller.name + " (" + controller.host + ":" + std::to_string(controller.setupPort) + ")";
}

Result<NodeAnswer> askNode(const Controller& controller, const std::string& path) {
  // What is no controller may answer without end.
  constexpr std::size_t kMaxBody = std::size_t{32} << 20;
  std::string body;
  const auto answer = clientOf(controller).Get(path, [&](const char* data, std::size_t size) {
    if (body.size() + size > kMaxBody) return false;
    body.append(data, size);
    return true;
  });
  if (!answer) return noAnswer(controller, httplib::to_string(answer.error()));
  return NodeAnswer{answer->status, std::move(body)};
}

Result<NodeAnswer> tellNode(const Controller& controller, const std::string& path, const std::string& json,
                            int patience_s) {
  auto client = clientOf(controller);
  client.set_read_timeout(patience_s);
  const auto answer = client.Put(path, json, "application/json");
  if (!answer) return noAnswer(controller, httplib::to_string(answer.error()));
  return NodeAnswer{answer->status, answer->body};
}

Result<std::string> getFromNode(const Controller& controller, const std::string& path) {
  auto answer = askNode(controller, path);
  if (!answer) return answer.failure();
  if (answer->status != 200) return noAnswer(controller, "HTTP " + std::to_string(answer->status));
  return (*std::move(answer)).body;
}

Outcome putToNode(const Controller& controller, const std::string& path, const std::string& json) {
  constexpr int kPatience_s = 3;
  const auto answer = tellNode(controller, path, json, kPatience_s);
  if (!answer) return answer.failure();
  if (answer->status != 200)
    return Failure{sentence("The controller refused the settings: %1.", answer->body), setupPlace(controller),
                   "Compare its ports and limits with the wiring."};
  return Done{};
}

}  // namespace chispa::link
