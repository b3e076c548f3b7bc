// SPDX-License-Identifier: GPL-3.0-or-later
// A journal that a crash left, line by line.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <filesystem>
#include <fstream>

#include <unistd.h>

#include "core/files/journal.h"
#include "core/rules/invariants.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const std::filesystem::path folder = "/tmp/chispa-fuzz-journals-" + std::to_string(::getpid());
  std::filesystem::create_directories(folder);
  std::ofstream(folder / "journal-fuzz.jsonl", std::ios::binary | std::ios::trunc)
      .write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
  const auto found = chispa::findLeftJournals(folder);
  for (const auto& left : found.left)
    if (chispa::brokenInvariant(left.show)) std::abort();
  std::filesystem::remove_all(folder);
  return 0;
}
