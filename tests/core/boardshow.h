// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/board/write.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa::test {

/// A show with one fixture and a zone of all of it, for boards.
struct BoardShow {
  Show show;
  FixtureId fixture;
  ZoneId zone;
  PaletteId palette;

  explicit BoardShow(Shape shape, StripType type = {}) {
    type.id = show.newId<StripTypeId>();
    type.name = "Meadow";
    put(show.stripTypes, type);
    fixture = show.newId<FixtureId>();
    put(show.fixtures, Fixture{fixture, "Lamp", type.id, {}, {{"run", std::move(shape), {}}}});
    zone = show.newId<ZoneId>();
    Zone all;
    all.id = zone;
    all.name = "All";
    ZonePart part;
    part.fixture = fixture;
    all.parts = {part};
    put(show.zones, all);
    palette = show.newId<PaletteId>();
    put(show.palettes,
        Palette{palette,
                "Dusk",
                {{0, {20, 0, 60}}, {0.3, {190, 20, 40}}, {0.6, {255, 150, 0}}, {1, {250, 250, 210}}}});
  }

  Clip clip(const std::string& effect, ParamValues params = {}) const {
    Clip made;
    made.zone = zone;
    made.palette = palette;
    made.effect = effect;
    made.params = std::move(params);
    made.length = Micros(8'000'000);
    made.seed = 77;
    return made;
  }
  LookId addLookOf(std::vector<Clip> clips) {
    const LookId id = addLook(show, "Look", std::move(clips));
    changeItem(show.looks, id, [](Look& look) { look.fadeIn = Micros(0); });
    return id;
  }
  ScoreId addScoreOf(std::vector<Clip> clips, Micros length) {
    Score score;
    score.id = show.newId<ScoreId>();
    score.name = "Score";
    score.length = length;
    score.staves = {zone};
    for (Clip& clip : clips) {
      clip.id = show.newId<ClipId>();
      score.clips.push_back(std::make_shared<const Clip>(std::move(clip)));
    }
    put(show.scores, score);
    return score.id;
  }
  board::BoardPlan planOf(SceneId scene, board::BoardOptions options = {}) const {
    return {{board::BoardRun(fixture)}, {{scene, 0}}, options};
  }
  Result<board::BoardLight> write(const board::BoardPlan& plan) const {
    return board::writeBoard(show, *compile(show), plan, {});
  }
};

}  // namespace chispa::test
