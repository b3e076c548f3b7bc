// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/wire/portsettings.h"

namespace httplib {
class Client;
}

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

/// Reads the settings of `controller` through its set-up interface (docs/node-interface.md; for Art-Net nodes without one
/// ArtPoll) and compares them with what the show wants.
Result<SetupReport> compareSetup(const Controller& controller, const std::vector<PortSettings>& wanted);
/// The same, then writes the wanted ones and reads them back. Fails only if nothing was written: a write that broke off
/// is reported port by port.
Result<SetupReport> pushSetup(const Controller& controller, const std::vector<PortSettings>& wanted);
/// The settings it has.
Result<std::vector<PortSettings>> readSetup(const Controller& controller);
/// The state of a node, as its JSON text.
Result<std::string> readNodeState(const Controller& controller);

// Parts that the ways to a controller share.
std::string setupPlace(const Controller& controller);
Failure noSetupAnswer(const Controller& controller, const std::string& why);
httplib::Client nodeClient(const Controller& controller);
Result<std::string> getFromNode(const Controller& controller, const std::string& path);

}  // namespace chispa::link
