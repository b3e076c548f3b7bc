// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/files/portsettings.h"
#include "link/keptfiles.h"

namespace chispa::link {

/// What a controller had before it was set up.
struct KeptSetup {
  std::filesystem::path file;
  /// "2026-11-23 14:05:09", local time.
  std::string when;
  std::vector<PortSettings> ports;
};

/// Keeps the old settings of controllers (KeptFiles).
class SetupStore {
 public:
  explicit SetupStore(std::filesystem::path folder) : files_(std::move(folder)) {}
  /// `$XDG_STATE_HOME/chispa/setups`.
  static SetupStore ofUser();

  /// Keeps `settings` (the text of SetupReport::before) of a controller.
  Outcome keep(const Controller& controller, const std::string& settings) const {
    return files_.keep(controller, settings);
  }
  /// What is kept of the controller at this address, the newest first. Files that cannot be read are left
  /// out.
  std::vector<KeptSetup> keptOf(const Controller& controller) const;

 private:
  KeptFiles files_;
};

}  // namespace chispa::link
