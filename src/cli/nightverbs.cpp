// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdio>
#include <cstdlib>
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/almanac/nights.h"
#include "core/files/names.h"
#include "core/files/showfile.h"
#include "engine/night/nightlog.h"
#include "engine/night/systemd.h"

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
  for (const Slot& slot : night.nightSlots) slots.push_back(slotJson(show, plan, slot));
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

int nights(const Words& words) {
  engine::NightReader log(engine::NightLog::usualFile());
  Json rows = Json::array();
  for (const engine::NightSum& sum : log.nights(words.last)) {
    Json events = Json::array();
    for (const engine::NightEvent& event : log.events(sum.night))
      events.push_back({{"at", rfc3339(std::chrono::floor<std::chrono::seconds>(event.at), TimeZone::utc())},
                        {"kind", event.kind},
                        {"what", event.what},
                        {"detail", event.detail}});
    Json row{{"night", sum.night},
             {"show", sum.show},
             {"light_hours", sum.light_s / 3600},
             {"energy_kwh", sum.energy_kwh},
             {"frames", sum.frames},
             {"late_frames", sum.lateFrames},
             {"lost_controllers", sum.lostControllers},
             {"hottest_c", sum.hottest_c > -200 ? Json(sum.hottest_c) : Json(nullptr)},
             {"events", std::move(events)}};
    rows.push_back(std::move(row));
  }
  if (words.json) {
    std::cout << rows.dump(2) << "\n";
    return kDone;
  }
  for (const Json& row : rows) {
    char line[160];
    std::snprintf(line, sizeof line, "%s  %6.2f h of light  %7.3f kWh  %llu of %llu frames late  %d lost",
                  row["night"].get<std::string>().c_str(), row["light_hours"].get<double>(),
                  row["energy_kwh"].get<double>(), row["late_frames"].get<unsigned long long>(),
                  row["frames"].get<unsigned long long>(), row["lost_controllers"].get<int>());
    std::cout << line << "\n";
  }
  if (rows.empty()) std::cout << "The log holds no night yet; chispa-cli run SHOW --almanac writes it.\n";
  return kDone;
}

int installService(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  std::error_code error;
  const auto show = std::filesystem::absolute(opened->path, error);
  const auto program = std::filesystem::read_symlink("/proc/self/exe", error);
  const char* config = std::getenv("XDG_CONFIG_HOME");
  const char* home = std::getenv("HOME");
  const std::filesystem::path folder =
      (config && *config ? std::filesystem::path(config)
                         : std::filesystem::path(home ? home : ".") / ".config") /
      "systemd/user";
  std::filesystem::create_directories(folder, error);
  const auto unit = folder / "chispa.service";
  if (const Outcome written = writeFileAtomically(unit, engine::serviceUnit(program, show)); !written)
    return failed(written.failure());
  std::cout << "Written: " << unit.string() << "\n\n"
            << "Begin now and with every login:   systemctl --user enable --now chispa\n"
            << "Without a login, from switching on: loginctl enable-linger\n"
            << "What it does now:                 systemctl --user status chispa\n"
            << "After another show or another place of the program, run this again and then:\n"
            << "                                  systemctl --user daemon-reload && systemctl --user restart "
               "chispa\n";
  return kDone;
}

}  // namespace chispa::cli
