// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <optional>
#include <vector>

#include "core/check/problems.h"
#include "core/render/compiled.h"
#include "core/show/show.h"
#include "core/zone/pixelrow.h"

namespace chispa::cli {

/// A show read from a file, for the verbs.
struct OpenedShow {
  std::filesystem::path path;
  Show show;

  /// Reads it; if it cannot, says why on stderr and returns nothing.
  static std::optional<OpenedShow> open(const std::string& path);

  std::vector<Problem> problems() const;
  /// The show made ready, with its music; what is missing is said on stderr.
  std::shared_ptr<const CompiledShow> compiled() const;
  /// The score called `name`, or the first if `name` is empty; says so on stderr if there is none.
  const Score* score(const std::string& name) const;
  /// The fixtures and zones of those names, in that order; says on stderr which there is not.
  std::optional<std::vector<PixelRow>> rows(const std::vector<std::string>& names) const;
};

}  // namespace chispa::cli
