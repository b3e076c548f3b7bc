// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/media.h"

#include <set>

#include "core/effect/effect.h"
#include "core/effect/spyhole.h"
#include "core/files/besidefile.h"
#include "core/media/lightrows.h"
#include "core/media/mediabuilder.h"
#include "core/media/movingwebp.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

/// One decoding run over one file.
class Decoder {
 public:
  Decoder(const std::filesystem::path& path, const std::atomic<bool>* cancelled)
      : path_(path.string()), cancelled_(cancelled), input_(path_) {
    input_.isCancelled = [this] { return cancelled_ && cancelled_->load(); };
  }

  Result<std::shared_ptr<const Media>> run() {
    if (const Outcome opened = open(); !opened) return opened.failure();
    ffmpeg::Packet packet(av_packet_alloc());
    while (!builder_.isFull() && !(cancelled_ && cancelled_->load()) &&
           av_read_frame(input_.format.get(), packet.get()) >= 0) {
      if (packet->stream_index == input_.stream && avcodec_send_packet(input_.codec.get(), packet.get()) >= 0)
        takeFrames();
      av_packet_unref(packet.get());
    }
    avcodec_send_packet(input_.codec.get(), nullptr);
    takeFrames();
    if (builder_.media().frames == 0) return fail("It holds no picture that can be decoded");
    if (builder_.media().frames == 1) builder_.media().framesPerSecond = 0;
    return std::shared_ptr<const Media>(builder_.take());
  }

 private:
  Failure fail(const std::string& what) const { return pictureFailure(path_, what); }

  Outcome open() {
    if (const std::string why = ffmpeg::open(input_, AVMEDIA_TYPE_VIDEO, "The picture", "picture");
        !why.empty())
      return fail(why);
    const AVRational rate =
        av_guess_frame_rate(input_.format.get(), input_.format->streams[input_.stream], nullptr);
    builder_.media().framesPerSecond =
        rate.num > 0 && rate.den > 0 ? std::clamp(av_q2d(rate), 0.1, 240.0) : 25;
    return Done{};
  }

  void takeFrames() {
    while (!builder_.isFull() && avcodec_receive_frame(input_.codec.get(), frame_.get()) >= 0) {
      builder_.add(frame_->data, frame_->linesize, frame_->width, frame_->height,
                   static_cast<AVPixelFormat>(frame_->format));
      av_frame_unref(frame_.get());
    }
  }

  std::string path_;
  const std::atomic<bool>* cancelled_;
  ffmpeg::Input input_;
  ffmpeg::Frame frame_{av_frame_alloc()};
  MediaBuilder builder_;
};

/// The parameters of all effects that name files; looked for once, as every edit asks for the files of
/// thousands of clips.
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

/// Calls `visit` with every clip of the scores and blocks, and every layer of the looks.
template <class F>
void eachClipOf(const Show& show, F visit) {
  for (const auto& score : show.scores)
    for (const auto& clip : score->clips) visit(*clip);
  for (const auto& block : show.blocks)
    for (const auto& clip : block->clips) visit(*clip);
  for (const auto& look : show.looks)
    for (const LookStep& step : look->steps)
      for (const auto& layer : step.layers) visit(*layer);
}

}  // namespace

Result<std::shared_ptr<const Media>> decodeShown(const std::filesystem::path& showFile,
                                                 const std::string& name,
                                                 const std::atomic<bool>* cancelled) {
  if (const auto file = fileOfRowsName(name)) return readLightRows(besideFile(showFile, *file));
  return decodeMedia(besideFile(showFile, name), cancelled);
}

Result<std::shared_ptr<const Media>> decodeMedia(const std::filesystem::path& path,
                                                 const std::atomic<bool>* cancelled) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error))
    return Failure{"The picture is not there.", path.string(), "Put it back, or choose the file anew."};
  if (isMovingWebp(path)) return decodeMovingWebp(path, cancelled);
  return Decoder(path, cancelled).run();
}

std::string mediaName(const std::string& effect, const std::string& file) {
  return effect == kRowsEffect ? rowsName(file) : file;
}

std::string fileOfMediaName(const std::string& name) {
  return fileOfRowsName(name).value_or(name);
}

std::vector<std::string> mediaNames(const Show& show) {
  std::set<std::string> names;
  eachClipOf(show, [&](const Clip& clip) {
    for (const auto& [effect, spec] : fileParams()) {
      if (clip.effect != effect->key) continue;
      const auto* name = std::get_if<std::string>(&valueOf(*spec, clip.params));
      if (name && !name->empty()) names.insert(mediaName(effect->key, *name));
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

MediaLibrary loadMedia(const Show& show, const std::filesystem::path& showFile,
                       std::vector<Failure>& failures) {
  MediaLibrary library;
  for (const std::string& name : mediaNames(show)) {
    const auto media = decodeShown(showFile, name);
    if (media)
      library.add(name, *media);
    else
      failures.push_back(media.failure());
  }
  return library;
}

}  // namespace chispa
