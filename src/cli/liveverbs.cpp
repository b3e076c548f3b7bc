// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <iostream>
#include <thread>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/edit/bindingedits.h"
#include "core/files/csv.h"
#include "core/files/names.h"
#include "core/live/desksheet.h"
#include "link/receiver.h"

namespace chispa::cli {
namespace {

using namespace std::chrono_literals;
using Json = nlohmann::ordered_json;

/// A row of the table of bindings, by its columns' names.
Json rowOf(const Show& show, const Binding& binding) {
  const BindingSource& source = binding.source;
  return {{"source", std::string(nameOf(source.kind))},
          {"channel", source.isMidi()                   ? source.channel
                      : source.kind == SourceKind::Desk ? source.universe
                                                        : 0},
          {"number", source.kind == SourceKind::Osc || source.kind == SourceKind::Key ? Json(source.address)
                                                                                      : Json(source.number)},
          {"target", describeTarget(show, binding.target).text()},
          {"parameter", binding.target.parameter},
          {"low", binding.low},
          {"high", binding.high},
          {"response", std::string(nameOf(binding.response))},
          {"name", describeBinding(show, binding)},
          {"device", source.device}};
}

/// Everything of `rows` as a table, with the names of the first one's members above it.
void printTable(const Json& rows, const std::string& names) {
  std::cout << names << "\n";
  for (const Json& row : rows) {
    std::string line;
    for (const auto& [name, value] : row.items()) {
      if (!line.empty() || name != row.begin().key()) line += ",";
      line += csvField(value.is_string() ? value.get<std::string>() : value.dump());
    }
    std::cout << line << "\n";
  }
}

/// Tells what arrives where nobody listens, and who listens where nothing arrives.
int checkDesk(const Show& show, const Words& words) {
  link::Receiver::Options options;
  if (!words.interface.empty()) options.address = words.interface;
  options.ddpPort = options.opcPort = 0;
  for (const DeskRow& row : deskRows(show))
    if (row.protocol == Protocol::E131) options.groups.push_back(row.universe);
  std::sort(options.groups.begin(), options.groups.end());
  options.groups.erase(std::unique(options.groups.begin(), options.groups.end()), options.groups.end());
  const auto receiver = link::Receiver::open(options);
  if (!receiver) return failed(receiver.failure());
  std::this_thread::sleep_for(std::chrono::duration<double>(words.length_s > 0 ? words.length_s : 3));
  std::vector<std::pair<Protocol, int>> arriving;
  for (const link::ReceivedUniverse& heard : (*receiver)->heard())
    arriving.emplace_back(heard.protocol, heard.universe);
  const DeskGaps gaps = deskGaps(show, arriving);
  for (const auto& [protocol, universe] : gaps.unheard)
    std::cout << nameOf(protocol) << " universe " << universe << " arrives, and nobody listens to it\n";
  for (const auto& [protocol, universe] : gaps.missing)
    std::cout << nameOf(protocol) << " universe " << universe << " is listened to, and does not arrive\n";
  if (gaps.unheard.empty() && gaps.missing.empty()) std::cout << "What arrives is what is listened to.\n";
  return gaps.missing.empty() ? kDone : kShowError;
}

}  // namespace

int looks(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  Json rows = Json::array();
  for (const auto& look : opened->show.looks) {
    Json zones = Json::array();
    for (const ZoneId id : zonesOf(*look))
      if (const Zone* zone = find(opened->show.zones, id)) zones.push_back(zone->name);
    rows.push_back({{"name", look->name},
                    {"zones", std::move(zones)},
                    {"steps", look->steps.size()},
                    {"seconds", seconds(roundOf(*look))},
                    {"key", look->key},
                    {"pad", std::string(nameOf(look->mode))}});
  }
  std::cout << rows.dump(2) << "\n";
  return kDone;
}

int bindings(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  Json rows = Json::array();
  for (const auto& binding : opened->show.bindings) rows.push_back(rowOf(opened->show, *binding));
  if (words.json)
    std::cout << rows.dump(2) << "\n";
  else
    printTable(rows, "source,channel,number,target,parameter,low,high,response,name,device");
  return kDone;
}

int desk(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  if (words.check) return checkDesk(opened->show, words);
  if (!words.json) {
    std::cout << deskSheet(opened->show);
    return kDone;
  }
  Json rows = Json::array();
  for (const DeskRow& row : deskRows(opened->show))
    rows.push_back({{"fixture", row.fixture},
                    {"zone", row.zone},
                    {"cell", row.cell},
                    {"universe", row.universe},
                    {"channel", row.channel},
                    {"channels", row.channels},
                    {"format", row.format},
                    {"how", std::string(nameOf(row.use))},
                    {"protocol", std::string(nameOf(row.protocol))}});
  std::cout << rows.dump(2) << "\n";
  return kDone;
}

}  // namespace chispa::cli
