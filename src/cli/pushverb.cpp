// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>
#include <memory>
#include <thread>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "link/setup.h"
#include "link/setupstore.h"

namespace chispa::cli {
namespace {

using Json = nlohmann::ordered_json;

/// Tries until the controller answers or the time is over: a node may just be starting.
Result<link::SetupReport> pushWithin(const Controller& controller, const std::vector<PortSettings>& wanted,
                                     const Words& words) {
  const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(words.wait_s);
  while (true) {
    const auto keep = [&](const std::string& before) {
      return link::SetupStore::ofUser().keep(controller, before);
    };
    auto report =
        words.dryRun ? link::compareSetup(controller, wanted) : link::pushSetup(controller, wanted, keep);
    if (report || std::chrono::steady_clock::now() >= until) return report;
    std::this_thread::sleep_for(std::chrono::milliseconds(50));
  }
}

/// What is to be written: the wiring's settings, or those that were there before the last push.
Result<std::vector<PortSettings>> wantedOf(const Show& show, int index, const Words& words) {
  if (!words.restore) return portSettings(show, derivePatch(show), index);
  const Controller& controller = *show.controllers[static_cast<std::size_t>(index)];
  const auto kept = link::SetupStore::ofUser().keptOf(controller);
  if (kept.empty())
    return Failure{"Nothing is kept of what it had before.", controller.name,
                   "Only what chispa-cli push or the window has replaced can be put back."};
  std::cerr << controller.name << ": back to what it had on " << kept.front().when << "\n";
  return kept.front().ports;
}

Json reportJson(const Controller& controller, const link::SetupReport& report, bool isDry) {
  Json differences = Json::array();
  for (const auto& difference : report.differences) {
    Json one = {{"place", difference.place}, {"there", difference.there}, {"wanted", difference.wanted}};
    if (!isDry) {
      one["now"] = difference.now;
      one["written"] = difference.isWritten;
    }
    differences.push_back(std::move(one));
  }
  Json json = {{"controller", controller.name}, {"differences", std::move(differences)}};
  if (!isDry) json["verified"] = report.verified;
  if (!report.trouble.empty()) json["trouble"] = report.trouble;
  return json;
}

bool pushOne(const Show& show, int index, const Words& words, Json& told) {
  const Controller& controller = *show.controllers[static_cast<std::size_t>(index)];
  const auto wanted = wantedOf(show, index, words);
  if (!wanted) {
    std::cerr << wanted.failure().text() << "\n";
    return false;
  }
  const auto report = pushWithin(controller, *wanted, words);
  if (!report) {
    std::cerr << report.failure().text() << "\n";
    return false;
  }
  if (words.json) {
    told.push_back(reportJson(controller, *report, words.dryRun));
    return words.dryRun || report->verified;
  }
  for (const auto& difference : report->differences)
    std::cout << controller.name << ", " << difference.place << ": " << difference.there << " -> "
              << difference.wanted << "\n";
  if (report->differences.empty()) std::cout << controller.name << ": nothing differs\n";
  if (words.dryRun) return true;
  for (const auto& difference : report->differences)
    if (!difference.isWritten)
      std::cerr << controller.name << ", " << difference.place << ": was not written, and has "
                << difference.now << "\n";
  if (!report->trouble.empty()) std::cerr << controller.name << ": " << report->trouble << "\n";
  std::cout << controller.name << ": "
            << (report->verified ? "set up and read back" : "does NOT have what was written") << "\n";
  return report->verified;
}

}  // namespace

int push(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  bool good = true;
  bool any = false;
  Json told = Json::array();
  for (std::size_t i = 0; i < opened->show.controllers.size(); ++i) {
    if (!words.controller.empty() && opened->show.controllers[i]->name != words.controller) continue;
    any = true;
    good = pushOne(opened->show, static_cast<int>(i), words, told) && good;
  }
  if (words.json) std::cout << told.dump(2) << "\n";
  if (!any) std::cerr << words.file << ": There is no such controller.\n`chispa-cli patch` lists them.\n";
  return good && any ? kDone : kShowError;
}

}  // namespace chispa::cli
