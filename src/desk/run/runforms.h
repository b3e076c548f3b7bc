// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// A look: pad, fades, steps, layers. The step it speaks of is Selection::segment().
std::unique_ptr<Form> makeLookForm(const Session& session, LookId id);
QString lookFormKey(const Session& session, LookId id);

/// What drives what, how, and what it says now.
std::unique_ptr<Form> makeBindingForm(const Session& session, BindingId id);
QString bindingFormKey(const Session& session, BindingId id);

/// A zone that listens to a desk.
std::unique_ptr<Form> makeDeskInputForm(const Session& session, DeskInputId id);

}  // namespace chispa::desk
