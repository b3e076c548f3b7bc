// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/animatedwebp.h"

#include <array>
#include <fstream>
#include <iterator>
#include <string>

#include <webp/demux.h>

#include "core/media/mediabuilder.h"

namespace chispa {
namespace {

constexpr std::size_t kMaxFile = std::size_t{256} << 20;

struct Freer {
  void operator()(WebPAnimDecoder* decoder) const { WebPAnimDecoderDelete(decoder); }
};
using WebPDecoder = std::unique_ptr<WebPAnimDecoder, Freer>;

/// `ends_ms` says when each picture is followed by the next; picks them at equal distances.
void spaceEvenly(Media& media, const std::vector<int>& ends_ms) {
  const double whole_s = ends_ms.back() / 1000.0;
  if (media.frames < 2 || whole_s <= 0) return;
  media.framesPerSecond = std::clamp(media.frames / whole_s, 0.1, 240.0);
  const std::size_t bytes = media.rgba.size() / static_cast<std::size_t>(media.frames);
  std::vector<std::uint8_t> even;
  std::size_t from = 0;
  for (int frame = 0; frame < media.frames; ++frame) {
    // In its middle, so that rounded ends do not pick the wrong one.
    const double at_ms = (frame + 0.5) / media.framesPerSecond * 1000;
    while (from + 1 < ends_ms.size() && ends_ms[from] <= at_ms) ++from;
    const auto first = media.rgba.begin() + static_cast<std::ptrdiff_t>(from * bytes);
    even.insert(even.end(), first, first + static_cast<std::ptrdiff_t>(bytes));
  }
  media.rgba = std::move(even);
}

}  // namespace

bool isAnimatedWebp(const std::filesystem::path& path) {
  // RIFF, size, WEBP, VP8X, size, flags: bit 1 of the flags is set for animations.
  std::array<char, 21> head{};
  std::ifstream in(path, std::ios::binary);
  if (!in.read(head.data(), head.size())) return false;
  const std::string_view text(head.data(), head.size());
  return text.substr(0, 4) == "RIFF" && text.substr(8, 8) == "WEBPVP8X" && (head[20] & 2) != 0;
}

Result<std::shared_ptr<const Media>> decodeAnimatedWebp(const std::filesystem::path& path,
                                                        const std::atomic<bool>* cancelled) {
  std::error_code error;
  if (std::filesystem::file_size(path, error) > kMaxFile || error)
    return pictureFailure(path.string(), "The picture is too large.");
  std::ifstream in(path, std::ios::binary);
  const std::vector<std::uint8_t> bytes{std::istreambuf_iterator<char>(in), {}};
  const WebPData data{bytes.data(), bytes.size()};
  const WebPDecoder decoder(WebPAnimDecoderNew(&data, nullptr));
  WebPAnimInfo info{};
  if (!decoder || !WebPAnimDecoderGetInfo(decoder.get(), &info))
    return pictureFailure(path.string(), "The picture cannot be understood.");
  MediaBuilder builder;
  std::vector<int> ends_ms;
  while (!builder.isFull() && !(cancelled && cancelled->load()) &&
         WebPAnimDecoderHasMoreFrames(decoder.get())) {
    std::uint8_t* canvas = nullptr;
    int end_ms = 0;
    if (!WebPAnimDecoderGetNext(decoder.get(), &canvas, &end_ms)) break;
    const std::uint8_t* planes[] = {canvas};
    const int lines[] = {static_cast<int>(info.canvas_width) * 4};
    const int before = builder.media().frames;
    builder.add({planes, lines, static_cast<int>(info.canvas_width), static_cast<int>(info.canvas_height),
                 AV_PIX_FMT_RGBA});
    if (builder.media().frames > before) ends_ms.push_back(end_ms);
  }
  if (ends_ms.empty()) return pictureFailure(path.string(), "It holds no picture that can be decoded.");
  spaceEvenly(builder.media(), ends_ms);
  return std::shared_ptr<const Media>(builder.take());
}

}  // namespace chispa
