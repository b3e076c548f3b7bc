// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QString>

#include "core/show/almanac.h"
#include "core/show/controllermemory.h"

namespace chispa::desk {

// What rules say, in the window's language.

/// "Fri–Sun, from 27 November to 6 January, not on 24 December".
QString daysText(const RuleDays& days);
/// "21:30", "dusk", "20 min before sunset".
QString nightTimeText(const NightTime& time);
/// "at 21:30, every day"; "contact 2".
QString startWords(const MemoryStart& start);

}  // namespace chispa::desk
