// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/media.h"

#include "core/base/relativepath.h"
#include "core/media/animatedwebp.h"
#include "core/media/lightrows.h"
#include "core/media/mediabuilder.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

/// The pictures of one file, a still one or a film.
Result<std::shared_ptr<const Media>> decodePictures(const std::string& path,
                                                    const std::atomic<bool>* cancelled) {
  ffmpeg::Input input(path);
  const auto isCancelled = [cancelled] { return cancelled && cancelled->load(); };
  input.isCancelled = isCancelled;
  if (const std::string why = ffmpeg::open(input, AVMEDIA_TYPE_VIDEO, "The picture", "picture"); !why.empty())
    return pictureFailure(path, why);
  MediaBuilder builder;
  constexpr double kUsualRate = 25;
  const double rate = ffmpeg::frameRate(input);
  builder.media().framesPerSecond = rate > 0 ? std::clamp(rate, 0.1, 240.0) : kUsualRate;
  ffmpeg::FrameReader frames(input);
  while (!builder.isFull() && !isCancelled()) {
    const AVFrame* frame = frames.next();
    if (!frame) break;
    builder.add(ffmpeg::Picture(*frame));
  }
  if (builder.media().frames == 0) return pictureFailure(path, "It holds no picture that can be decoded.");
  if (builder.media().frames == 1) builder.media().framesPerSecond = 0;
  return std::shared_ptr<const Media>(builder.take());
}

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
  return decodePictures(path.string(), cancelled);
}

std::string mediaName(const std::string& effect, const std::string& file) {
  return effect == kRowsEffect ? rowsName(file) : file;
}

std::string fileOfMediaName(const std::string& name) {
  return fileOfRowsName(name).value_or(name);
}

}  // namespace chispa
