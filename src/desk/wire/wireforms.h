// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

// Each of one thing, or of what several have in common.

/// Changes when the rows of the controllers have to be made anew.
QString controllerFormKey(const Session& session, const ControllerIds& ids);
std::unique_ptr<Form> makeControllerForm(const Session& session, const ControllerIds& ids);
/// Ports, and for one of them a way to hang things on it without the mouse.
std::unique_ptr<Form> makePortForm(const Session& session, const PortChoices& ports);
std::unique_ptr<Form> makeBeadForm(const Session& session, const BeadPlaces& places);

}  // namespace chispa::desk
