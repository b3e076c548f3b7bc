// SPDX-License-Identifier: GPL-3.0-or-later
#include <chrono>
#include <cmath>
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/interrupt.h"
#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/controllermemory/fill.h"
#include "link/memorystore.h"
#include "link/nodememory.h"

namespace chispa::cli {
namespace {

using Json = nlohmann::ordered_json;

/// What shall be written: the show's scenes as steps, or what was there before.
struct Wanted {
  MemoryContent content;
  std::vector<FilledScene> scenes;
  double tolerance = 0;
};

Result<Wanted> restored(const Controller& controller) {
  const auto kept = link::MemoryStore::ofUser().keptOf(controller);
  if (kept.empty())
    return Failure{"Nothing is kept of what its memory held before.", controller.name,
                   "Only what chispa-cli memory or the window has replaced can be put back."};
  std::cerr << controller.name << ": back to what it held on " << kept.front().when << "\n";
  return Wanted{kept.front().content, {}, 0};
}

Result<Wanted> wantedOf(const OpenedShow& opened, const Controller& controller, const MemoryLimits& limits,
                        const Words& words) {
  if (words.restore) return restored(controller);
  if (controller.memory.scenes.empty())
    return Failure{"The show keeps nothing in this controller's memory.", controller.name,
                   "Choose its scenes in the window: File, Take away, Into a controller."};
  const auto compiled = opened.compiled();
  const Progress goOn = [](double) { return !isInterrupted(); };
  if (words.fit) {
    auto fit = fitMemory(opened.show, *compiled, controller.id, controller.memory, limits, goOn);
    if (!fit) return fit.failure();
    return Wanted{fit->fill.content, fit->fill.scenes, fit->tolerance};
  }
  auto fill = fillMemory(opened.show, *compiled, controller.id, controller.memory, limits, goOn);
  if (!fill) return fill.failure();
  return Wanted{fill->content, fill->scenes, controller.memory.tolerance};
}

double rounded(double value) {
  return std::round(value * 100) / 100;
}

Json toJson(const MemoryState& state, const Wanted& wanted) {
  Json scenes = Json::array(), differences = Json::array();
  for (std::size_t i = 0; i < wanted.content.scenes.size(); ++i) {
    const SceneContent& scene = wanted.content.scenes[i];
    Json json = {{"name", scene.name},
                 {"steps", scene.steps.size()},
                 {"seconds", static_cast<double>(scene.length_ms()) / 1000},
                 {"channels", scene.channelCount()},
                 {"bytes", bytesOf(scene, state.limits)}};
    if (i < wanted.scenes.size()) {
      json["loss_delta_e"] = rounded(wanted.scenes[i].error.mean);
      json["worst_delta_e"] = rounded(wanted.scenes[i].error.most);
    }
    scenes.push_back(std::move(json));
  }
  for (const MemoryDifference& one : differencesOf(state.content, wanted.content))
    differences.push_back({{"what", one.what}, {"there", one.there}, {"wanted", one.wanted}});
  const auto excesses = excessesOf(wanted.content, state.limits);
  return {{"fits", excesses.empty()},
          {"excesses", excesses},
          {"bytes", bytesOf(wanted.content, state.limits)},
          {"bytes_of", state.limits.bytes},
          {"tolerance_delta_e", wanted.tolerance},
          {"whole", state.isWhole},
          {"clock_set", state.isClockSet},
          {"playing", state.playing},
          {"scenes", std::move(scenes)},
          {"differences", std::move(differences)}};
}

void print(const Controller& controller, const MemoryState& state, const Wanted& wanted) {
  std::cout << controller.name << ": " << bytesOf(wanted.content, state.limits) << " of "
            << state.limits.bytes << " bytes\n";
  for (std::size_t i = 0; i < wanted.content.scenes.size(); ++i) {
    const SceneContent& scene = wanted.content.scenes[i];
    std::cout << "  " << i + 1 << " " << scene.name << ": " << scene.steps.size() << " steps, "
              << static_cast<double>(scene.length_ms()) / 1000 << " s, " << scene.channelCount()
              << " channels";
    if (i < wanted.scenes.size())
      std::cout << ", ΔE " << rounded(wanted.scenes[i].error.mean) << ", at most "
                << rounded(wanted.scenes[i].error.most);
    std::cout << "\n";
  }
  const auto differences = differencesOf(state.content, wanted.content);
  for (const MemoryDifference& one : differences)
    std::cout << one.what << ": " << one.there << " -> " << one.wanted << "\n";
  if (differences.empty()) std::cout << "nothing differs\n";
  if (!state.isWhole) std::cout << "It holds nothing whole: writing broke off.\n";
  if (!state.isClockSet) std::cout << "Its clock was never set: nothing begins by time until it is.\n";
}

int write(const Controller& controller, const MemoryContent& content) {
  const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
  if (const Outcome set = link::setClock(controller, now); !set) return failed(set.failure());
  const auto report = link::writeMemory(controller, content, [&](const MemoryContent& before) {
    return link::MemoryStore::ofUser().keep(controller, before);
  });
  if (!report) return failed(report.failure());
  if (!report->trouble.empty()) std::cerr << controller.name << ": " << report->trouble << "\n";
  for (const MemoryDifference& one : report->left)
    std::cerr << controller.name << ": " << one.what << " was not written, and is " << one.there << "\n";
  std::cerr << controller.name << ": "
            << (report->isVerified() ? "written and read back" : "does NOT hold what was written") << "\n";
  return report->isVerified() ? kDone : kShowError;
}

}  // namespace

int memory(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  const Controller* controller = findNamed(opened->show.controllers, words.controller);
  if (!controller)
    return failed(
        {"There is no controller “" + words.controller + "”.", words.file, "`chispa-cli patch` lists them."});
  const auto state = link::readMemory(*controller);
  if (!state) return failed(state.failure());
  if (words.scene >= 0) {
    const Outcome played = link::playFromMemory(*controller, words.scene);
    return played ? kDone : failed(played.failure());
  }
  noteInterrupts();
  const auto wanted = wantedOf(*opened, *controller, state->limits, words);
  if (isInterrupted()) {
    std::cerr << "Cancelled; nothing was written.\n";
    return kShowError;
  }
  if (!wanted) return failed(wanted.failure());
  if (words.json)
    std::cout << toJson(*state, *wanted).dump(2) << "\n";
  else
    print(*controller, *state, *wanted);
  const auto excesses = excessesOf(wanted->content, state->limits);
  if (!excesses.empty())
    return failed({"It does not fit into its memory: " + excesses.front() + ".", controller->name,
                   "Let steps differ more with --fit, shorten looks, or take scenes out."});
  return words.write || words.restore ? write(*controller, wanted->content) : kDone;
}

}  // namespace chispa::cli
