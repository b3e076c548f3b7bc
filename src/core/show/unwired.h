// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// A stretch of a fixture that hangs nowhere yet.
struct UnwiredPiece {
  FixtureId fixture;
  int first = 0;
  int count = 0;

  bool operator==(const UnwiredPiece&) const = default;
};

/// What hangs on no port, in the order of the fixtures.
std::vector<UnwiredPiece> unwiredPieces(const Show& show);

}  // namespace chispa
