// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QString>

#include "core/show/show.h"

class QMimeData;

namespace chispa {
struct Effect;
}

namespace chispa::desk {

/// What is dragged from the shelf: the words of a thing; and from the list of palettes: the palette's number.
inline constexpr const char* kEffectMime = "application/x-chispa-effect";
inline constexpr const char* kPaletteMime = "application/x-chispa-palette";
/// Files of the desktop.
inline constexpr const char* kFilesMime = "text/uri-list";

/// What the shelf offers: an effect, one of the show's own with its values, or a block.
struct ChosenThing {
  std::string effect;
  ParamValues params = {};
  BlockId block = {};
  OwnEffectId own = {};
};

/// Its words: an effect's key, with "#" and a number for one of its settings; "own:" or "block:" and a
/// number.
QString wordsOf(const Effect& effect, int setting);
QString wordsOf(OwnEffectId id);
QString wordsOf(BlockId id);
/// What the words mean in `show`.
ChosenThing chosenThing(const Show& show, const QString& words);

/// The palette that is dragged, if one is.
std::optional<PaletteId> paletteOf(const QMimeData& data);

}  // namespace chispa::desk
