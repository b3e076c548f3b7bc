// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// A set list: its name, its rounds, its order.
std::unique_ptr<Form> makeSetListForm(const Session& session, SetListId id);

/// A line of a set list: how long, how often, how it fades, what follows.
std::unique_ptr<Form> makeSetListLineForm(const Session& session, const LineChoice& choice);
QString setListLineFormKey(const Session& session, const LineChoice& choice);

/// A rule of the almanac: what plays, on which days, from when until when.
std::unique_ptr<Form> makeRuleForm(const Session& session, RuleId id);
QString ruleFormKey(const Session& session, RuleId id);

/// Where the installation stands, and what is lit between the rules.
std::unique_ptr<Form> makeAlmanacForm(const Session& session);
QString almanacFormKey(const Session& session);

}  // namespace chispa::desk
