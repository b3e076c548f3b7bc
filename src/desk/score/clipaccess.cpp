// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/clipaccess.h"

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"

namespace chispa::desk {
namespace {

class ScoreClips final : public ClipAccess {
 public:
  ScoreClips(ScoreId score, const ClipIds& ids) : score_(score), ids_(ids), set_(ids.begin(), ids.end()) {}

  void each(const Show& show, const std::function<bool(const Clip&)>& visit) const override {
    if (const Score* score = chispa::find(show.scores, score_)) eachClip(*score, set_, visit);
  }
  void change(Show& show, const std::function<void(Clip&)>& edit) const override {
    changeClips(show, score_, ids_, edit);
  }

 private:
  ScoreId score_;
  ClipIds ids_;
  ClipSet set_;
};

class LookLayer final : public ClipAccess {
 public:
  LookLayer(LookId look, ClipId layer) : look_(look), layer_(layer) {}

  void each(const Show& show, const std::function<bool(const Clip&)>& visit) const override {
    const Look* look = chispa::find(show.looks, look_);
    if (const Clip* layer = look ? findLayer(*look, layer_) : nullptr) visit(*layer);
  }
  void change(Show& show, const std::function<void(Clip&)>& edit) const override {
    changeLayer(show, look_, layer_, edit);
  }

 private:
  LookId look_;
  ClipId layer_;
};

}  // namespace

const Clip* ClipAccess::first(const Show& show) const {
  const Clip* found = nullptr;
  each(show, [&found](const Clip& clip) {
    found = &clip;
    return false;
  });
  return found;
}

std::shared_ptr<const ClipAccess> clipsOfScore(const Session& session, const ClipIds& ids) {
  const Score* score = session.stage.score();
  return std::make_shared<ScoreClips>(score ? score->id : ScoreId{}, ids);
}

std::shared_ptr<const ClipAccess> layerOfLook(LookId look, ClipId layer) {
  return std::make_shared<LookLayer>(look, layer);
}

}  // namespace chispa::desk
