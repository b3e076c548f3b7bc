// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/wire/portsettings.h"

namespace chispa::link {

/// One setting that differs between what a controller has and what the show wants.
struct SettingDifference {
  std::string place;
  std::string there;
  std::string wanted;
};

/// What a set-up changed.
struct SetupReport {
  std::vector<SettingDifference> differences;
  /// True if the controller, read again afterwards, had what was wanted.
  bool verified = false;
};

/// Reads the settings of `controller` through its set-up interface (docs/node-interface.md) and compares them with
/// what the show wants.
Result<SetupReport> compareSetup(const Controller& controller, const std::vector<PortSettings>& wanted);
/// The same, then writes the wanted ones and reads them back.
Result<SetupReport> pushSetup(const Controller& controller, const std::vector<PortSettings>& wanted);
/// The state of a node, as its JSON text.
Result<std::string> readNodeState(const Controller& controller);

}  // namespace chispa::link
