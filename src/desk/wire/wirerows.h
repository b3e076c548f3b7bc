// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include "core/edit/wireedits.h"
#include "core/wire/patch.h"
#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

// Rows that the forms of ports and beads have in common.

/// The settings of all that are selected.
using SettingsGet = std::function<std::vector<const WireSettings*>()>;
using SettingsChange = std::function<void(const QString& name, const std::function<void(WireSettings&)>&)>;

inline ChainPlace chainPlace(const BeadPlace& place) {
  return {place.controller, place.port, place.bead};
}
inline std::vector<ChainPlace> chainPlaces(const BeadPlaces& places) {
  std::vector<ChainPlace> all;
  for (const BeadPlace& place : places) all.push_back(chainPlace(place));
  return all;
}
/// The dimming curve of a bead that has none of its own.
Response responseAbove(const Show& show, const WireSettings& port, const Bead& bead);
/// Rows of what ports or beads say otherwise than their strip type; empty fields say nothing, or not the same
/// of all.
/// `otherwise` is the dimming curve of what stands above.
void addSettings(Form& form, const Session& session, const QString& prefix, const SettingsGet& get,
                 const SettingsChange& change, const std::function<Response()>& otherwise);
/// A start that is kept, and whether it is.
void addFixedStart(Form& form, const QString& prefix, const std::function<std::optional<FixedStart>()>& get,
                   const std::function<FixedStart()>& now,
                   const std::function<void(std::optional<FixedStart>)>& set);
/// Where the values of a bead go, in data order.
std::vector<PatchSpan> spansOf(const Show& show, const ChainPlace& place);
/// Where the first bead of a port, or a bead of it, begins now.
FixedStart startOf(const Show& show, ControllerId controller, int port, int bead);

}  // namespace chispa::desk
