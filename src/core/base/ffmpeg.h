// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <string>

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

}  // namespace chispa::ffmpeg
