// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/files/portsettings.h"

namespace chispa::link {

/// One setting that differs between what a controller has and what the show wants.
struct SettingDifference {
  /// "port 3".
  std::string place;
  std::string there;
  std::string wanted;
  /// After writing: what it has now, and whether that is what was wanted.
  std::string now;
  bool isWritten = false;
};

/// What a set-up changed.
struct SetupReport {
  std::vector<SettingDifference> differences;
  /// True if the controller, read again afterwards, had what was wanted.
  bool verified = false;
  /// What it had before, as parsePortSettings() reads it.
  std::string before;
  /// Why writing failed, if it did; the differences tell how far it came.
  std::string trouble;
};

/// Reads the settings of `controller` through its set-up interface (docs/node-interface.md; for Art-Net nodes
/// without one ArtPoll) and compares them with what the show wants.
Result<SetupReport> compareSetup(const Controller& controller, const std::vector<PortSettings>& wanted);
/// Takes the old settings (SetupReport::before) before others are written; if it fails, nothing is.
using KeepOld = std::function<Outcome(const std::string& before)>;
/// The same, then writes the wanted ones and reads them back. Fails only if nothing was written: a write that
/// broke off is reported port by port.
Result<SetupReport> pushSetup(const Controller& controller, const std::vector<PortSettings>& wanted,
                              const KeepOld& keep = {});
/// The settings it has.
Result<std::vector<PortSettings>> readSetup(const Controller& controller);

}  // namespace chispa::link
