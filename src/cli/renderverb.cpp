// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <filesystem>
#include <iostream>

#include "cli/interrupt.h"
#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/media/videowriter.h"
#include "core/preview/glow.h"
#include "core/preview/unrolled.h"
#include "core/render/renderer.h"

namespace chispa::cli {
namespace {

/// Pictures of a score, one after the other.
class Film {
 public:
  Film(const Show& show, const CompiledShow& compiled, const CompiledScore& score, const FilmShape& shape, bool isUnrolled) : show_(show), compiled_(compiled), score_(score), shape_(shape), isUnrolled_(isUnrolled) {
    renderer_.prepare(compiled);
    frame_.resize(static_cast<std::size_t>(compiled.map.count()));
    picture_.resize(static_cast<std::size_t>(shape.width) * static_cast<std::size_t>(shape.height) * 4);
    camera_ = framing(compiled.map.positions, static_cast<double>(shape.width) / shape.height);
  }

  const std::uint8_t* at(Micros t) {
    renderer_.render(score_, t, frame_);
    if (isUnrolled_)
      drawUnrolled(show_, frame_, shape_.width, shape_.height, picture_);
    else
      glow_.paint(compiled_.map, frame_, camera_, shape_.width, shape_.height, picture_.data());
    return picture_.data();
  }

 private:
  const Show& show_;
  const CompiledShow& compiled_;
  const CompiledScore& score_;
  FilmShape shape_;
  bool isUnrolled_;
  Renderer renderer_;
  PixelFrame frame_;
  GlowPainter glow_;
  OrbitCamera camera_;
  std::vector<std::uint8_t> picture_;
};

}  // namespace

int render(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  const Score* score = opened ? opened->score(words.score) : nullptr;
  if (!score) return kShowError;
  const auto compiled = opened->compiled();
  const FilmShape shape{words.width / 2 * 2, words.height / 2 * 2, words.framesPerSecond};
  const double length_s = std::min(words.length_s > 0 ? words.length_s : 1e9, seconds(score->length) - words.from_s);
  const auto pictures = static_cast<long>(std::floor(std::max(0.0, length_s) * shape.framesPerSecond));
  if (pictures < 1) return failed({"There is nothing of the score behind " + std::to_string(words.from_s) + " s.", words.file, "Begin earlier."});
  auto writer = FilmWriter::open(words.output, shape);
  if (!writer) return failed(writer.failure());
  std::cerr << pictures << " pictures of " << shape.width << " × " << shape.height << ", " << std::round(length_s * 10) / 10 << " s\n";
  auto film = *std::move(writer);
  noteInterrupts();
  Film pictured(opened->show, *compiled, *compiled->scoreOf(score->id), shape, words.unrolled);
  for (long i = 0; i < pictures && !isInterrupted(); ++i) {
    if (const Outcome added = film->add(pictured.at(micros(words.from_s + static_cast<double>(i) / shape.framesPerSecond))); !added) return failed(added.failure());
    if (i % shape.framesPerSecond == 0) std::cerr << "\r" << i * 100 / pictures << " %" << std::flush;
  }
  if (isInterrupted()) {
    // Half a film is none; of pictures those that are whole stay.
    film.reset();
    std::error_code error;
    std::cerr << (std::filesystem::remove(words.output, error) ? "\rCancelled; nothing was kept.\n" : "\rCancelled; the pictures so far are kept.\n");
    return kShowError;
  }
  if (const Outcome finished = film->finish(); !finished) return failed(finished.failure());
  film.reset();
  std::error_code error;
  const auto size = std::filesystem::file_size(words.output, error);
  std::cerr << "\r100 %\n" << words.output << (error ? std::string() : ": " + std::to_string(size / 1024) + " KiB") << "\n";
  return kDone;
}

}  // namespace chispa::cli
