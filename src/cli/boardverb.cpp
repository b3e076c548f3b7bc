// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/interrupt.h"
#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/board/files.h"
#include "core/board/kinds.h"

namespace chispa::cli {
namespace {

using Json = nlohmann::ordered_json;

double rounded(double value, double step) {
  return std::round(value / step) * step;
}

Json partJson(const board::BoardPart& part) {
  Json json = {{"zone", part.zone},
               {"effects", part.effects},
               {"from_s", part.from_s},
               {"to_s", part.to_s < 0 ? Json(nullptr) : Json(part.to_s)},
               {"kind", part.isProgram ? "program" : "frames"},
               {"bytes", part.bytes}};
  if (part.isProgram) {
    json["mean_error"] = rounded(part.meanError, 0.001);
    json["most_error"] = part.maxError;
  } else {
    json["reason"] = part.reason;
  }
  return json;
}

Json sceneJson(const board::BoardSceneReport& scene) {
  Json parts = Json::array();
  for (const board::BoardPart& part : scene.parts) parts.push_back(partJson(part));
  return {{"name", scene.name},
          {"kind", scene.isProgram ? "program" : "frames"},
          {"bytes", scene.bytes},
          {"seconds", scene.seconds},
          {"loss_delta_e", rounded(scene.loss, 0.01)},
          {"parts", std::move(parts)}};
}

Json lightJson(const board::BoardLight& light, const board::BoardKind& kind,
               const std::vector<board::BoardSaving>& savings) {
  const board::BoardUse use = board::useOf(light, kind);
  const auto lacks = board::lacksOf(light, kind);
  Json scenes = Json::array();
  for (const auto& scene : light.scenes) scenes.push_back(sceneJson(scene));
  Json json = {{"board", kind.name},
               {"fits", lacks.empty()},
               {"flash_bytes", use.flash()},
               {"flash_of", kind.flash},
               {"ram_bytes", use.ram},
               {"ram_of", kind.ram},
               {"pixels", light.pixels},
               {"frames_per_second", light.options.framesPerSecond},
               {"fastest_frames_per_second", std::floor(use.fastest)},
               {"most_amps", rounded(light.most_a, 0.001)},
               {"scenes", std::move(scenes)},
               {"lacks", lacks}};
  Json changes = Json::array();
  for (const auto& saving : savings)
    changes.push_back(
        {{"what", saving.what}, {"saves_bytes", saving.saved}, {"loss_delta_e", rounded(saving.loss, 0.01)}});
  if (!savings.empty()) json["smaller_by"] = std::move(changes);
  return json;
}

void print(const board::BoardLight& light, const board::BoardKind& kind,
           const std::vector<board::BoardSaving>& savings) {
  const board::BoardUse use = board::useOf(light, kind);
  std::cout << kind.name << ", " << light.pixels << " pixels, " << light.options.framesPerSecond
            << " frames per second\n"
            << "flash " << use.flash() << " of " << kind.flash << " bytes: player " << use.player
            << ", programs " << use.programs << ", frames " << use.frames << ", lists " << use.rest << "\n"
            << "RAM " << use.ram << " of " << kind.ram << " bytes\n";
  for (const auto& scene : light.scenes) {
    std::cout << scene.name << ": " << scene.bytes << " bytes, ΔE " << rounded(scene.loss, 0.01) << "\n";
    for (const auto& part : scene.parts)
      std::cout << "  " << part.from_s << "–"
                << (part.to_s < 0 ? std::string() : std::to_string(part.to_s).substr(0, 6)) << " s  "
                << part.zone << "  " << part.effects << "  "
                << (part.isProgram ? "program" : "frames (" + part.reason + ")") << "  " << part.bytes
                << " bytes\n";
  }
  for (const std::string& lack : board::lacksOf(light, kind))
    std::cout << "It does not fit. " << lack << "\n";
  for (const auto& saving : savings)
    std::cout << "  " << saving.what << ": " << saving.saved << " bytes less, ΔE "
              << rounded(saving.loss, 0.01) << "\n";
}

/// The scenes that were named, in that order.
std::optional<std::vector<board::BoardOrder>> scenesOf(const OpenedShow& opened, const Words& words) {
  std::vector<board::BoardOrder> orders;
  for (const std::string& name : words.scores) {
    const Score* score = opened.score(name);
    if (!score) return std::nullopt;
    orders.push_back({score->id, words.stays_s});
  }
  for (const std::string& name : words.looks) {
    const Look* look = findNamed(opened.show.looks, name);
    if (!look) {
      failed({"The show has no look “" + name + "”.", {}, "`chispa-cli looks SHOW` lists them."});
      return std::nullopt;
    }
    orders.push_back({look->id, words.stays_s});
  }
  return orders;
}

}  // namespace

int board(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  const auto scenes = scenesOf(*opened, words);
  if (!scenes) return kShowError;
  auto runs = opened->rows(words.on);
  if (!runs) return kShowError;
  if (runs->empty()) runs = board::litRuns(opened->show, *scenes);
  board::BoardPlan plan{*runs, *scenes, {}};
  if (words.framesPerSecond > 0) plan.options.framesPerSecond = words.framesPerSecond;
  plan.options.maxColours = words.colours;
  plan.options.pixelsPerValue = words.group;
  if (words.loop_s > 0) plan.options.lookSeconds = words.loop_s;
  const board::BoardKind kind = board::boardOf(words.flash, words.ram);
  const auto compiled = opened->compiled();
  noteInterrupts();
  const Progress goOn = [](double) { return !isInterrupted(); };
  const auto light = board::writeBoard(opened->show, *compiled, plan, goOn);
  if (isInterrupted()) {
    std::cerr << "Cancelled; nothing was written.\n";
    return kShowError;
  }
  if (!light) return failed(light.failure());
  const auto lacks = board::lacksOf(*light, kind);
  std::vector<board::BoardSaving> savings;
  if (words.sizeOnly || !lacks.empty())
    savings = board::savingsOf(opened->show, *compiled, plan, *light, goOn);
  if (words.json)
    std::cout << lightJson(*light, kind, savings).dump(2) << "\n";
  else
    print(*light, kind, savings);
  if (!lacks.empty())
    return failed(
        {"The light does not fit into the board; nothing was written.",
         lacks.front().substr(0, lacks.front().size() - 1),
         "Make it smaller as listed, choose fewer scenes, or a larger board with --flash and --ram."});
  if (words.sizeOnly || words.output.empty()) return kDone;
  const auto written =
      board::writeBoardFiles(board::boardFiles(*light, kind, opened->show.name), words.output);
  if (!written) return failed(written.failure());
  std::cerr << "Written to " << words.output << ".\n";
  return kDone;
}

}  // namespace chispa::cli
