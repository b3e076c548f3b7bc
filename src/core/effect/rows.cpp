// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "core/effect/all.h"
#include "core/effect/showndots.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

enum { Across, File, Rate, From, To, Then };
enum AtEnd { Again, Stay, Dark };

struct Rows : Prepared {
  explicit Rows(std::shared_ptr<const Media> found) : media(std::move(found)) {}
  std::shared_ptr<const Media> media;
};

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary& library) {
  auto media = library.find(mediaName(kRowsEffect, params.text(File)));
  return media && media->frames > 0 ? std::make_shared<const Rows>(std::move(media)) : nullptr;
}

/// The row that is shown, or −1 for none.
int rowAt(const Media& media, double row, int then) {
  // An instant that is a hair before a row counts as in it.
  constexpr double kHair = 1e-6;
  const auto number = static_cast<long long>(std::floor(row + kHair));
  if (number >= 0 && number < media.frames) return static_cast<int>(number);
  if (then == Again) return static_cast<int>((number % media.frames + media.frames) % media.frames);
  return then == Stay ? (number < 0 ? 0 : media.frames - 1) : -1;
}

/// Mean light of the dots from `from` to `to`, whole ones and parts of them.
Rgb meanLight(const Media& media, int row, double from, double to) {
  const auto& linear = linearTable();
  const double low = std::clamp(from, 0.0, static_cast<double>(media.width));
  const double high = std::clamp(to, low, static_cast<double>(media.width));
  Rgb sum;
  double whole = 0;
  for (int x = static_cast<int>(low); x < media.width && x < high; ++x) {
    const double share = std::min(high, x + 1.0) - std::max(low, static_cast<double>(x));
    if (share <= 1e-9) continue;
    const std::uint8_t* dot = media.dot(row, x, 0);
    sum.r += linear[dot[0]] * static_cast<float>(share);
    sum.g += linear[dot[1]] * static_cast<float>(share);
    sum.b += linear[dot[2]] * static_cast<float>(share);
    whole += share;
  }
  if (whole <= 0) return {};
  const auto per = static_cast<float>(1 / whole);
  return {sum.r * per, sum.g * per, sum.b * per};
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* rows = static_cast<const Rows*>(in.prepared);
  if (!rows) return out.clear(count);
  const Media& media = *rows->media;
  const double rate = in.params.number(Rate) > 0  ? in.params.number(Rate)
                      : media.framesPerSecond > 0 ? media.framesPerSecond
                                                  : 40;
  const int row = rowAt(media, in.t_s * rate, in.params.choice(Then));
  if (row < 0) return out.clear(count);
  // From its end to its beginning it is mirrored.
  const double from = in.params.number(From);
  const double to = in.params.number(To);
  const bool isMirrored = from > to;
  const double first = std::min(from, to) * media.width;
  const double wide = std::abs(to - from) * media.width;
  const bool isAlong = in.params.axis(Across) == Axis::Along;
  for (std::size_t i = 0; i < count; ++i) {
    // Along the strip each cell has its share of the row; on another axis what lies at its place.
    const double size = 1.0 / static_cast<double>(count);
    double u = isAlong ? static_cast<double>(i) * size : static_cast<double>(in.place[i]) * (1 - size);
    if (isMirrored) u = 1 - size - u;
    out.set(i, meanLight(media, row, first + u * wide, first + (u + size) * wide), 1);
  }
}

}  // namespace

Effect rows() {
  return {
      .key = kRowsEffect,
      .name = "Row by row",
      .summary = "Light that was written frame by frame: a picture whose rows are frames, a table, or bytes.",
      .params = across(
          Axis::Along,
          {textParam("file", "File", ParamKind::File, ""),
           numberParam("rate", "Rows", "a second; 0: as the file says", 0, 240, 0, 1),
           numberParam("from", "From", "of the row", 0, 1, 0), numberParam("to", "To", "of the row", 0, 1, 1),
           choiceParam("then", "At its end",
                       {{"again", "begins again"}, {"stay", "stays"}, {"dark", "goes dark"}})}),
      .render = render,
      .group = EffectGroup::Pictures,
      .prepare = prepare,
  };
}

}  // namespace chispa
