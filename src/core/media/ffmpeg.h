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

}  // namespace chispa::ffmpeg
