// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cstdlib>

#include "core/files/labelfile.h"

/// Label tracks, WebVTT and LRC: what is read is in order of time.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size == 0) return 0;
  const auto format = static_cast<chispa::LabelFormat>(data[0] % 3);
  const auto marks = chispa::parseLabels({reinterpret_cast<const char*>(data + 1), size - 1}, format, "fuzz");
  if (marks &&
      !std::is_sorted(marks->begin(), marks->end(), [](const auto& a, const auto& b) { return a.at < b.at; }))
    std::abort();
  return 0;
}
