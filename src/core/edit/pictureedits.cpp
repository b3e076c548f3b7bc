// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/pictureedits.h"

#include <algorithm>
#include <cmath>

#include "core/edit/clipedits.h"
#include "core/effect/effect.h"

namespace chispa {
namespace {

const ParamSpec* specOf(const Clip& clip, const std::string& key) {
  const Effect* effect = findEffect(clip.effect);
  if (!effect) return nullptr;
  const auto found = std::find_if(effect->params.begin(), effect->params.end(),
                                  [&](const ParamSpec& spec) { return spec.key == key; });
  return found == effect->params.end() ? nullptr : &*found;
}

}  // namespace

std::vector<ClipId> pictureClips(const Score& score, const std::vector<ClipId>& clips) {
  std::vector<ClipId> found;
  for (const ClipId id : clips)
    if (const Clip* clip = find(score.clips, id); clip && specOf(*clip, "upside_down")) found.push_back(id);
  return found;
}

void turnPictures(Show& show, ScoreId score, const std::vector<ClipId>& clips, double by_deg) {
  changeClips(show, score, clips, [by_deg](Clip& clip) {
    const ParamSpec* spec = specOf(clip, "turned");
    if (!spec) return;
    const double* now = std::get_if<double>(&valueOf(*spec, clip.params));
    const double turned = std::remainder((now ? *now : 0) + by_deg, 360);
    clip.params["turned"] = turned == -180 ? 180 : turned;
  });
}

void switchPictures(Show& show, ScoreId score, const std::vector<ClipId>& clips, const std::string& key) {
  changeClips(show, score, clips, [&key](Clip& clip) {
    const ParamSpec* spec = specOf(clip, key);
    if (!spec) return;
    const bool* now = std::get_if<bool>(&valueOf(*spec, clip.params));
    clip.params[key] = !(now && *now);
  });
}

}  // namespace chispa
