// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <unordered_map>
#include <unordered_set>

#include "core/render/compiled.h"

namespace chispa {

/// What a version of a show has in common with the one that was compiled before it. Things are the same if
/// they are the very same objects: an edit makes new ones of what it changes.
class Reuse {
 public:
  /// `before` may be null: then nothing is the same. All must live as long.
  Reuse(const Show& show, const MediaLibrary& media, const CompiledShow* before);

  /// The pixels' places; null if they must be worked out.
  std::shared_ptr<const PixelMap> map() const;
  /// True if what is packed where, and what it draws, is as before.
  bool keepsWiring() const;
  /// Null where they must be worked out; `map` is that of the new version.
  std::shared_ptr<const ZoneCells> cells(const Zone& zone, const PixelMap& map) const;
  std::shared_ptr<const PaletteTable> palette(PaletteId id) const;
  /// The clips of the lane of `zone` in `score`, whose grid is there, if it was made of the same ones; null
  /// if not. Their palettes may have changed.
  std::shared_ptr<const CompiledClips> clips(const CompiledScore& score, ZoneId zone,
                                             const std::vector<const Clip*>& madeOf) const;
  /// The score as it was if its lanes light the same pixels now; null if not.
  const CompiledScore* lanesOf(const CompiledScore& score) const;

 private:
  const Show& show_;
  const CompiledShow* before_;
  /// Pictures and settings of light are as before.
  bool isLitAlike_ = false;
  /// Fixtures that are not the very same as before, and those of them that differ by more than where they
  /// stand.
  std::unordered_set<FixtureId> changed_;
  std::unordered_set<FixtureId> reshaped_;
  std::unordered_map<const Zone*, std::shared_ptr<const ZoneCells>> cells_;
};

}  // namespace chispa
