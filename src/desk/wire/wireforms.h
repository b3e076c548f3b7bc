// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Changes when the rows of the controller have to be made anew.
QString controllerFormKey(const Session& session, ControllerId id);
std::unique_ptr<Form> makeControllerForm(const Session& session, ControllerId id);
/// A port, and a way to hang things on it without the mouse.
std::unique_ptr<Form> makePortForm(const Session& session, PortChoice port);
std::unique_ptr<Form> makeBeadForm(const Session& session, BeadPlace place);

}  // namespace chispa::desk
