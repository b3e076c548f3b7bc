// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/controller.h"

namespace chispa::link {

/// What a controller held before something else was written to it.
struct KeptText {
  std::filesystem::path file;
  /// "2026-11-23 14:05:09", local time.
  std::string when;
  std::string text;
};

/// Keeps what controllers held in a folder, a file each time, so that it can be put back in a later session
/// too.
class KeptFiles {
 public:
  explicit KeptFiles(std::filesystem::path folder) : folder_(std::move(folder)) {}

  Outcome keep(const Controller& controller, const std::string& text) const;
  /// What is kept of the controller at this address, the newest first.
  std::vector<KeptText> keptOf(const Controller& controller) const;

 private:
  std::filesystem::path folder_;
};

}  // namespace chispa::link
