// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/media.h"

#include <algorithm>
#include <set>

#include "core/effect/effect.h"
#include "core/effect/spyhole.h"
#include "core/files/besidefile.h"
#include "core/media/ffmpeg.h"

namespace chispa {
namespace {

/// One decoding run over one file.
class Decoder {
 public:
  Decoder(const std::filesystem::path& path, const std::atomic<bool>* cancelled) : path_(path.string()), cancelled_(cancelled) {}

  Result<std::shared_ptr<const Media>> run() {
    if (const Outcome opened = open(); !opened) return opened.failure();
    ffmpeg::Packet packet(av_packet_alloc());
    while (!isFull() && !(cancelled_ && cancelled_->load()) && av_read_frame(input_.format.get(), packet.get()) >= 0) {
      if (packet->stream_index == input_.stream && avcodec_send_packet(input_.codec.get(), packet.get()) >= 0) takeFrames();
      av_packet_unref(packet.get());
    }
    avcodec_send_packet(input_.codec.get(), nullptr);
    takeFrames();
    if (media_->frames == 0) return fail("It holds no picture that can be decoded");
    if (media_->frames == 1) media_->framesPerSecond = 0;
    return std::shared_ptr<const Media>(std::move(media_));
  }

 private:
  Failure fail(const std::string& what) const { return {what + ".", path_, "Choose another file; PNG, JPEG, GIF, WebP, MP4, WebM and AVI are read."}; }

  bool isFull() const { return media_->rgba.size() >= MediaLimits::kMostBytes; }

  Outcome open() {
    if (const std::string why = ffmpeg::open(input_, path_, AVMEDIA_TYPE_VIDEO, "The picture", "picture"); !why.empty()) return fail(why);
    const AVRational rate = av_guess_frame_rate(input_.format.get(), input_.format->streams[input_.stream], nullptr);
    media_->framesPerSecond = rate.num > 0 && rate.den > 0 ? std::clamp(av_q2d(rate), 0.1, 240.0) : 25;
    return Done{};
  }

  void takeFrames() {
    while (!isFull() && avcodec_receive_frame(input_.codec.get(), frame_.get()) >= 0) {
      convert();
      av_frame_unref(frame_.get());
    }
  }

  void convert() {
    const int wide = frame_->width;
    const int tall = frame_->height;
    if (wide < 1 || tall < 1) return;
    if (media_->width == 0) {
      const double scale = std::min(1.0, static_cast<double>(MediaLimits::kMostSide) / std::max(wide, tall));
      media_->width = std::max(1, static_cast<int>(wide * scale));
      media_->height = std::max(1, static_cast<int>(tall * scale));
    }
    scaler_.reset(sws_getCachedContext(scaler_.release(), wide, tall, static_cast<AVPixelFormat>(frame_->format), media_->width, media_->height, AV_PIX_FMT_RGBA, SWS_AREA, nullptr, nullptr, nullptr));
    if (!scaler_) return;
    const std::size_t before = media_->rgba.size();
    const int line = media_->width * 4;
    media_->rgba.resize(before + static_cast<std::size_t>(line) * static_cast<std::size_t>(media_->height));
    std::uint8_t* rows[] = {media_->rgba.data() + before};
    const int lines[] = {line};
    sws_scale(scaler_.get(), frame_->data, frame_->linesize, 0, tall, rows, lines);
    ++media_->frames;
  }

  std::string path_;
  const std::atomic<bool>* cancelled_;
  ffmpeg::Input input_;
  ffmpeg::Scaler scaler_;
  ffmpeg::Frame frame_{av_frame_alloc()};
  std::shared_ptr<Media> media_ = std::make_shared<Media>();
};

/// The parameters of all effects that name files; looked for once, as every edit asks for the files of thousands of clips.
const std::vector<std::pair<const Effect*, const ParamSpec*>>& fileParams() {
  static const auto found = [] {
    std::vector<std::pair<const Effect*, const ParamSpec*>> all;
    for (const Effect& effect : effects())
      for (const ParamSpec& spec : effect.params)
        if (spec.kind == ParamKind::File) all.emplace_back(&effect, &spec);
    return all;
  }();
  return found;
}

/// Calls `visit` with every clip of the scores and blocks.
template <class F>
void eachClipOf(const Show& show, F visit) {
  for (const auto& score : show.scores)
    for (const auto& clip : score->clips) visit(*clip);
  for (const auto& block : show.blocks)
    for (const auto& clip : block->clips) visit(*clip);
}

}  // namespace

Result<std::shared_ptr<const Media>> decodeMedia(const std::filesystem::path& path, const std::atomic<bool>* cancelled) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error)) return Failure{"The picture is not there.", path.string(), "Put it back, or choose the file anew."};
  return Decoder(path, cancelled).run();
}

std::vector<std::string> mediaNames(const Show& show) {
  std::set<std::string> names;
  eachClipOf(show, [&](const Clip& clip) {
    for (const auto& [effect, spec] : fileParams()) {
      if (clip.effect != effect->key) continue;
      const auto* name = std::get_if<std::string>(&valueOf(*spec, clip.params));
      if (name && !name->empty()) names.insert(*name);
    }
  });
  return {names.begin(), names.end()};
}

std::vector<ScreenPart> screenParts(const Show& show) {
  std::set<ScreenPart> parts;
  eachClipOf(show, [&](const Clip& clip) {
    if (clip.effect == kSpyhole) parts.insert(screenPartOf(clip.params));
  });
  return {parts.begin(), parts.end()};
}

MediaLibrary loadMedia(const Show& show, const std::filesystem::path& showFile, std::vector<Failure>& failures) {
  MediaLibrary library;
  for (const std::string& name : mediaNames(show)) {
    const auto media = decodeMedia(besideFile(showFile, name));
    if (media)
      library.add(name, *media);
    else
      failures.push_back(media.failure());
  }
  return library;
}

}  // namespace chispa
