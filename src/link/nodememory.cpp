// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/nodememory.h"

#include <thread>

#include <nlohmann/json.hpp>

#include "core/almanac/calendar.h"
#include "link/nodehttp.h"

namespace chispa::link {
namespace {

constexpr int kOk = 200;
constexpr int kNotFound = 404;
constexpr int kBadRequest = 400;
constexpr int kForbidden = 403;
constexpr int kFull = 507;
/// Memories are slow to write.
constexpr int kPatience_s = 30;

Failure noMemory(const Controller& controller) {
  return {"This controller has no memory of its own.", setupPlace(controller),
          "Send it light while it plays, or write the light to a small board."};
}

Outcome tell(const Controller& controller, const std::string& path, const std::string& json) {
  const auto answer = tellNode(controller, path, json, kPatience_s);
  if (!answer) return answer.failure();
  if (answer->status == kOk) return Done{};
  return Failure{sentence("The controller did not do it: %1.", answer->body), setupPlace(controller),
                 "Look at what its memory holds."};
}

/// The state once it answers again.
Result<MemoryState> readInTime(const Controller& controller) {
  constexpr int kTries = 20;
  constexpr auto kPause = std::chrono::milliseconds(500);
  for (int i = 1;; ++i) {
    auto state = readMemory(controller);
    if (state || i == kTries) return state;
    std::this_thread::sleep_for(kPause);
  }
}

}  // namespace

Result<MemoryState> readMemory(const Controller& controller) {
  if (controller.setupPort == 0)
    return Failure{"The controller has no set-up interface.", controller.name,
                   "Enter its set-up port in Wire; a memory is reached through it."};
  const auto answer = askNode(controller, "/memory");
  if (!answer) return answer.failure();
  if (answer->status == kNotFound) return noMemory(controller);
  if (answer->status != kOk)
    return Failure{sentence("The controller does not tell what its memory holds (HTTP %1).", answer->status),
                   setupPlace(controller), "Try again when it is ready."};
  return parseMemoryState(answer->body, setupPlace(controller));
}

Result<MemoryReport> writeMemory(const Controller& controller, const MemoryContent& content,
                                 const KeepContent& keep) {
  const auto before = readMemory(controller);
  if (!before) return before.failure();
  if (const auto excesses = excessesOf(content, before->limits); !excesses.empty())
    return Failure{sentence("It does not fit into its memory: %1.", excesses.front()), setupPlace(controller),
                   "Take scenes out, shorten looks, or let steps differ more."};
  if (keep && !before->content.scenes.empty())
    if (const Outcome kept = keep(before->content); !kept) return kept.failure();
  const auto answer = tellNode(controller, "/memory", toJson(content).dump(), kPatience_s);
  // It said no, and why: nothing was changed.
  if (answer && (answer->status == kBadRequest || answer->status == kForbidden || answer->status == kFull))
    return Failure{sentence("The controller did not take it: %1.", answer->body), setupPlace(controller),
                   "What it held before is still there."};
  const auto now = readInTime(controller);
  if (!now) return now.failure();
  MemoryReport report{*now, differencesOf(now->content, content), {}};
  if (!now->isWhole)
    report.trouble =
        "The controller broke off while it was written, perhaps for want of power. It holds nothing whole "
        "now, "
        "and plays nothing.";
  else if (!answer)
    report.trouble = answer.failure().what.text();
  else if (answer->status != kOk)
    report.trouble = answer->body;
  else if (report.left.empty() && now->content != content)
    report.left.push_back({"its content", "other values", "those that were written"});
  return report;
}

Outcome playFromMemory(const Controller& controller, int scene) {
  return tell(controller, "/memory/play", nlohmann::json{{"scene", scene}}.dump());
}

Outcome setClock(const Controller& controller, std::chrono::sys_seconds now) {
  std::string text = rfc3339(now, TimeZone::utc());
  return tell(controller, "/clock", nlohmann::json{{"utc", text.substr(0, 19) + "Z"}}.dump());
}

}  // namespace chispa::link
