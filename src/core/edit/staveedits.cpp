// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/staveedits.h"

#include <algorithm>

namespace chispa {
namespace {

using Staves = std::vector<ZoneId>;

Staves::iterator placeOf(Score& score, ZoneId zone) {
  return std::find(score.staves.begin(), score.staves.end(), zone);
}

StaveFolder* folderIn(Score& score, const std::string& name) {
  const auto found = std::find_if(score.folders.begin(), score.folders.end(),
                                  [&](const StaveFolder& f) { return f.name == name; });
  return found == score.folders.end() ? nullptr : &*found;
}

void leaveFolders(Score& score, ZoneId zone) {
  for (StaveFolder& folder : score.folders) std::erase(folder.zones, zone);
}

/// Name of the zone's folder; empty if it is in none.
std::string folderName(const Score& score, ZoneId zone) {
  const StaveFolder* folder = folderOf(score, zone);
  return folder ? folder->name : std::string();
}

void join(Score& score, ZoneId zone, const std::string& name) {
  leaveFolders(score, zone);
  if (StaveFolder* folder = folderIn(score, name)) folder->zones.push_back(zone);
}

/// Brings the staves of each folder together below its first, lists them in the order of the staves, and lets
/// empty folders go.
void tidy(Score& score) {
  for (StaveFolder& folder : score.folders) {
    const auto isIn = [&](ZoneId zone) {
      return std::find(folder.zones.begin(), folder.zones.end(), zone) != folder.zones.end();
    };
    const auto first = std::find_if(score.staves.begin(), score.staves.end(), isIn);
    std::stable_partition(first, score.staves.end(), isIn);
    Staves inOrder;
    std::copy_if(score.staves.begin(), score.staves.end(), std::back_inserter(inOrder), isIn);
    folder.zones = std::move(inOrder);
  }
  std::erase_if(score.folders, [](const StaveFolder& folder) { return folder.zones.empty(); });
}

}  // namespace

const StaveFolder* folderOf(const Score& score, ZoneId zone) {
  const auto found = std::find_if(score.folders.begin(), score.folders.end(), [zone](const StaveFolder& f) {
    return std::find(f.zones.begin(), f.zones.end(), zone) != f.zones.end();
  });
  return found == score.folders.end() ? nullptr : &*found;
}

std::string freeFolderName(const Score& score, const std::string& base) {
  std::string name = base;
  const auto isTaken = [&] {
    return std::any_of(score.folders.begin(), score.folders.end(),
                       [&](const StaveFolder& f) { return f.name == name; });
  };
  for (int n = 2; isTaken(); ++n) name = base + " " + std::to_string(n);
  return name;
}

void placeStave(Show& show, ScoreId id, ZoneId zone, ZoneId before) {
  if (!find(show.zones, zone) || zone == before) return;
  changeItem(show.scores, id, [&](Score& score) {
    std::erase(score.staves, zone);
    join(score, zone, folderName(score, before));
    score.staves.insert(placeOf(score, before), zone);
    tidy(score);
  });
}

void moveStave(Show& show, ScoreId id, ZoneId zone, bool up) {
  changeItem(show.scores, id, [&](Score& score) {
    const auto own = placeOf(score, zone);
    if (own == score.staves.end() || (up && own == score.staves.begin()) ||
        (!up && std::next(own) == score.staves.end()))
      return;
    const auto neighbour = up ? std::prev(own) : std::next(own);
    const std::string there = folderName(score, *neighbour);
    // At the edge of its folder it first leaves it, or enters the neighbour's, and stays where it stands.
    if (there != folderName(score, zone)) {
      join(score, zone, folderName(score, zone).empty() ? there : std::string());
      return tidy(score);
    }
    std::iter_swap(own, neighbour);
    tidy(score);
  });
}

void removeStave(Show& show, ScoreId id, ZoneId zone) {
  changeItem(show.scores, id, [&](Score& score) {
    std::erase(score.staves, zone);
    leaveFolders(score, zone);
    std::erase_if(score.clips, [zone](const auto& clip) { return clip->zone == zone; });
    tidy(score);
  });
}

void putInFolder(Show& show, ScoreId id, const std::vector<ZoneId>& zones, const std::string& name) {
  changeItem(show.scores, id, [&](Score& score) {
    if (!folderIn(score, name)) score.folders.push_back({name, {}, false});
    for (const ZoneId zone : zones)
      if (placeOf(score, zone) != score.staves.end()) join(score, zone, name);
    tidy(score);
  });
}

void takeOutOfFolder(Show& show, ScoreId id, ZoneId zone) {
  changeItem(show.scores, id, [&](Score& score) {
    const StaveFolder* folder = folderOf(score, zone);
    if (!folder) return;
    const ZoneId last = folder->zones.back();
    leaveFolders(score, zone);
    if (last != zone) {
      std::erase(score.staves, zone);
      score.staves.insert(std::next(placeOf(score, last)), zone);
    }
    tidy(score);
  });
}

void renameFolder(Show& show, ScoreId id, const std::string& from, const std::string& to) {
  changeItem(show.scores, id, [&](Score& score) {
    // Two folders of one name could not be told apart.
    StaveFolder* folder = folderIn(score, from);
    if (!folder) return;
    folder->name.clear();
    folder->name = freeFolderName(score, to);
  });
}

}  // namespace chispa
