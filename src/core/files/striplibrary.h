// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <vector>

#include "core/base/result.h"
#include "core/show/striptype.h"

namespace chispa {

/// Strip types that a maker keeps for all shows: one JSON file, in the form that shows have them in. One
/// program at a time should write it; what it cannot read is not overwritten.
class StripLibrary {
 public:
  explicit StripLibrary(std::filesystem::path file) : file_(std::move(file)) {}

  /// By name; empty if nothing was kept yet.
  Result<std::vector<StripType>> read() const;
  /// Keeps a type; one of the same name is replaced.
  Outcome keep(const StripType& strip) const;

 private:
  std::filesystem::path file_;
};

}  // namespace chispa
