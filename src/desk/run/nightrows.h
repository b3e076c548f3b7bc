// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/almanac.h"
#include "desk/parts/partaccess.h"

namespace chispa::desk {

/// Rows for days: seven buttons, from and to, only on, not on. `key` begins the names of the fields.
void addDays(Form& form, const QString& key, const PartAccess<RuleDays>& days);
/// Rows for an instant of a night; `isClock` says which of the two it is when the form is made.
void addNightTime(Form& form, const QString& key, const QString& label, const PartAccess<NightTime>& time,
                  bool isClock);

}  // namespace chispa::desk
