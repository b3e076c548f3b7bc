// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <vector>

namespace chispa {

/// A picture as bytes, row by row from the upper left, without gaps.
struct PictureBytes {
  int width = 0;
  int height = 0;
  /// A byte each for grey, or for red, green and blue.
  std::vector<std::uint8_t> bytes;
};

enum class PictureColours { Grey, Rgb };

/// Decodes the pictures of a file, a still one or a film, one behind the other; what FFmpeg reads. One
/// thread.
class PictureReader {
 public:
  /// Null if the file cannot be read as pictures.
  static std::unique_ptr<PictureReader> open(const std::filesystem::path& path, PictureColours colours);
  ~PictureReader();

  /// 0 if the file does not say.
  double framesPerSecond() const;
  /// The next one; nothing at the end, or where the rest cannot be decoded. Turned by no orientation that the
  /// file may tell; values of the same kind are those of the file, bit for bit.
  std::optional<PictureBytes> next();

 private:
  struct Decoder;
  explicit PictureReader(std::unique_ptr<Decoder> decoder);

  std::unique_ptr<Decoder> decoder_;
};

}  // namespace chispa
