// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>

#include "node/faults.h"
#include "node/strip.h"

/// What the simulated controller is told over HTTP; accepted settings are shown, too.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  using namespace chispa::node;
  const std::string text(reinterpret_cast<const char*>(data), size);
  std::string why;
  if (const auto ports = parseSettings(text, 64, why)) {
    if (!parseSettings(toJson(*ports).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace), 64,
                       why))
      std::abort();
    constexpr std::size_t kMaxShown = 4;
    for (std::size_t i = 0; i < ports->size() && i < kMaxShown; ++i)
      showPort((*ports)[i], [](int universe, int channel) { return (universe + channel) & 255; }, false);
  }
  if (const auto faults = parseFaults(text, why))
    if (faults->drop_percent < 0 || faults->drop_percent > 100) std::abort();
  parseFaultWords(text, why);
  return 0;
}
