// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <filesystem>
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/interrupt.h"
#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/base/relativepath.h"
#include "core/lightdata/lightdata.h"
#include "core/preview/film.h"
#include "core/recording/scorerecording.h"

namespace chispa::cli {
namespace {

/// Shows whole per cent on stderr; false once it was interrupted.
Progress percents() {
  return [last = -1](double share) mutable {
    const int now = static_cast<int>(share * 100);
    if (now != last) std::cerr << "\r" << now << " %" << std::flush;
    last = now;
    return !isInterrupted();
  };
}

/// Says on stdout what was written and how much it is.
int told(const Result<bool>& made, const Words& words) {
  const std::string& path = words.output;
  if (!made) return failed(made.failure());
  if (!*made) {
    std::cerr << "\rCancelled; "
              << (path.find('%') == std::string::npos ? "nothing was kept.\n"
                                                      : "the pictures so far are kept.\n");
    return kShowError;
  }
  std::error_code error;
  const auto size = std::filesystem::file_size(path, error);
  std::cerr << "\r100 %\n";
  if (words.json) {
    nlohmann::ordered_json written = {{"file", path}};
    // Numbered pictures are many files, of which none has this name.
    if (!error) written["bytes"] = size;
    std::cout << written.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) << "\n";
    return kDone;
  }
  std::cout << path << (error ? std::string() : ": " + std::to_string(size / 1024) + " KiB") << "\n";
  return kDone;
}

/// A whole set list in one recording.
int renderSetList(const OpenedShow& opened, const Words& words) {
  const SetList* list = findNamed(opened.show.setLists, words.setList);
  if (!list) return failed({"The show has no set list “" + words.setList + "”.", {}, "Run shows them all."});
  if (std::filesystem::path(words.output).extension() != ".chirec")
    return failed(
        {"A set list is written as a recording only.", words.output, "Give it a name that ends in .chirec."});
  const int rate = words.framesPerSecond > 0 ? words.framesPerSecond : 40;
  const auto compiled = opened.compiled();
  if (const auto length = recordedLength(opened.show, list->id)) {
    const double frames = seconds(*length) * rate;
    std::cerr << static_cast<long>(frames) << " frames of " << compiled->patch.universes.size()
              << " universes, " << std::round(seconds(*length) * 10) / 10 << " s, at most "
              << static_cast<long>(frames * static_cast<double>(compiled->packer->bufferSize()) / 1024)
              << " KiB\n";
  }
  noteInterrupts();
  return told(recordSetList(opened.show, *compiled, list->id, rate, words.output, percents()), words);
}

}  // namespace

int render(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (opened && !words.setList.empty()) return renderSetList(*opened, words);
  const Score* score = opened ? opened->score(words.score) : nullptr;
  if (!score) return kShowError;
  const auto compiled = opened->compiled();
  const double wanted_s = words.to_s > 0       ? words.to_s - words.from_s
                          : words.length_s > 0 ? words.length_s
                                               : seconds(score->length);
  if (words.to_s > 0 && wanted_s <= 0)
    return failed({"The end lies before the beginning.", words.file, "Give --to a later time than --from."});
  const double length_s = std::max(0.0, std::min(wanted_s, seconds(score->length) - words.from_s));
  const TimeSpan span{micros(words.from_s), micros(length_s)};
  noteInterrupts();
  if (std::filesystem::path(words.output).extension() == ".chirec") {
    const RecordingShape shape{span, words.framesPerSecond > 0 ? words.framesPerSecond : 40};
    std::cerr << shape.frames() << " frames of " << compiled->patch.universes.size() << " universes, "
              << std::round(length_s * 10) / 10 << " s\n";
    return told(recordScore(opened->show, *compiled, *score, shape, words.output, percents()), words);
  }
  if (isLightData(words.output)) {
    LightDataOrder data{span, words.framesPerSecond > 0 ? words.framesPerSecond : 40, words.byUniverse};
    auto rows = opened->rows(words.on);
    if (!rows) return kShowError;
    data.parts = *std::move(rows);
    std::cerr << data.frames() << " frames, " << std::round(length_s * 10) / 10 << " s\n";
    return told(writeLightData(opened->show, *compiled, *score, data, words.output, percents()), words);
  }
  FilmOrder order{
      span,
      {words.width / 2 * 2, words.height / 2 * 2, words.framesPerSecond > 0 ? words.framesPerSecond : 30},
      words.unrolled,
      words.asShown};
  if (filmHasSound(words.output) && !words.silent && !score->audio.empty()) {
    auto sound = decodeAudio(resolvedBeside(opened->path, score->audio));
    if (sound)
      order.sound = *std::move(sound);
    else
      std::cerr << sound.failure().text() << "\n";
  }
  std::cerr << order.pictures() << " pictures of " << order.shape.width << " × " << order.shape.height << ", "
            << std::round(length_s * 10) / 10 << " s";
  if (const auto bytes = expectedBytes(words.output, order.shape, order.pictures()))
    std::cerr << ", about " << *bytes / 1024 << " KiB";
  std::cerr << "\n";
  return told(makeFilm(opened->show, *compiled, *score, order, words.output, percents()), words);
}

}  // namespace chispa::cli
