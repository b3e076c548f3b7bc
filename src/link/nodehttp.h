// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/base/result.h"
#include "core/show/controller.h"

namespace chispa::link {

// The node interface of a controller over HTTP (docs/node-interface.md). Calls wait for the network, seconds
// at most.

/// "Rim box (127.0.0.11:8090)".
std::string setupPlace(const Controller& controller);

/// What a controller answered, whether it is what was asked for or not.
struct NodeAnswer {
  int status = 0;
  std::string body;
};
/// GET of `path`; a body of 32 MB at most. Fails if nobody answers.
Result<NodeAnswer> askNode(const Controller& controller, const std::string& path);
/// PUTs JSON and waits `patience_s` for the answer.
Result<NodeAnswer> tellNode(const Controller& controller, const std::string& path, const std::string& json,
                            int patience_s);

/// The body that GET of `path` answers; fails if it answers anything but 200.
Result<std::string> getFromNode(const Controller& controller, const std::string& path);
/// PUTs JSON; fails with the controller's own words if it refuses.
Outcome putToNode(const Controller& controller, const std::string& path, const std::string& json);

}  // namespace chispa::link
