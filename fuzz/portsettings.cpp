// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/portsettings.h"

#include <cstdlib>

#include <nlohmann/json.hpp>

/// Settings of controllers, as they answer over HTTP.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto settings = chispa::parsePortSettings({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (settings && !chispa::parsePortSettings(chispa::toJson(*settings).dump(), "fuzz")) std::abort();
  return 0;
}
