// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cstdlib>
#include <span>

#include "link/merge.h"
#include "link/opc.h"

/// An Open Pixel Control stream cut anywhere says the same as in one piece; and merging takes whatever comes.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  using namespace chispa::link;
  const std::span<const std::uint8_t> stream(data, size);
  std::size_t whole = 0;
  std::size_t pieces = 0;
  OpcReader one;
  one.feed(stream, [&](const OpcReader::Message& message) { whole += message.data.size() + 4; });
  OpcReader two;
  const std::size_t step = size > 0 ? data[0] % 16 + 1u : 1;
  for (std::size_t at = 0; at < size; at += step)
    two.feed(stream.subspan(at, std::min(step, size - at)),
             [&](const OpcReader::Message& message) { pieces += message.data.size() + 4; });
  if (whole != pieces || whole > size) std::abort();
  UniverseMerge merge(size % 2 ? kE131Merge : kArtNetMerge,
                      size % 3 ? MergeRule::HighestWins : MergeRule::LatestWins);
  std::chrono::milliseconds now{0};
  for (std::size_t at = 0; at + 4 < size; at += 4) {
    now += std::chrono::milliseconds(data[at] * 8);
    merge.accept({std::string(1, static_cast<char>(data[at + 1] % 5)), "", data[at + 2] % 201, data[at + 3],
                  data[at] % 17 == 0, stream.subspan(at)},
                 now);
  }
  if (merge.sources().size() > kE131Merge.maxSources) std::abort();
  return 0;
}
