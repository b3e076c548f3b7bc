// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/screencapture.h"

#include "core/effect/all.h"
#include "core/effect/showndots.h"
#include "core/media/media.h"

namespace chispa {
namespace {

enum { Screen, Left, Top, Width, Height, Tint, Lay };

constexpr double kMaxDots = 16'384;

ScreenPart partOf(const ParamPack& params) {
  const auto whole = [&](std::size_t i) { return static_cast<int>(params.number(i)); };
  return {whole(Screen) - 1, whole(Left), whole(Top), whole(Width), whole(Height)};
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  if (!in.screen) return out.clear(static_cast<std::size_t>(in.cells.count()));
  const LivePicture& picture = *in.screen;
  const PictureOnFace face(in.cells, picture.width(), picture.height(), layOf(in.params, Lay), 0, false);
  showDots(
      in, out, face, [&](int column, int row) { return picture.dot(column, row); }, 0, in.params.real(Tint));
}

}  // namespace

ScreenPart screenPartOf(const ParamValues& params) {
  return partOf(ParamPack(findEffect(kScreenCapture)->params, params));
}

void setScreenPart(ParamValues& params, const ScreenPart& part) {
  params["screen"] = part.screen + 1.0;
  params["left"] = static_cast<double>(part.x);
  params["top"] = static_cast<double>(part.y);
  params["width"] = static_cast<double>(part.width);
  params["height"] = static_cast<double>(part.height);
}

Effect screenCapture() {
  return {
      .key = kScreenCapture,
      .name = "Spyhole",
      .summary = "A part of the screen, as it is at this moment.",
      .params = withLay({fixedParam("screen", "Screen", "", 1, 16, 1),
                         fixedParam("left", "From the left", "dots", 0, kMaxDots, 0),
                         fixedParam("top", "From the top", "dots", 0, kMaxDots, 0),
                         fixedParam("width", "Width", "dots", 1, kMaxDots, 640),
                         fixedParam("height", "Height", "dots", 1, kMaxDots, 360),
                         numberParam("tint", "In the palette's colours", "", 0, 1, 0)}),
      .render = render,
      .group = EffectGroup::Pictures,
      .screenOf = partOf,
      .wantsRows = true,
  };
}

}  // namespace chispa
