// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Properties of the selected clips; the effect's own parameters if all have the same effect.
std::unique_ptr<Form> makeClipForm(const Session& session, const ClipIds& ids);
/// What the rows of makeClipForm() depend on: when it changes, the form has to be made anew.
QString clipFormKey(const Session& session, const ClipIds& ids);

/// Properties of one layer of a look.
std::unique_ptr<Form> makeLayerForm(const Session& session, LookId look, ClipId layer);
QString layerFormKey(const Session& session, LookId look, ClipId layer);

/// Name, sound, length and lanes of a score.
std::unique_ptr<Form> makeScoreForm(const Session& session, ScoreId id);
QString scoreFormKey(const Session& session, ScoreId id);

/// Name and place of a mark of the open score.
std::unique_ptr<Form> makeMarkForm(const Session& session, MarkId id);

/// Several marks: moved, spread, stretched and put on beats together.
std::unique_ptr<Form> makeMarksForm(const Session& session);

}  // namespace chispa::desk
