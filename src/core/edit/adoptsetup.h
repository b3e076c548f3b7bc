// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/files/portsettings.h"
#include "core/show/show.h"

namespace chispa {

/// Hangs what a controller is set up for on its ports: for each section a straight strip of as many pixels,
/// of a strip type of its channel order. Starts that do not follow from the order are pinned, so that the
/// addresses are those that it has. What hung there before is taken off. Returns how many strips were made.
int adoptSetup(Show& show, ControllerId id, const std::vector<PortSettings>& ports);

}  // namespace chispa
