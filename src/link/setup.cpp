// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/setup.h"

#include <algorithm>

#include <nlohmann/json.hpp>

#include "link/setuptransport.h"

namespace chispa::link {
namespace {

std::string sectionText(Protocol protocol, const PortSection& s) {
  // A node that is set up by ArtAddress tells nothing but the universe.
  if (s.pixels == 0 && s.order.empty()) return "universe " + std::to_string(s.universe);
  return std::to_string(s.pixels) + " px " + s.order + (s.bits == 16 ? " 16 bit" : "") + " from " +
         addressText(protocol, s.universe, s.channel) +
         (s.grouping > 1 ? ", " + std::to_string(s.grouping) + " a value" : "") +
         (s.skippedBefore > 0 ? ", " + std::to_string(s.skippedBefore) + " skipped" : "") +
         (s.isReversed ? ", turned round" : "") +
         (s.zigzag > 0 ? ", turns back every " + std::to_string(s.zigzag) : "") +
         (s.brightness < 1 ? ", at " + std::to_string(static_cast<int>(s.brightness * 100 + 0.5)) + " %"
                           : "");
}

/// True if `next` is the same again right behind, so that a count says it all.
bool follows(const PortSection& one, const PortSection& next) {
  PortSection same = next;
  same.universe = one.universe;
  same.channel = one.channel;
  same.skippedBefore = one.skippedBefore;
  const int values = (one.pixels + one.grouping - 1) / one.grouping;
  return same == one && next.skippedBefore == 0 && next.universe == one.universe &&
         next.channel == one.channel + values * static_cast<int>(one.order.size()) * one.bits / 8;
}

std::string portText(const PortSettings* port) {
  if (!port || port->sections.empty()) return "nothing";
  std::string text = protocolTitle(port->protocol);
  for (std::size_t i = 0; i < port->sections.size();) {
    std::size_t alike = 1;
    while (i + alike < port->sections.size() &&
           follows(port->sections[i + alike - 1], port->sections[i + alike]))
      ++alike;
    text += " · " + (alike > 1 ? std::to_string(alike) + " × " : std::string()) +
            sectionText(port->protocol, port->sections[i]);
    i += alike;
  }
  if (port->isPacked) text += " · packed";
  return text;
}

const PortSettings* settingsOf(const std::vector<PortSettings>& all, int port) {
  const auto found = std::find_if(all.begin(), all.end(), [port](const auto& s) { return s.port == port; });
  return found == all.end() ? nullptr : &*found;
}

/// What a controller has against what it shall have; a port without settings is one that has nothing.
std::vector<SettingDifference> differences(const SetupTransport& transport,
                                           const std::vector<PortSettings>& there,
                                           const std::vector<PortSettings>& said) {
  std::vector<PortSettings> wanted = transport.reachable(said);
  for (const PortSettings& has : there)
    if (transport.replacesAll() && !settingsOf(wanted, has.port))
      wanted.push_back({has.port, has.protocol, {}});
  std::vector<SettingDifference> found;
  for (const PortSettings& want : wanted) {
    const PortSettings* has = settingsOf(there, want.port);
    const bool bothEmpty = want.sections.empty() && (!has || has->sections.empty());
    if (bothEmpty || (has && *has == want)) continue;
    found.push_back({"port " + std::to_string(want.port), portText(has), portText(&want), {}, false});
  }
  return found;
}

}  // namespace

Result<SetupReport> compareSetup(const Controller& controller, const std::vector<PortSettings>& wanted) {
  const auto transport = openSetupTransport(controller);
  if (!transport) return transport.failure();
  const auto there = (*transport)->read();
  if (!there) return there.failure();
  SetupReport report;
  report.differences = differences(**transport, *there, wanted);
  report.verified = report.differences.empty();
  report.before = toJson(*there).dump();
  return report;
}

Result<SetupReport> pushSetup(const Controller& controller, const std::vector<PortSettings>& wanted,
                              const KeepOld& keep) {
  auto before = compareSetup(controller, wanted);
  if (!before) return before;
  SetupReport report = *std::move(before);
  if (report.verified) return report;
  if (keep)
    if (const Outcome kept = keep(report.before); !kept) return kept.failure();
  const auto transport = openSetupTransport(controller);
  const Outcome written = (*transport)->write(wanted);
  const auto now = (*transport)->read();
  if (!now) return now.failure();
  const auto left = differences(**transport, *now, wanted);
  for (SettingDifference& difference : report.differences) {
    const auto still = std::find_if(left.begin(), left.end(),
                                    [&](const SettingDifference& d) { return d.place == difference.place; });
    difference.isWritten = still == left.end();
    difference.now = difference.isWritten ? difference.wanted : still->there;
  }
  report.verified = left.empty();
  if (!written) report.trouble = written.failure().what.text();
  // Nothing at all was changed: that is a plain refusal.
  const bool isUntouched = std::none_of(report.differences.begin(), report.differences.end(),
                                        [](const SettingDifference& d) { return d.isWritten; });
  if (!written && isUntouched) return written.failure();
  return report;
}

Result<std::vector<PortSettings>> readSetup(const Controller& controller) {
  const auto transport = openSetupTransport(controller);
  if (!transport) return transport.failure();
  return (*transport)->read();
}

}  // namespace chispa::link
