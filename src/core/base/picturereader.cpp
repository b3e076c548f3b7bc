// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/picturereader.h"

#include <utility>

#include "core/base/ffmpeg.h"

namespace chispa {

struct PictureReader::Decoder {
  Decoder(const std::filesystem::path& path, PictureColours colours)
      : input(path.string()),
        scaler(colours == PictureColours::Grey ? AV_PIX_FMT_GRAY8 : AV_PIX_FMT_RGB24,
               colours == PictureColours::Grey ? 1 : 3, SWS_POINT | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INP) {}

  ffmpeg::Input input;
  ffmpeg::FrameReader frames{input};
  ffmpeg::PictureScaler scaler;
  /// The first was decoded to see that there is one.
  const AVFrame* first = nullptr;
};

PictureReader::PictureReader(std::unique_ptr<Decoder> decoder) : decoder_(std::move(decoder)) {}
PictureReader::~PictureReader() = default;

std::unique_ptr<PictureReader> PictureReader::open(const std::filesystem::path& path,
                                                   PictureColours colours) {
  auto decoder = std::make_unique<Decoder>(path, colours);
  const std::string why = ffmpeg::open(decoder->input, AVMEDIA_TYPE_VIDEO, "The picture", "picture");
  if (!why.empty()) return nullptr;
  decoder->first = decoder->frames.next();
  if (!decoder->first) return nullptr;
  return std::unique_ptr<PictureReader>(new PictureReader(std::move(decoder)));
}

double PictureReader::framesPerSecond() const {
  return ffmpeg::frameRate(decoder_->input);
}

std::optional<PictureBytes> PictureReader::next() {
  const AVFrame* frame = std::exchange(decoder_->first, nullptr);
  if (!frame) frame = decoder_->frames.next();
  if (!frame) return std::nullopt;
  PictureBytes picture{frame->width, frame->height, {}};
  if (!decoder_->scaler.append(ffmpeg::Picture(*frame), picture.width, picture.height, picture.bytes))
    return std::nullopt;
  return picture;
}

}  // namespace chispa
