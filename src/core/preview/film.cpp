// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/film.h"

#include <optional>

#include "core/files/pendingfile.h"
#include "core/preview/glow.h"
#include "core/preview/stripview.h"
#include "core/preview/unrolled.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

/// Pictures of a score, one after the other.
class FilmPainter {
 public:
  FilmPainter(const Show& show, const CompiledShow& compiled, const CompiledScore& score,
              const FilmOrder& order)
      : show_(show), compiled_(compiled), score_(score), order_(order) {
    renderer_.prepare(compiled);
    frame_.resize(static_cast<std::size_t>(compiled.map->count()));
    picture_.resize(static_cast<std::size_t>(order.shape.width) *
                    static_cast<std::size_t>(order.shape.height) * 4);
    if (order.isAsShown) strips_.emplace(show, compiled_);
    camera_ = framing(compiled.map->positions, static_cast<double>(order.shape.width) / order.shape.height);
  }

  const std::uint8_t* at(Micros t) {
    renderer_.render(score_, t, frame_);
    const PixelFrame& seen = strips_ ? strips_->seen(frame_, 1) : frame_;
    if (order_.isUnrolled)
      drawUnrolled(show_, seen, order_.shape.width, order_.shape.height, picture_);
    else
      glow_.paint(*compiled_.map, seen, camera_, order_.shape.width, order_.shape.height, picture_.data());
    return picture_.data();
  }

 private:
  const Show& show_;
  const CompiledShow& compiled_;
  const CompiledScore& score_;
  const FilmOrder& order_;
  Renderer renderer_;
  PixelFrame frame_;
  std::optional<StripView> strips_;
  GlowPainter glow_;
  OrbitCamera camera_;
  std::vector<std::uint8_t> picture_;
};

/// Writes all pictures and the end; false if it was cancelled.
Result<bool> writePictures(FilmWriter& writer, FilmPainter& painter, const FilmOrder& order,
                           const Progress& progress) {
  const long pictures = order.pictures();
  for (long i = 0; i < pictures; ++i) {
    if (!progress(static_cast<double>(i) / static_cast<double>(pictures))) return false;
    const Micros at = order.span.from + Micros(i * 1'000'000 / order.shape.framesPerSecond);
    if (const Outcome added = writer.add(painter.at(at)); !added) return added.failure();
  }
  if (const Outcome finished = writer.finish(); !finished) return finished.failure();
  return true;
}

}  // namespace

Result<bool> makeFilm(const Show& show, const CompiledShow& compiled, const Score& score,
                      const FilmOrder& order, const std::filesystem::path& path, const Progress& progress) {
  const CompiledScore* made = compiled.scoreOf(score.id);
  if (!made || order.pictures() < 1)
    return Failure{"There is nothing of the score to show.", path.string(), "Choose a longer part of it."};
  // Half a film is none. A pattern of numbered names is no file: its pictures stay.
  std::optional<PendingFile> file;
  if (path.extension() != ".png") {
    auto pending = PendingFile::begin(path);
    if (!pending) return pending.failure();
    file.emplace(*std::move(pending));
  }
  auto opened = FilmWriter::open(file ? file->path() : path, order.shape,
                                 {order.sound, order.span.from - score.audioStart});
  if (!opened) return Failure{opened.failure().what, path.string(), opened.failure().cure};
  auto writer = *std::move(opened);
  FilmPainter painter(show, compiled, *made, order);
  const Result<bool> written = writePictures(*writer, painter, order, progress);
  writer.reset();
  if (!written) return Failure{written.failure().what, path.string(), written.failure().cure};
  if (*written && file)
    if (const Outcome committed = file->commit(); !committed) return committed.failure();
  return *written;
}

}  // namespace chispa
