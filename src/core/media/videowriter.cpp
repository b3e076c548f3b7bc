// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/videowriter.h"

#include <array>
#include <initializer_list>
#include <map>
#include <string>
#include <vector>

#include "core/base/ffmpeg.h"
#include "core/media/soundtrack.h"

namespace chispa {
namespace {

/// How a kind of film is written: FFmpeg's container, its encoders, the best first, and the dots that they
/// take.
struct Recipe {
  const char* container;
  std::vector<const char*> encoders;
  AVPixelFormat dots;
  /// For its sound; none if the kind has no sound.
  std::vector<const char*> soundEncoders = {};
};

const Recipe* recipeOf(const std::filesystem::path& path) {
  static const std::map<std::string, Recipe> recipes = {
      {".mp4", {"mp4", {"libx264", "mpeg4"}, AV_PIX_FMT_YUV420P, {"aac"}}},
      {".webm", {"webm", {"libvpx-vp9", "libvpx"}, AV_PIX_FMT_YUV420P, {"libopus", "libvorbis"}}},
      {".avi", {"avi", {"mpeg4"}, AV_PIX_FMT_YUV420P, {"libmp3lame", "ac3"}}},
      {".gif", {"gif", {"gif"}, AV_PIX_FMT_RGB8}},
      {".webp", {"webp", {"libwebp_anim"}, AV_PIX_FMT_YUV420P}},
      {".apng", {"apng", {"apng"}, AV_PIX_FMT_RGB24}}};
  static const Recipe numbered = {"image2", {"png"}, AV_PIX_FMT_RGB24};
  if (path.extension() == ".png") return path.string().find('%') == std::string::npos ? nullptr : &numbered;
  const auto found = recipes.find(path.extension().string());
  return found == recipes.end() ? nullptr : &found->second;
}

/// Points of light on black need more bits than most pictures.
std::int64_t bitRate(const FilmShape& shape) {
  return std::int64_t{shape.width} * shape.height * shape.framesPerSecond / 6;
}

}  // namespace

struct FilmWriter::State {
  struct OutputCloser {
    void operator()(AVFormatContext* context) const {
      if (context->pb && !(context->oformat->flags & AVFMT_NOFILE)) avio_closep(&context->pb);
      avformat_free_context(context);
    }
  };

  std::string path;
  FilmShape shape;
  std::unique_ptr<AVFormatContext, OutputCloser> format;
  ffmpeg::Codec codec;
  ffmpeg::Scaler scaler;
  ffmpeg::Frame frame{av_frame_alloc()};
  ffmpeg::Packet packet{av_packet_alloc()};
  AVStream* stream = nullptr;
  std::int64_t next = 0;
  std::optional<SoundTrack> sound;

  Failure fail(const char* what, int code = 0) const {
    return {
        code < 0 ? sentence("%1 (%2).", what, ffmpeg::errorText(code)) : sentence("%1.", what), path,
        "Choose another folder or ending: mp4, webm, avi, gif, webp, apng, or a name like light-%04d.png."};
  }

  Outcome openEncoder(const Recipe& recipe) {
    for (const char* name : recipe.encoders) {
      const AVCodec* found = avcodec_find_encoder_by_name(name);
      if (!found) continue;
      codec.reset(avcodec_alloc_context3(found));
      codec->width = shape.width;
      codec->height = shape.height;
      codec->pix_fmt = recipe.dots;
      codec->time_base = {1, shape.framesPerSecond};
      codec->framerate = {shape.framesPerSecond, 1};
      codec->bit_rate = bitRate(shape);
      if (format->oformat->flags & AVFMT_GLOBALHEADER) codec->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
      if (avcodec_open2(codec.get(), found, nullptr) >= 0) return Done{};
    }
    return fail("This machine has no encoder for such a film");
  }

