// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/setup.h"

#include <httplib.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/files/names.h"

namespace chispa::link {
namespace {

std::string placeOf(const Controller& controller) {
  return controller.name + " (" + controller.host + ":" + std::to_string(controller.setupPort) + ")";
}

httplib::Client clientOf(const Controller& controller) {
  httplib::Client client(controller.host, controller.setupPort);
  client.set_connection_timeout(2);
  client.set_read_timeout(3);
  return client;
}

Failure noAnswer(const Controller& controller, const std::string& why) {
  return {"The controller does not answer its set-up interface (" + why + ").", placeOf(controller),
          "Check that it is switched on, its address, and its set-up port."};
}

Result<std::string> get(const Controller& controller, const std::string& path) {
  if (controller.setupPort == 0)
    return Failure{"The controller has no set-up interface.", controller.name,
                   "Enter its set-up port, or set it up with its own means."};
  const auto answer = clientOf(controller).Get(path);
  if (!answer) return noAnswer(controller, httplib::to_string(answer.error()));
  if (answer->status != 200) return noAnswer(controller, "HTTP " + std::to_string(answer->status));
  return answer->body;
}

std::string sectionText(Protocol protocol, const PortSection& s) {
  return std::to_string(s.pixels) + " px " + s.order + (s.bits == 16 ? " 16 bit" : "") + " from " + addressText(protocol, s.universe, s.channel) +
         (s.grouping > 1 ? ", " + std::to_string(s.grouping) + " a value" : "") +
         (s.skippedBefore > 0 ? ", " + std::to_string(s.skippedBefore) + " skipped" : "");
}

std::string portText(const PortSettings* port) {
  if (!port || port->sections.empty()) return "nothing";
  std::string text(nameOf(port->protocol));
  for (const PortSection& section : port->sections) text += " · " + sectionText(port->protocol, section);
  if (port->isPacked) text += " · packed";
  return text;
}

const PortSettings* settingsOf(const std::vector<PortSettings>& all, int port) {
  const auto found = std::find_if(all.begin(), all.end(), [port](const auto& s) { return s.port == port; });
  return found == all.end() ? nullptr : &*found;
}

std::vector<SettingDifference> differences(const std::vector<PortSettings>& there,
                                           const std::vector<PortSettings>& wanted) {
  std::vector<SettingDifference> found;
  for (const PortSettings& want : wanted) {
    const PortSettings* has = settingsOf(there, want.port);
    const bool bothEmpty = want.sections.empty() && (!has || has->sections.empty());
    if (bothEmpty || (has && *has == want)) continue;
    found.push_back({"port " + std::to_string(want.port), portText(has), portText(&want)});
  }
  return found;
}

}  // namespace

Result<SetupReport> compareSetup(const Controller& controller, const std::vector<PortSettings>& wanted) {
  const auto text = get(controller, "/settings");
  if (!text) return text.failure();
  const auto there = parsePortSettings(*text, placeOf(controller));
  if (!there) return there.failure();
  SetupReport report;
  report.differences = differences(*there, wanted);
  report.verified = report.differences.empty();
  return report;
}

Result<SetupReport> pushSetup(const Controller& controller, const std::vector<PortSettings>& wanted) {
  auto before = compareSetup(controller, wanted);
  if (!before) return before;
  SetupReport report = *std::move(before);
  if (report.verified) return report;
  const auto answer = clientOf(controller).Put("/settings", toJson(wanted).dump(), "application/json");
  if (!answer) return noAnswer(controller, httplib::to_string(answer.error()));
  if (answer->status != 200)
    return Failure{"The controller refused the settings: " + answer->body, placeOf(controller),
                   "Compare its ports and limits with the wiring."};
  const auto after = compareSetup(controller, wanted);
  if (!after) return after;
  report.verified = after->verified;
  return report;
}

Result<std::string> readNodeState(const Controller& controller) { return get(controller, "/state"); }

}  // namespace chispa::link
