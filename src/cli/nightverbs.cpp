// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/almanac/nights.h"
#include "core/files/names.h"

namespace chispa::cli {
namespace {

using Json = nlohmann::ordered_json;

Json slotJson(const Show& show, const NightPlan& plan, const Slot& slot) {
  const Rule& rule = *plan.rule(slot.rule);
  return {{"start", rfc3339(slot.start, plan.zone())},
          {"end", rfc3339(slot.end, plan.zone())},
          {"what", whatOf(show, rule)},
          {"kind", std::string(nameOf(rule.kind))},
          {"rule", rule.name}};
}

Json nightJson(const Show& show, const NightPlan& plan, const Night& night) {
  const auto time = [&](const std::optional<Instant>& at) {
    return at ? Json(rfc3339(*at, plan.zone())) : Json(nullptr);
  };
  Json slots = Json::array();
  for (const Slot& slot : night.slots) slots.push_back(slotJson(show, plan, slot));
  return {{"date", dateText(night.date)}, {"sunset", time(night.sunset)},   {"dusk", time(night.dusk)},
          {"dawn", time(night.dawn)},     {"sunrise", time(night.sunrise)}, {"slots", std::move(slots)}};
}

}  // namespace

int tonight(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  const auto plan = NightPlan::of(opened->show);
  if (!plan) return failed(plan.failure());
  Date first = plan->nightOf(std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now()));
  if (!words.date.empty()) {
    const auto day = parseDate(words.date);
    if (!day) {
      std::cerr << "--from " << words.date << " is no day of the calendar; write it like 2026-12-24.\n";
      return kUsageError;
    }
    first = *day;
  }
  const Almanac& place = opened->show.almanac;
  Json nights = Json::array();
  for (const Night& night : plan->nights(first, words.days))
    nights.push_back(nightJson(opened->show, *plan, night));
  std::cout << Json{{"place",
                     {{"lat", place.latitude_deg},
                      {"lon", place.longitude_deg},
                      {"zone", place.zone.empty() ? "Etc/UTC" : place.zone},
                      {"name", place.place}}},
                    {"nights", std::move(nights)}}
                   .dump(2)
            << "\n";
  return kDone;
}

}  // namespace chispa::cli
