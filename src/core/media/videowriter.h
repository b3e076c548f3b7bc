// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <filesystem>
#include <memory>

#include "core/base/result.h"

namespace chispa {

/// What a film is made of: even width and height in dots, and pictures a second.
struct FilmShape {
  int width = 1280;
  int height = 720;
  int framesPerSecond = 30;
};

/// Writes pictures as a film: the file's ending chooses MP4 (H.264), WebM (VP9), AVI (MPEG-4), animated GIF, WebP or PNG
/// (.apng); a name with a number's place, as in "light-%04d.png", gives a PNG each. One thread at a time.
class FilmWriter {
 public:
  static Result<std::unique_ptr<FilmWriter>> open(const std::filesystem::path& path, const FilmShape& shape);
  ~FilmWriter();
  FilmWriter(const FilmWriter&) = delete;
  FilmWriter& operator=(const FilmWriter&) = delete;

  /// The next picture: width × height dots of four bytes R, G, B and one that is passed over, rows from the top.
  Outcome add(const std::uint8_t* rgba);
  /// Writes what is still held, and the end of the file. Without it the film is not whole.
  Outcome finish();

 private:
  struct State;
  explicit FilmWriter(std::unique_ptr<State> state);
  std::unique_ptr<State> state_;
};

}  // namespace chispa
