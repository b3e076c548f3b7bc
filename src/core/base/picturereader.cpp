// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/picturereader.h"

#include <utility>

#include "core/base/ffmpeg.h"

namespace chispa {

struct PictureReader::Decoder {
  Decoder(const std::filesystem::path& path, PictureColours wanted) : input(path.string()), colours(wanted) {}

  /// The next frame as it was coded; false at the end.
  bool decode() {
    while (true) {
      const int got = avcodec_receive_frame(input.codec.get(), frame.get());
      if (got >= 0) return true;
      if (got != AVERROR(EAGAIN) || isDrained) return false;
      feed();
    }
  }

  PictureBytes converted() {
    const int channels = colours == PictureColours::Grey ? 1 : 3;
    const AVPixelFormat format = colours == PictureColours::Grey ? AV_PIX_FMT_GRAY8 : AV_PIX_FMT_RGB24;
    PictureBytes picture{frame->width, frame->height, {}};
    const std::size_t size = static_cast<std::size_t>(picture.width) *
                             static_cast<std::size_t>(picture.height) * static_cast<std::size_t>(channels);
    // The scaler writes some dots at once, and beyond the end of the last row.
    constexpr std::size_t kBeyond = 64;
    picture.bytes.resize(size + kBeyond);
    scaler.reset(sws_getCachedContext(scaler.release(), frame->width, frame->height,
                                      static_cast<AVPixelFormat>(frame->format), frame->width, frame->height,
                                      format, SWS_POINT | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INP, nullptr,
                                      nullptr, nullptr));
    if (!scaler) return {};
    std::uint8_t* rows[] = {picture.bytes.data()};
    const int strides[] = {picture.width * channels};
    sws_scale(scaler.get(), frame->data, frame->linesize, 0, frame->height, rows, strides);
    picture.bytes.resize(size);
    return picture;
  }

  ffmpeg::Input input;
  PictureColours colours;
  ffmpeg::Frame frame{av_frame_alloc()};
  ffmpeg::Packet packet{av_packet_alloc()};
  ffmpeg::Scaler scaler;
  bool isDrained = false;
  bool isFirst = true;

 private:
  /// Gives the decoder the stream's next packet, or the news that there is none.
  void feed() {
    while (av_read_frame(input.format.get(), packet.get()) >= 0) {
      const bool isOurs = packet->stream_index == input.stream;
      if (isOurs) avcodec_send_packet(input.codec.get(), packet.get());
      av_packet_unref(packet.get());
      if (isOurs) return;
    }
    avcodec_send_packet(input.codec.get(), nullptr);
    isDrained = true;
  }
};

PictureReader::PictureReader(std::unique_ptr<Decoder> decoder) : decoder_(std::move(decoder)) {}
PictureReader::~PictureReader() = default;

std::unique_ptr<PictureReader> PictureReader::open(const std::filesystem::path& path,
                                                   PictureColours colours) {
  auto decoder = std::make_unique<Decoder>(path, colours);
  const std::string why = ffmpeg::open(decoder->input, AVMEDIA_TYPE_VIDEO, "The picture", "picture");
  if (!why.empty() || !decoder->decode()) return nullptr;
  return std::unique_ptr<PictureReader>(new PictureReader(std::move(decoder)));
}

double PictureReader::framesPerSecond() const {
  AVFormatContext* format = decoder_->input.format.get();
  const AVRational rate = av_guess_frame_rate(format, format->streams[decoder_->input.stream], nullptr);
  return rate.num > 0 && rate.den > 0 ? av_q2d(rate) : 0;
}

std::optional<PictureBytes> PictureReader::next() {
  // The first was decoded to see that there is one.
  if (!std::exchange(decoder_->isFirst, false) && !decoder_->decode()) return std::nullopt;
  PictureBytes picture = decoder_->converted();
  av_frame_unref(decoder_->frame.get());
  if (picture.bytes.empty()) return std::nullopt;
  return picture;
}

}  // namespace chispa
