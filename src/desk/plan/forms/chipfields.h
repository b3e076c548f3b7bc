// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include "core/show/striptype.h"
#include "desk/parts/form.h"

namespace chispa::desk {

using StripGet = std::function<const StripType*()>;
/// Takes the words for undo, and what to change.
using StripChange = std::function<void(const QString&, std::function<void(StripType&)>)>;

/// Rows of the colours of a strip's chips, where they are known.
void addChips(Form& form, const StripGet& get, const StripChange& change);

}  // namespace chispa::desk
