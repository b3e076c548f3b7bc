// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>

#include "core/check/problems.h"
#include "core/files/showjson.h"
#include "core/render/compiled.h"

/// Show files: what is read is written and read as the same, and can be compiled and inspected.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  const auto show = chispa::parseShow({reinterpret_cast<const char*>(data), size}, "fuzz");
  if (!show || chispa::pixelCount(*show) > 20'000) return 0;
  const auto again = chispa::parseShow(chispa::showText(*show), "fuzz");
  if (!again) std::abort();
  chispa::findProblems(*show, [](const std::string&) { return true; });
  chispa::compile(*show, {});
  return 0;
}
