// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>

#include "core/base/result.h"
#include "core/media/audio.h"

namespace chispa {

/// What a film is made of: even width and height in dots, and pictures a second.
struct FilmShape {
  int width = 1280;
  int height = 720;
  int framesPerSecond = 30;
};

/// What is heard with a film: a piece from an instant of it on; none without a clip.
struct FilmSound {
  std::shared_ptr<const AudioClip> clip = {};
  Micros from{0};
};

/// True if the file's ending names a kind of film that has sound: MP4, WebM and AVI.
bool filmHasSound(const std::filesystem::path& path);
/// About how many bytes so many pictures will take; nothing where that depends on what they show.
std::optional<std::uint64_t> expectedBytes(const std::filesystem::path& path, const FilmShape& shape,
                                           long pictures);

/// Writes pictures as a film: the file's ending chooses MP4 (H.264), WebM (VP9), AVI (MPEG-4), animated GIF,
/// WebP or PNG
/// (.apng); a name with a number's place, as in "light-%04d.png", gives a PNG each. One thread at a time.
class FilmWriter {
 public:
  static Result<std::unique_ptr<FilmWriter>> open(const std::filesystem::path& path, const FilmShape& shape,
                                                  FilmSound sound = {});
  ~FilmWriter();
  FilmWriter(const FilmWriter&) = delete;
  FilmWriter& operator=(const FilmWriter&) = delete;

  /// The next picture: width × height dots of four bytes R, G, B and one that is passed over, rows from the
  /// top.
  Outcome add(const std::uint8_t* rgba);
  /// Writes what is still held, and the end of the file. Without it the film is not whole.
  Outcome finish();

 private:
  struct State;
  explicit FilmWriter(std::unique_ptr<State> state);
  std::unique_ptr<State> state_;
};

}  // namespace chispa
