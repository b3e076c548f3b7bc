// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "core/effect/all.h"
#include "core/effect/showndots.h"
#include "core/media/media.h"

namespace chispa {
namespace {

enum { File, Speed, Passes, Clear, Tint, Lay };

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

/// Mean light of the dots that a cell covers, `size` of them a side about (x, y).
DotLight meanLight(const Media& media, int frame, float x, float y, float size) {
  constexpr float kMax = 12;
  const auto points = static_cast<int>(std::ceil(std::min(size, kMax)));
  DotLight sum;
  for (int j = 0; j < points; ++j)
    for (int i = 0; i < points; ++i) {
      const auto at = [&](float middle, int n, int end) {
        const float place =
            middle + ((static_cast<float>(n) + 0.5f) / static_cast<float>(points) - 0.5f) * size;
        return std::clamp(static_cast<int>(std::floor(place)), 0, end - 1);
      };
      const DotLight dot = lightOfDot(media.dot(frame, at(x, i, media.width), at(y, j, media.height)));
      sum.light.r += dot.light.r * dot.coverage;
      sum.light.g += dot.light.g * dot.coverage;
      sum.light.b += dot.light.b * dot.coverage;
      sum.coverage += dot.coverage;
    }
  if (sum.coverage <= 0) return {};
  const float per = 1 / sum.coverage;
  return {{sum.light.r * per, sum.light.g * per, sum.light.b * per},
          sum.coverage / static_cast<float>(points * points)};
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* shown = static_cast<const Shown*>(in.prepared);
  if (!shown) return out.clear(count);
  const Media& media = *shown->media;
  const int frame = frameAt(media, in.t_s * in.params.number(Speed));
  const PictureOnFace face(in.cells, media.width, media.height, layOf(in.params, Lay),
                           fraction(in.params.number(Passes) * in.bars), false);
  const auto lightAt = [&](float x, float y) {
    // Where several dots lie on a cell it shows their mean, in linear light.
    if (face.dotsOfCell() > 1.01f) return meanLight(media, frame, x, y, face.dotsOfCell());
    return lightOfDot(media.dot(frame, static_cast<int>(x), static_cast<int>(y)));
  };
  showLight(in, out, face, lightAt, in.params.real(Clear), in.params.real(Tint));
}

}  // namespace

Effect picture() {
  return {
      .key = "picture",
      .name = "Picture",
      .summary = "A picture, an animated one or a video, seen through the zone.",
      .params = withLay({textParam("file", "File", ParamKind::File, ""),
                         numberParam("speed", "Speed", "×", -4, 4, 1, 0.05),
                         numberParam("passes", "Passes per bar", "", -8, 8, 0, 0.05),
                         numberParam("clear", "Clear below", "", 0, 1, 0),
                         numberParam("tint", "In the palette's colours", "", 0, 1, 0)}),
      .render = render,
      .group = EffectGroup::Pictures,
      .prepare = prepare,
      .wantsRows = true,
  };
}

}  // namespace chispa
