// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/program.h"

#include <algorithm>

#include "core/wire/wiresettings.h"

namespace chispa::engine {
namespace {

PortChain chainOf(const Show& show, const PixelMap& map, const Controller& controller, int port) {
  PortChain chain{controller.id, port, {}};
  for (const Bead& bead : controller.ports[static_cast<std::size_t>(port)].run) {
    chain.pixels.insert(chain.pixels.end(), static_cast<std::size_t>(bead.skippedBefore), PortChain::kSkipped);
    const auto range = map.rangeOf(bead.fixture);
    if (!range) continue;
    const int count = std::clamp(bead.count, 0, std::max(0, range->count - bead.first));
    const ResolvedWire wire = resolveWire(stripTypeOf(show, *find(show.fixtures, bead.fixture)), controller.ports[static_cast<std::size_t>(port)].settings, bead.settings);
    for (const WireStretch& stretch : wireStretches(bead.first, count, bead.reversed, wire.zigzag))
      for (int i = 0; i < stretch.count; ++i) chain.pixels.push_back(range->first + stretch.first + i * stretch.step);
  }
  return chain;
}

}  // namespace

std::unique_ptr<Program> makeProgram(const Show& show, std::shared_ptr<const CompiledShow> compiled,
                                     const link::E131Source& source, std::vector<LineProblem>& problems) {
  auto program = std::make_unique<Program>();
  program->show = std::move(compiled);
  program->renderer.prepare(*program->show);
  program->values.resize(program->show->packer->bufferSize());
  program->frames = std::make_shared<FrameBox>();
  program->frames->resize(static_cast<std::size_t>(program->show->map.count()));
  const auto& universes = program->show->patch.universes;
  std::size_t next = 0;
  for (std::size_t c = 0; c < show.controllers.size(); ++c) {
    const Controller& controller = *show.controllers[c];
    for (std::size_t p = 0; p < controller.ports.size(); ++p)
      program->chains.push_back(chainOf(show, program->show->map, controller, static_cast<int>(p)));
    const std::size_t first = next;
    std::vector<int> numbers;
    for (; next < universes.size() && universes[next].controller == static_cast<int>(c); ++next)
      numbers.push_back(universes[next].universe);
    if (numbers.empty()) continue;
    auto sender = link::ControllerSender::open(controller, std::move(numbers), source);
    if (sender)
      program->lines.push_back({*std::move(sender), first});
    else
      problems.push_back({controller.id, sender.failure()});
  }
  return program;
}

}  // namespace chispa::engine
