// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <vector>

#include "core/base/result.h"
#include "core/show/controller.h"
#include "core/wire/portsettings.h"

namespace chispa::link {

/// What a controller had before it was set up.
struct KeptSetup {
  std::filesystem::path file;
  /// "2026-11-23 14:05:09", local time.
  std::string when;
  std::vector<PortSettings> ports;
};

/// Keeps the old settings of controllers in a folder, a file each, so that they can be put back in a later
/// session too.
class SetupStore {
 public:
  explicit SetupStore(std::filesystem::path folder) : folder_(std::move(folder)) {}
  /// `$XDG_STATE_HOME/chispa/setups`.
  static SetupStore ofUser();

  /// Keeps `settings` (the text of SetupReport::before) of a controller.
  Outcome keep(const Controller& controller, const std::string& settings) const;
  /// What is kept of the controller at this address, the newest first. Files that cannot be read are left
  /// out.
  std::vector<KeptSetup> keptOf(const Controller& controller) const;

 private:
  std::filesystem::path folder_;
};

}  // namespace chispa::link
