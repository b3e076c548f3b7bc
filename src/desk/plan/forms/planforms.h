// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

class PlanView;

/// Properties of the selected fixtures and of their chosen segment; rows differ by the shape it has. Some
/// buttons put a tool into the hand of `plan`.
std::unique_ptr<Form> makeFixtureForm(const Session& session, const FixtureIds& ids, PlanView& plan);
/// Tells which rows the form has: where it changes, the form must be made anew.
QString fixtureFormKey(const Session& session, const FixtureIds& ids);
/// What a reel of strip is; shared by all fixtures made of it.
std::unique_ptr<Form> makeStripTypeForm(const Session& session, StripTypeId id);
/// Properties of a zone, and how to divide it.
/// Of one zone, or what several have in common.
std::unique_ptr<Form> makeZoneForm(const Session& session, const ZoneIds& ids, PlanView& plan);
QString zoneFormKey(const Session& session, const ZoneIds& ids);
std::unique_ptr<Form> makeUnderlayForm(const Session& session, UnderlayId id, PlanView& plan);
/// What the inspector shows when nothing is selected: the show as a whole.
std::unique_ptr<Form> makeShowForm(const Session& session);

}  // namespace chispa::desk
