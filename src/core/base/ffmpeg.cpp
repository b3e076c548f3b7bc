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

double frameRate(const Input& input) {
  AVFormatContext* format = input.format.get();
  const AVRational rate = av_guess_frame_rate(format, format->streams[input.stream], nullptr);
  return rate.num > 0 && rate.den > 0 ? av_q2d(rate) : 0;
}

const AVFrame* FrameReader::next() {
  while (true) {
    if (avcodec_receive_frame(input_.codec.get(), frame_.get()) >= 0) return frame_.get();
    if (isDrained_) return nullptr;
    feed();
  }
}

/// Gives the decoder the stream's next packet, or the news that there is none.
void FrameReader::feed() {
  while (av_read_frame(input_.format.get(), packet_.get()) >= 0) {
    const bool isOurs = packet_->stream_index == input_.stream;
    const bool isTaken = isOurs && avcodec_send_packet(input_.codec.get(), packet_.get()) >= 0;
    av_packet_unref(packet_.get());
    if (isTaken) return;
  }
  avcodec_send_packet(input_.codec.get(), nullptr);
  isDrained_ = true;
}

bool PictureScaler::append(const Picture& from, int width, int height, std::vector<std::uint8_t>& bytes) {
  scaler_.reset(sws_getCachedContext(scaler_.release(), from.width, from.height, from.kind, width, height,
                                     kind_, flags_, nullptr, nullptr, nullptr));
  if (!scaler_) return false;
  const std::size_t before = bytes.size();
  const int line = width * bytesADot_;
  const std::size_t size = static_cast<std::size_t>(line) * static_cast<std::size_t>(height);
  // The scaler writes some dots at once, and beyond the end of the last row.
  constexpr std::size_t kBeyond = 64;
  bytes.resize(before + size + kBeyond);
  std::uint8_t* rows[] = {bytes.data() + before};
  sws_scale(scaler_.get(), from.planes, from.lines, 0, from.height, rows, &line);
  bytes.resize(before + size);
  return true;
}

}  // namespace chispa::ffmpeg
