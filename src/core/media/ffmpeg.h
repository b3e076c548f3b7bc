// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
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

/// The best stream of a kind in a file, ready to be decoded.
struct Input {
  Format format;
  Codec codec;
  int stream = -1;
};

/// Opens the stream; returns why it cannot, in words about the `file` ("The picture") and its `content` ("picture"), or nothing.
inline std::string open(Input& input, const std::string& path, AVMediaType kind, const std::string& file, const std::string& content) {
  av_log_set_level(AV_LOG_QUIET);
  AVFormatContext* raw = nullptr;
  if (const int code = avformat_open_input(&raw, path.c_str(), nullptr, nullptr); code < 0) return file + " cannot be opened (" + errorText(code) + ")";
  input.format.reset(raw);
  if (avformat_find_stream_info(raw, nullptr) < 0) return file + " cannot be understood";
  const AVCodec* codec = nullptr;
  input.stream = av_find_best_stream(raw, kind, -1, -1, &codec, 0);
  if (input.stream < 0 || !codec) return "The file holds no " + content;
  input.codec.reset(avcodec_alloc_context3(codec));
  avcodec_parameters_to_context(input.codec.get(), raw->streams[input.stream]->codecpar);
  if (avcodec_open2(input.codec.get(), codec, nullptr) < 0) return "The " + content + "'s coding cannot be decoded";
  return {};
}

}  // namespace chispa::ffmpeg
