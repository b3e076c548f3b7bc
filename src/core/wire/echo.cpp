// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/echo.h"

namespace chispa {
namespace {

bool hasFixedStart(const Show& show, const PatchSpan& span) {
  const Port& port =
      show.controllers[static_cast<std::size_t>(span.controller)]->ports[static_cast<std::size_t>(span.port)];
  return port.run[static_cast<std::size_t>(span.bead)].fixedStart.has_value() ||
         (span.bead == 0 && port.fixedStart.has_value());
}

}  // namespace

bool isEcho(const Show& show, const PatchSpan& first, const PatchSpan& second) {
  if (first.controller != second.controller || (first.port == second.port && first.bead == second.bead))
    return false;
  const bool isOver = first.universe == second.universe && first.channel == second.channel;
  const bool isAlike = first.channelCount() == second.channelCount() &&
                       first.channelsPerPixel == second.channelsPerPixel && first.pixels == second.pixels &&
                       first.pixelsPerValue == second.pixelsPerValue;
  return isOver && isAlike && (hasFixedStart(show, first) || hasFixedStart(show, second));
}

}  // namespace chispa
