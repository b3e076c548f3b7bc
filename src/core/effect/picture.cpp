// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/showndots.h"
#include "core/media/media.h"

namespace chispa {
namespace {

enum { File, Fits, Speed, Passes, Turned, Clear, Tint };

struct Shown : Prepared {
  explicit Shown(std::shared_ptr<const Media> found) : media(std::move(found)) {}
  std::shared_ptr<const Media> media;
};

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary& library) {
  auto media = library.find(params.text(File));
  return media && media->frames > 0 ? std::make_shared<const Shown>(std::move(media)) : nullptr;
}

int frameAt(const Media& media, double t_s) {
  if (media.framesPerSecond <= 0) return 0;
  const auto frame = static_cast<long long>(std::floor(t_s * media.framesPerSecond)) % media.frames;
  return static_cast<int>(frame < 0 ? frame + media.frames : frame);
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* shown = static_cast<const Shown*>(in.prepared);
  if (!shown) return out.clear(count);
  const Media& media = *shown->media;
  const int frame = frameAt(media, in.t_s * in.params.number(Speed));
  const PictureOnFace face(in.cells, media.width, media.height, static_cast<Fit>(in.params.choice(Fits)),
                           in.params.number(Turned), fraction(in.params.number(Passes) * in.bars), false);
  showDots(
      in, out, face, [&](int column, int row) { return media.dot(frame, column, row); },
      in.params.real(Clear), in.params.real(Tint));
}

}  // namespace

Effect picture() {
  return {"picture",
          "Picture",
          "A picture, an animated one or a video, seen through the zone.",
          {textParam("file", "File", ParamKind::File, ""), fitParam(),
           numberParam("speed", "Speed", "×", -4, 4, 1, 0.05),
           numberParam("passes", "Passes a bar", "", -8, 8, 0, 0.05),
           numberParam("turned", "Turned", "°", -180, 180, 0, 5),
           numberParam("clear", "Clear below", "", 0, 1, 0),
           numberParam("tint", "In the palette's colours", "", 0, 1, 0)},
          render,
          EffectGroup::Pictures,
          prepare,
          false,
          true};
}

}  // namespace chispa
