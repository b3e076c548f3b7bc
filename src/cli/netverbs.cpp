// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>
#include <thread>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/files/names.h"
#include "link/finder.h"
#include "link/receiver.h"

namespace chispa::cli {
namespace {

const char* howText(link::FoundBy by) {
  switch (by) {
    case link::FoundBy::ArtPoll:
      return "Art-Net node";
    case link::FoundBy::UniverseDiscovery:
      return "E1.31 source";
    case link::FoundBy::DdpStatus:
      return "DDP display";
  }
  return "";
}

std::vector<link::Interface> interfacesFor(const std::string& address) {
  std::vector<link::Interface> chosen;
  for (const link::Interface& one : link::localInterfaces())
    if (address.empty() ? !one.broadcast.empty() : one.address == address) chosen.push_back(one);
  // Any address of 127/8 is this machine's.
  if (chosen.empty() && address.starts_with("127.")) chosen.push_back({"lo", address, {}});
  return chosen;
}

}  // namespace

int findNodes(const Words& words) {
  link::FindRequest request{interfacesFor(words.interface), {}};
  if (!words.file.empty()) {
    const auto opened = OpenedShow::open(words.file);
    if (!opened) return kShowError;
    for (const auto& controller : opened->show.controllers)
      if (isNetworked(controller->protocol)) request.addresses.push_back(controller->host);
  }
  std::vector<link::FoundController> all;
  const std::atomic<bool> cancelled{false};
  const auto found = [&](const link::FoundController& one) {
    const auto known = std::find_if(
        all.begin(), all.end(), [&](const auto& f) { return f.by == one.by && f.address == one.address; });
    if (known == all.end())
      all.push_back(one);
    else
      *known = one;
  };
  const Outcome outcome = link::findControllers(
      request, found, cancelled, [](const Failure& failure) { std::cerr << failure.text() << "\n"; });
  if (!outcome) return failed(outcome.failure());
  auto json = nlohmann::json::array();
  for (const auto& one : all)
    json.push_back({{"address", one.address},
                    {"name", one.name},
                    {"kind", howText(one.by)},
                    {"ports", one.ports},
                    {"first_universe", one.firstUniverse}});
  if (words.json) {
    std::cout << json.dump(2) << "\n";
    return kDone;
  }
  for (const auto& one : all)
    std::cout << one.address << "  " << one.name << ", " << howText(one.by) << ", " << one.ports
              << " from universe " << one.firstUniverse << "\n";
  if (all.empty()) std::cout << "Nobody answered.\n";
  return kDone;
}

int listen(const Words& words) {
  link::Receiver::Options options;
  if (!words.interface.empty()) options.address = words.interface;
  const auto receiver = link::Receiver::open(options);
  if (!receiver) return failed(receiver.failure());
  std::this_thread::sleep_for(std::chrono::duration<double>(words.length_s > 0 ? words.length_s : 3));
  auto json = nlohmann::json::array();
  for (const link::ReceivedUniverse& heard : (*receiver)->heard()) {
    auto sources = nlohmann::json::array();
    for (const auto& source : heard.sources) {
      const double seconds = std::chrono::duration<double>(source.heardAt - source.firstAt).count();
      sources.push_back(
          {{"name", source.name},
           {"priority", source.priority},
           {"packets", source.packets},
           {"lost", source.lost},
           {"per_second", seconds > 0 ? static_cast<double>(source.packets - 1) / seconds : 0}});
    }
    json.push_back({{"protocol", std::string(nameOf(heard.protocol))},
                    {"universe", heard.universe},
                    {"sources", std::move(sources)},
                    {"values", heard.values}});
  }
  if (words.json) {
    std::cout << json.dump() << "\n";
    return kDone;
  }
  for (const auto& universe : json)
    for (const auto& source : universe["sources"])
      std::cout << universe["protocol"].get<std::string>() << " universe " << universe["universe"] << ": "
                << source["name"].get<std::string>() << ", priority " << source["priority"] << ", "
                << source["packets"] << " packets, " << source["lost"] << " lost\n";
  if (json.empty()) std::cout << "Nothing arrived.\n";
  return kDone;
}

}  // namespace chispa::cli
