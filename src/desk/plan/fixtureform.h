// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Properties of the selected fixtures; rows differ by the shape they have.
std::unique_ptr<Form> makeFixtureForm(const Session& session, const FixtureIds& ids);
/// What a reel of strip is; shared by all fixtures made of it.
std::unique_ptr<Form> makeStripTypeForm(const Session& session, StripTypeId id);
/// Properties of a zone.
std::unique_ptr<Form> makeZoneForm(const Session& session, ZoneId id);
/// What the inspector shows when nothing is selected: the show as a whole.
std::unique_ptr<Form> makeShowForm(const Session& session);

}  // namespace chispa::desk
