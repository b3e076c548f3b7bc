// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <vector>

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libavutil/channel_layout.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libswresample/swresample.h>
#include <libswscale/swscale.h>
}

/// FFmpeg's objects as values that free themselves. Only .cpp files of core include this.
namespace chispa::ffmpeg {

template <auto release>
struct Freer {
  template <class T>
  void operator()(T* object) const {
    if constexpr (requires { release(&object); })
      release(&object);
    else
      release(object);
  }
};

using Format = std::unique_ptr<AVFormatContext, Freer<avformat_close_input>>;
using Codec = std::unique_ptr<AVCodecContext, Freer<avcodec_free_context>>;
using Frame = std::unique_ptr<AVFrame, Freer<av_frame_free>>;
using Packet = std::unique_ptr<AVPacket, Freer<av_packet_free>>;
using Resampler = std::unique_ptr<SwrContext, Freer<swr_free>>;
using Scaler = std::unique_ptr<SwsContext, Freer<sws_freeContext>>;

inline std::string errorText(int code) {
  char text[AV_ERROR_MAX_STRING_SIZE] = {};
  av_strerror(code, text, sizeof text);
  return text;
}

/// The best stream of a kind in a file, ready to be decoded. It stays where it is while the file is open.
struct Input {
  explicit Input(std::string file) : path(std::move(file)) {}
  Input(const Input&) = delete;
  Input& operator=(const Input&) = delete;

  std::string path;
  Format format;
  Codec codec;
  int stream = -1;
  /// Asked between reads; true ends them.
  std::function<bool()> isCancelled;
};

/// Opens the stream; returns why it cannot, in words about the `file` ("The picture") and its `content`
/// ("picture"), or nothing. Only that one file is opened, and only if it is a regular one: play lists lead
/// nowhere, and a pipe cannot keep the program waiting.
std::string open(Input& input, AVMediaType kind, const std::string& file, const std::string& content);

/// Frames a second of a stream of pictures; 0 if the file does not say.
double frameRate(const Input& input);

/// Decodes the stream of an open Input, which it does not outlive. One thread.
class FrameReader {
 public:
  explicit FrameReader(Input& input) : input_(input) {}

  /// The next frame as it was coded, valid until the next call; null at the end. A damaged
  /// packet loses its own frames only.
  const AVFrame* next();

 private:
  void feed();

  Input& input_;
  Frame frame_{av_frame_alloc()};
  Packet packet_{av_packet_alloc()};
  bool isDrained_ = false;
};

/// A picture in FFmpeg's terms: planes, bytes a line, dots and kind.
struct Picture {
  explicit Picture(const AVFrame& frame)
      : planes(frame.data),
        lines(frame.linesize),
        width(frame.width),
        height(frame.height),
        kind(static_cast<AVPixelFormat>(frame.format)) {}
  Picture(const std::uint8_t* const* planesOf, const int* linesOf, int wide, int tall, AVPixelFormat of)
      : planes(planesOf), lines(linesOf), width(wide), height(tall), kind(of) {}

  const std::uint8_t* const* planes;
  const int* lines;
  int width;
  int height;
  AVPixelFormat kind;
};

/// Makes pictures of one size and packed kind out of any, row by row without gaps. One thread.
class PictureScaler {
 public:
  /// `bytesADot` as `kind` has it; `flags` of libswscale.
  PictureScaler(AVPixelFormat kind, int bytesADot, int flags)
      : kind_(kind), bytesADot_(bytesADot), flags_(flags) {}

  /// Appends `from` as `width` × `height` dots to `bytes`; false, and nothing appended, if it cannot be made.
  bool append(const Picture& from, int width, int height, std::vector<std::uint8_t>& bytes);

 private:
  AVPixelFormat kind_;
  int bytesADot_;
  int flags_;
  Scaler scaler_;
};

}  // namespace chispa::ffmpeg
