// SPDX-License-Identifier: GPL-3.0-or-later
// What the parts of a show are called in files and what they may hold, member by member. The reader and the
// writer of files and the check of every edit go through the same descriptions, so that none of them can
// disagree with another.
//
// A visitor has a method for each kind of member: `v.number(key, member, low, high)` and the like. A last
// argument `&plain.member` says that the member is left out of files while it equals its default. `require`
// and `inOrder` say what members must be together.
#pragma once
#include "core/show/planfields.h"
#include "core/show/runfields.h"
#include "core/show/scorefields.h"
#include "core/show/wirefields.h"
