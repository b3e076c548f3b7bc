// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/setuptransport.h"

#include <algorithm>
#include <map>

#include <nlohmann/json.hpp>

#include "link/artnetclient.h"
#include "link/nodehttp.h"

namespace chispa::link {
namespace {

class HttpDoor final : public SetupTransport {
 public:
  explicit HttpDoor(const Controller& controller) : controller_(controller) {}

  Result<std::vector<PortSettings>> read() override {
    const auto text = getFromNode(controller_, "/settings");
    if (!text) return text.failure();
    return parsePortSettings(*text, setupPlace(controller_));
  }

  Outcome write(const std::vector<PortSettings>& wanted) override {
    return putToNode(controller_, "/settings", toJson(wanted).dump());
  }

  bool replacesAll() const override { return true; }

 private:
  Controller controller_;
};

/// Reads by ArtPoll and writes by ArtAddress: four ports an order, of each its universe.
class ArtNetDoor final : public SetupTransport {
 public:
  explicit ArtNetDoor(const Controller& controller) : controller_(controller) {}

  Result<std::vector<PortSettings>> read() override {
    auto asker = ArtNetClient::open(controller_.host);
    if (!asker) return asker.failure();
    return portsOf((*asker)->poll());
  }

  Outcome write(const std::vector<PortSettings>& wanted) override {
    auto asker = ArtNetClient::open(controller_.host);
    if (!asker) return asker.failure();
    std::map<int, ArtAddress> orders;
    for (const PortSettings& port : wanted) {
      if (port.sections.empty()) continue;
      ArtAddress& order = orders[(port.port - 1) / kPortsOfReply + 1];
      order.bindIndex = (port.port - 1) / kPortsOfReply + 1;
      order.outputs[static_cast<std::size_t>((port.port - 1) % kPortsOfReply)] =
          port.sections.front().universe;
    }
    for (const auto& [index, order] : orders)
      if (const Outcome sent = (*asker)->order(order); !sent) return sent;
    return Done{};
  }

  std::vector<PortSettings> reachable(const std::vector<PortSettings>& wanted) const override {
    std::vector<PortSettings> reduced;
    for (const PortSettings& port : wanted)
      if (!port.sections.empty()) reduced.push_back(universeOnly(port.port, port.sections.front().universe));
    return reduced;
  }

 private:
  static constexpr int kPortsOfReply = 4;

  static PortSettings universeOnly(int port, int universe) {
    return {port, Protocol::ArtNet, {{0, "", 0, universe, 1}}};
  }

  Result<std::vector<PortSettings>> portsOf(const std::vector<ArtPollReply>& replies) const {
    if (replies.empty())
      return Failure{"The controller does not answer ArtPoll.",
                     controller_.name + " (" + controller_.host + ")",
                     "Check that it is switched on and speaks Art-Net, and its address."};
    std::vector<PortSettings> ports;
    for (const ArtPollReply& reply : replies)
      for (int i = 0; i < reply.ports; ++i)
        ports.push_back(universeOnly((std::max(1, reply.bindIndex) - 1) * kPortsOfReply + i + 1,
                                     reply.portAddresses[static_cast<std::size_t>(i)]));
    std::sort(ports.begin(), ports.end(),
              [](const PortSettings& a, const PortSettings& b) { return a.port < b.port; });
    return ports;
  }

  Controller controller_;
};

}  // namespace

Result<std::unique_ptr<SetupTransport>> openSetupTransport(const Controller& controller) {
  if (controller.setupPort != 0)
    return std::unique_ptr<SetupTransport>(std::make_unique<HttpDoor>(controller));
  if (controller.protocol == Protocol::ArtNet)
    return std::unique_ptr<SetupTransport>(std::make_unique<ArtNetDoor>(controller));
  return Failure{"The controller has no set-up interface.", controller.name,
                 "Enter its set-up port, or set it up with its own means."};
}

}  // namespace chispa::link
