// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/render/compiled.h"
#include "engine/output.h"
#include "engine/program.h"

namespace chispa::fuzz {

/// Plays the beginning of each score of `show` to nobody: everything is computed, packed and sent, to a port
/// of this machine that nobody listens at. What would take long, or leave the machine, is left out.
inline void play(Show show) {
  constexpr int kMaxPixels = 20'000;
  if (pixelCount(show) > kMaxPixels) return;
  for (auto& controller : show.controllers) {
    Controller here = *controller;
    here.host = "127.0.0.1";
    here.udpPort = 9;
    here.delivery = Delivery::Unicast;
    here.localAddress.clear();
    if (here.protocol == Protocol::SerialDmx || here.protocol == Protocol::Opc) here.protocol = Protocol::Ddp;
    controller = std::make_shared<const Controller>(std::move(here));
  }
  engine::Transport transport;
  engine::Output output(transport);
  std::vector<engine::LineProblem> problems;
  const auto compiled = compile(show);
  output.load(engine::makeProgram(show, compiled, engine::ProgramSetup{}, problems));
  output.switchLight(true);
  engine::MonoTime now{0};
  constexpr std::size_t kMaxScores = 3;
  for (std::size_t i = 0; i < std::min(kMaxScores, compiled->scores.size()); ++i)
    for (const Micros at : {Micros(0), Micros(1'234'567), compiled->scores[i].length / 2}) {
      transport.set({compiled->scores[i].id, at, now, false});
      output.step(now += std::chrono::milliseconds(25));
    }
  output.switchLight(false);
  for (int frame = 0; frame < 4; ++frame) output.step(now += std::chrono::milliseconds(25));
}

}  // namespace chispa::fuzz
