// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// The palette editor: its colours as a strip and on a wheel of hues, the one at hand in numbers, harmonies,
/// and what the show's strips make of it.
std::unique_ptr<Form> makePaletteForm(const Session& session, PaletteId id);

}  // namespace chispa::desk
