// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/ffmpeg.h"

#include <filesystem>

namespace chispa::ffmpeg {
namespace {

int interrupt(void* input) {
  const auto& self = *static_cast<const Input*>(input);
  return self.isCancelled && self.isCancelled() ? 1 : 0;
}

/// FFmpeg asks this for every file that it wants to open, those that a play list names too.
int openOnlyTheFile(AVFormatContext* format, AVIOContext** io, const char* url, int flags, AVDictionary**) {
  const auto& self = *static_cast<const Input*>(format->opaque);
  if (self.path != url || (flags & AVIO_FLAG_WRITE)) return AVERROR(EACCES);
  AVDictionary* options = nullptr;
  av_dict_set(&options, "protocol_whitelist", "file", 0);
  // With its protocol, so that no colon in a name is taken for one.
  const int code =
      avio_open2(io, ("file:" + self.path).c_str(), flags, &format->interrupt_callback, &options);
  av_dict_free(&options);
  return code;
}

}  // namespace

std::string open(Input& input, AVMediaType kind, const std::string& file, const std::string& content) {
  av_log_set_level(AV_LOG_QUIET);
  std::error_code error;
  if (!std::filesystem::is_regular_file(input.path, error)) return file + " is no regular file";
  AVFormatContext* raw = avformat_alloc_context();
  if (!raw) return file + " finds no memory";
  raw->opaque = &input;
  raw->interrupt_callback = {interrupt, &input};
  raw->io_open = openOnlyTheFile;
  // For what opens files past io_open, as lists of pieces do.
  AVDictionary* options = nullptr;
  av_dict_set(&options, "protocol_whitelist", "none", 0);
  const int code = avformat_open_input(&raw, input.path.c_str(), nullptr, &options);
  av_dict_free(&options);
  if (code < 0) return file + " cannot be opened (" + errorText(code) + ")";
  input.format.reset(raw);
  if (avformat_find_stream_info(raw, nullptr) < 0) return file + " cannot be understood";
  const AVCodec* codec = nullptr;
  input.stream = av_find_best_stream(raw, kind, -1, -1, &codec, 0);
  if (input.stream < 0 || !codec) return "The file holds no " + content;
  input.codec.reset(avcodec_alloc_context3(codec));
  avcodec_parameters_to_context(input.codec.get(), raw->streams[input.stream]->codecpar);
  // A picture may not ask for more dots than a large photo has.
  constexpr std::int64_t kMaxDots = 200'000'000;
  input.codec->max_pixels = kMaxDots;
  if (avcodec_open2(input.codec.get(), codec, nullptr) < 0)
    return "The " + content + "'s coding cannot be decoded";
  return {};
}

}  // namespace chispa::ffmpeg
