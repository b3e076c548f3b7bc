// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/media.h"

#include "core/base/relativepath.h"
#include "core/media/animatedwebp.h"
#include "core/media/lightrows.h"
#include "core/media/mediabuilder.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

/// One decoding run over one file.
class MediaDecoder {
 public:
  MediaDecoder(const std::filesystem::path& path, const std::atomic<bool>* cancelled)
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
    if (builder_.media().frames == 0) return fail("It holds no picture that can be decoded.");
    if (builder_.media().frames == 1) builder_.media().framesPerSecond = 0;
    return std::shared_ptr<const Media>(builder_.take());
  }

 private:
  Failure fail(Sentence what) const { return pictureFailure(path_, std::move(what)); }

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

}  // namespace

Result<std::shared_ptr<const Media>> decodeShown(const std::filesystem::path& showFile,
                                                 const std::string& name,
                                                 const std::atomic<bool>* cancelled) {
  if (const auto file = fileOfRowsName(name)) return readLightRows(resolvedBeside(showFile, *file));
  return decodeMedia(resolvedBeside(showFile, name), cancelled);
}

Result<std::shared_ptr<const Media>> decodeMedia(const std::filesystem::path& path,
                                                 const std::atomic<bool>* cancelled) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error))
    return Failure{"The picture is not there.", path.string(), "Put it back, or choose the file anew."};
  if (isAnimatedWebp(path)) return decodeAnimatedWebp(path, cancelled);
  return MediaDecoder(path, cancelled).run();
}

std::string mediaName(const std::string& effect, const std::string& file) {
  return effect == kRowsEffect ? rowsName(file) : file;
}

std::string fileOfMediaName(const std::string& name) {
  return fileOfRowsName(name).value_or(name);
}

}  // namespace chispa
