// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/striptype.h"

namespace chispa {

/// A kind of strip that is on sale, with typical values, and where they come from.
struct StripKind {
  StripType strip;
  std::string goodFor;
  std::string source;
};

/// The kinds of strip that ship with Chispa (stripkinds.json), in its order. Their white point makes daylight
/// of the light that data sheets state for each chip.
const std::vector<StripKind>& stripKinds();

/// Those of a text in the form of stripkinds.json.
Result<std::vector<StripKind>> readStripKinds(const std::string& text);

}  // namespace chispa
