// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <unordered_map>
#include <unordered_set>

#include "core/show/show.h"

namespace chispa {

/// Takes the items of a show one after the other and says which may not be in it together with those before:
/// their ids must differ, and their pixels, beads and clips must stay within core/show/limits.h, however they
/// are added up. Fixtures come before zones and controllers, blocks before scores.
class Admission {
 public:
  /// Why `item` cannot be in the show; empty if it can, and it counts from then on.
  std::string refuse(const StripType& strip);
  std::string refuse(const Fixture& fixture);
  std::string refuse(const Zone& zone);
  std::string refuse(const Underlay& underlay);
  std::string refuse(const Supply& supply);
  std::string refuse(const Controller& controller);
  std::string refuse(const Palette& palette);
  std::string refuse(const Block& block);
  std::string refuse(const Score& score);
  std::string refuse(const OwnEffect& effect);
  std::string refuse(const Look& look);
  std::string refuse(const Binding& binding);
  std::string refuse(const DeskInput& input);
  std::string refuse(const SetList& list);
  std::string refuse(const Rule& rule);

 private:
  /// What is known of a fixture without holding it.
  struct Size {
    std::int64_t pixels = 0;
    struct Grid {
      std::int64_t pixels = 0;
      int columns = 0;
      int rows = 0;
    };
    std::vector<Grid> segments;
  };

  template <class T>
  std::string refuseId(std::unordered_set<std::uint32_t>& taken, const T& item);
  static Size sizeOf(const Fixture& fixture);
  /// Pixels that a part takes, and the grid it has; a part that is no grid is a row.
  Size::Grid gridOf(const ZonePart& part) const;
  static std::int64_t placesOf(const Zone& zone, const std::vector<Size::Grid>& parts);

  std::unordered_set<std::uint32_t> strips_, zones_, underlays_, supplies_, controllers_, palettes_, scores_,
      effects_, looks_, bindings_, deskInputs_, setLists_, rules_;
  std::unordered_map<FixtureId, Size> fixtures_;
  std::unordered_map<BlockId, std::int64_t> blocks_;
  std::int64_t pixels_ = 0;
  std::int64_t zonePixels_ = 0;
  std::int64_t wired_ = 0;
  std::int64_t clips_ = 0;
  std::int64_t layers_ = 0;
  std::int64_t setListItems_ = 0;
};

}  // namespace chispa