  Outcome open(const Recipe& recipe, FilmSound heard) {
    av_log_set_level(AV_LOG_QUIET);
    AVFormatContext* raw = nullptr;
    if (const int code = avformat_alloc_output_context2(&raw, nullptr, recipe.container, path.c_str());
        code < 0)
      return fail("The film cannot be begun", code);
    format.reset(raw);
    if (const Outcome opened = openEncoder(recipe); !opened) return opened;
    stream = avformat_new_stream(raw, nullptr);
    stream->time_base = codec->time_base;
    avcodec_parameters_from_context(stream->codecpar, codec.get());
    if (heard.clip && !recipe.soundEncoders.empty()) {
      sound = SoundTrack::open(raw, recipe.soundEncoders, std::move(heard.clip), heard.from);
      if (!sound) return fail("This machine has no encoder for the film's sound");
    }
    if (!(raw->oformat->flags & AVFMT_NOFILE))
      if (const int code = avio_open(&raw->pb, path.c_str(), AVIO_FLAG_WRITE); code < 0)
        return fail("The file cannot be written", code);
    if (const int code = avformat_write_header(raw, nullptr); code < 0)
      return fail("The film cannot be begun", code);
    frame->format = codec->pix_fmt;
    frame->width = shape.width;
    frame->height = shape.height;
    if (av_frame_get_buffer(frame.get(), 0) < 0) return fail("There is not enough memory for the film");
    scaler.reset(sws_getContext(shape.width, shape.height, AV_PIX_FMT_RGBA, shape.width, shape.height,
                                codec->pix_fmt, SWS_POINT, nullptr, nullptr, nullptr));
    return scaler ? Outcome(Done{}) : fail("Its colours cannot be converted");
  }

  Outcome soundUntil(double end_s) {
    return !sound || sound->writeUntil(end_s) ? Outcome(Done{}) : fail("The film's sound cannot be written");
  }

  Outcome encode(const AVFrame* one) {
    if (const int code = avcodec_send_frame(codec.get(), one); code < 0)
      return fail("A picture cannot be encoded", code);
    while (avcodec_receive_packet(codec.get(), packet.get()) >= 0) {
      av_packet_rescale_ts(packet.get(), codec->time_base, stream->time_base);
      packet->stream_index = stream->index;
      if (const int code = av_interleaved_write_frame(format.get(), packet.get()); code < 0)
        return fail("The film cannot be written on", code);
    }
    return Done{};
  }
};

bool filmHasSound(const std::filesystem::path& path) {
  const Recipe* recipe = recipeOf(path);
  return recipe && !recipe->soundEncoders.empty();
}

std::optional<std::uint64_t> expectedBytes(const std::filesystem::path& path, const FilmShape& shape,
                                           long pictures) {
  // Animated pictures keep what stands still only once, so that their size is not known before.
  if (!filmHasSound(path)) return std::nullopt;
  return static_cast<std::uint64_t>(bitRate(shape)) * static_cast<std::uint64_t>(pictures) /
         static_cast<std::uint64_t>(shape.framesPerSecond) / 8;
}

FilmWriter::FilmWriter(std::unique_ptr<State> state) : state_(std::move(state)) {}
FilmWriter::~FilmWriter() = default;

Result<std::unique_ptr<FilmWriter>> FilmWriter::open(const std::filesystem::path& path,
                                                     const FilmShape& shape, FilmSound sound) {
  auto state = std::make_unique<State>();
  state->path = path.string();
  state->shape = shape;
  const Recipe* recipe = recipeOf(path);
  if (!recipe) return state->fail("No film has such an ending");
  if (shape.width < 2 || shape.height < 2 || shape.width % 2 != 0 || shape.height % 2 != 0 ||
      shape.framesPerSecond < 1)
    return state->fail("A film's width and height must be even");
  if (const Outcome opened = state->open(*recipe, std::move(sound)); !opened) return opened.failure();
  return std::unique_ptr<FilmWriter>(new FilmWriter(std::move(state)));
}

Outcome FilmWriter::add(const std::uint8_t* rgba) {
  if (av_frame_make_writable(state_->frame.get()) < 0)
    return state_->fail("There is not enough memory for the film");
  const std::uint8_t* rows[] = {rgba};
  const int lines[] = {state_->shape.width * 4};
  sws_scale(state_->scaler.get(), rows, lines, 0, state_->shape.height, state_->frame->data,
            state_->frame->linesize);
  state_->frame->pts = state_->next++;
  if (const Outcome encoded = state_->encode(state_->frame.get()); !encoded) return encoded;
  return state_->soundUntil(static_cast<double>(state_->next) / state_->shape.framesPerSecond);
}

Outcome FilmWriter::finish() {
  if (const Outcome last = state_->encode(nullptr); !last) return last;
  if (state_->sound && !state_->sound->finish())
    return state_->fail("The film's sound cannot be written to its end");
  if (const int code = av_write_trailer(state_->format.get()); code < 0)
    return state_->fail("The film's end cannot be written", code);
  return Done{};
}

}  // namespace chispa
