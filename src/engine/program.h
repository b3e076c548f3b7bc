// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/render/compiled.h"
#include "core/render/renderer.h"
#include "engine/framebox.h"
#include "link/sender.h"

namespace chispa::engine {

/// One bead-by-bead list of what hangs on a port: the pixel's number, or kSkipped.
struct PortChain {
  static constexpr std::int32_t kSkipped = -1;

  ControllerId controller;
  int port = 0;
  std::vector<std::int32_t> pixels;
};

/// All that the output thread needs to play one version of the show, made by the compiler with every buffer in
/// place, so that playing it allocates nothing.
struct Program {
  std::shared_ptr<const CompiledShow> show;
  Renderer renderer;
  std::vector<std::uint8_t> values;
  /// One a controller that could be opened, with the place of its first universe in `values`.
  struct Line {
    std::unique_ptr<link::ControllerSender> sender;
    std::size_t firstUniverse = 0;
  };
  std::vector<Line> lines;
  std::vector<PortChain> chains;
  std::shared_ptr<FrameBox> frames;
};

/// Why a controller cannot be sent to.
struct LineProblem {
  ControllerId controller;
  Failure failure;
};

/// Makes a program of `show`. Looks host names up and opens sockets; not for the output thread.
std::unique_ptr<Program> makeProgram(const Show& show, std::shared_ptr<const CompiledShow> compiled,
                                     const link::E131Source& source, std::vector<LineProblem>& problems);

}  // namespace chispa::engine
