// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QString>

#include "core/effect/effect.h"

namespace chispa::desk {

/// Effects that the maker has marked come first wherever effects are offered; kept for all shows. UI thread.
bool isFavourite(const std::string& effect);
void setFavourite(const std::string& effect, bool on);

/// An effect as it is offered; the name of a favourite has a star before it.
struct OfferedEffect {
  const Effect* effect = nullptr;
  QString name;
};
/// All effects, favourites first, else in the order of the registry.
std::vector<OfferedEffect> offeredEffects();

}  // namespace chispa::desk
