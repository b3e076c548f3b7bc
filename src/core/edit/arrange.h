// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

// Edits that set fixtures in order. Axes and normals are directions in the world, of length 1.

/// Which ends of things are brought in line: those nearest to where the axis comes from, the middles, or the
/// far ones.
enum class Align { Low, Middle, High };

void alignFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis, Align align);
/// Middles at equal distances along the axis; the first and last stay. Nothing happens to fewer than three.
void distributeFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis);
/// Turns fixtures into what a mirror shows of them: it stands in the middle of them all and faces along the
/// axis.
void mirrorFixtures(Show& show, const std::vector<FixtureId>& ids, Vec3 axis);

/// Makes fixtures one group called `name`, or takes them out of theirs if it is empty.
void groupFixtures(Show& show, const std::vector<FixtureId>& ids, const std::string& name);
/// The fixtures, then all others that are in a group with one of them.
std::vector<FixtureId> withGroups(const Show& show, const std::vector<FixtureId>& ids);

}  // namespace chispa
