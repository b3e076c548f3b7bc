// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/wireedits.h"
#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Rows of all supplies: their voltage, budget, and what is drawn from them.
void addSupplies(Form& form, const Session& session);
/// Rows of the power pins of a bead.
void addInjections(Form& form, const Session& session, const ChainPlace& place);
/// Changes when these rows have to be made anew.
QString suppliesKey(const Show& show);

}  // namespace chispa::desk
