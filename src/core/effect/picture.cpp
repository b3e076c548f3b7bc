// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/sampling.h"
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

/// Bytes of sRGB in linear light.
const std::array<float, 256>& linearTable() {
  static const auto table = [] {
    std::array<float, 256> t{};
    for (std::size_t i = 0; i < t.size(); ++i) t[i] = linearFromSrgb(static_cast<float>(i) / 255);
    return t;
  }();
  return table;
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
  const auto& linear = linearTable();
  const int frame = frameAt(media, in.t_s * in.params.number(Speed));
  const PictureOnFace face(in.cells, media.width, media.height, static_cast<Fit>(in.params.choice(Fits)), in.params.number(Turned), fraction(in.params.number(Passes) * in.bars), false);
  const float clear = in.params.real(Clear);
  const float tint = in.params.real(Tint);
  int column = 0, row = 0;
  for (std::size_t i = 0; i < count; ++i) {
    if (!face.find(in.cells.x[i], in.cells.y[i], column, row)) {
      out.set(i, {}, 0);
      continue;
    }
    const std::uint8_t* dot = media.dot(frame, column, row);
    const Rgb own{linear[dot[0]], linear[dot[1]], linear[dot[2]]};
    const float bright = std::fmax(own.r, std::fmax(own.g, own.b));
    const Rgb toned = in.palette.clamped(bright);
    // What is darker than the limit lets the layer below through.
    const float coverage = static_cast<float>(dot[3]) / 255 * (clear > 0 ? easeBetween(clear * 0.5f, clear, bright) : 1);
    out.set(i, {own.r + (toned.r - own.r) * tint, own.g + (toned.g - own.g) * tint, own.b + (toned.b - own.b) * tint}, coverage);
  }
}

}  // namespace

Effect picture() {
  return {"picture", "Picture", "A picture, an animated one or a video, seen through the zone.",
          {textParam("file", "File", ParamKind::File, ""), fitParam(), numberParam("speed", "Speed", "×", -4, 4, 1, 0.05), numberParam("passes", "Passes a bar", "", -8, 8, 0, 0.05),
           numberParam("turned", "Turned", "°", -180, 180, 0, 5), numberParam("clear", "Clear below", "", 0, 1, 0), numberParam("tint", "In the palette's colours", "", 0, 1, 0)},
          render, EffectGroup::Pictures, prepare, false, true};
}

}  // namespace chispa
