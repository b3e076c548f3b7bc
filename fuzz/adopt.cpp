// SPDX-License-Identifier: GPL-3.0-or-later
// What a controller says of itself becomes a show, and that is played.
#include <cstddef>
#include <cstdint>

#include "fuzz/played.h"

#include "core/edit/adoptsetup.h"
#include "core/edit/wireedits.h"
#include "core/files/portsettings.h"
#include "core/rules/invariants.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto ports =
      chispa::parsePortSettings(std::string(reinterpret_cast<const char*>(data), size), "fuzz");
  if (!ports) return 0;
  chispa::Show show;
  const chispa::ControllerId box = chispa::addController(show, 4);
  chispa::adoptSetup(show, box, *ports);
  // As the document does: what breaks an invariant is not taken.
  if (!chispa::brokenInvariant(show)) chispa::fuzz::play(show);
  return 0;
}
