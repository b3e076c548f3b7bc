// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QString>

#include "core/effect/effect.h"

namespace chispa::desk {

/// Effects that the maker has marked come first wherever effects are offered; kept for all shows. UI thread.
bool isFavourite(const std::string& effect);
void setFavourite(const std::string& effect, bool on);
/// All effects, favourites first, else in the order of the registry.
std::vector<const Effect*> effectsFavouritesFirst();
/// The effect's name; a favourite's has a star before it.
QString starredName(const Effect& effect);

}  // namespace chispa::desk
