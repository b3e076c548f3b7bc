// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/files/portsettings.h"

namespace chispa::link {

/// The way to a controller's settings. Calls wait for the network.
class SetupTransport {
 public:
  virtual ~SetupTransport() = default;
  virtual Result<std::vector<PortSettings>> read() = 0;
  /// Writes settings; on failure some ports may have been written.
  virtual Outcome write(const std::vector<PortSettings>& wanted) = 0;
  /// True if ports that are not among those written have nothing afterwards; else they keep what they had.
  virtual bool replacesAll() const { return false; }
  /// What of wanted settings can be written and read here at all.
  virtual std::vector<PortSettings> reachable(const std::vector<PortSettings>& wanted) const {
    return wanted;
  }
};

/// The node interface if the controller has a set-up port (docs/node-interface.md); else ArtAddress if it
/// speaks Art-Net, which reaches the universe of each port. Fails if it has neither.
Result<std::unique_ptr<SetupTransport>> openSetupTransport(const Controller& controller);

}  // namespace chispa::link
