// SPDX-License-Identifier: GPL-3.0-or-later
// How well beats, bars and sections are found in composed pieces: `./run ear`; and what the finder learns
// from.
#include <chrono>
#include <cstdio>
#include <fstream>
#include <future>
#include <map>
#include <numeric>
#include <random>
#include <string_view>

#include "madeupmusic.h"
#include "scores.h"
#include "truth.h"
#include <nlohmann/json.hpp>

#include "core/music/analysis.h"
#include "core/music/rhythminput.h"

namespace chispa::bench {
namespace {

std::vector<double> secondsOf(const std::vector<Micros>& marks) {
  std::vector<double> out;
  for (const Micros mark : marks) out.push_back(seconds(mark));
  return out;
}

/// What is found in a piece.
struct Heard {
  FoundBeats beats;
  std::vector<FoundSection> sections;
};

Heard listen(const AudioClip& clip) {
  const SpectralFrames frames = analyseSpectrum(clip);
  const Chromagram harmony = chromagramOf(clip);
  Heard heard{findBeats(hearBeats(frames, harmony)), {}};
  heard.sections = findSections(frames, harmony, heard.beats.bars);
  return heard;
}

struct PieceScore {
  double beats = 0;
  double anyLevel = 0;
  double bars = 0;
  double onBeat = 0;
  double borders = 0;
  double returns = 0;
};

PieceScore scoreOf(const Heard& heard, const Truth& truth) {
  const auto beats = secondsOf(heard.beats.beats);
  std::vector<LetteredSection> found;
  for (const FoundSection& section : heard.sections)
    found.push_back({seconds(section.at), std::to_string(section.letter)});
  return {fMeasure(beats, truth.beats_s),
          fAtAnyLevel(beats, truth.beats_s),
          fMeasure(secondsOf(heard.beats.bars), truth.bars_s),
          shareOn(beats, truth.beats_s),
          bordersF(found, truth.sections, meanGap(truth.bars_s)),
          returnsRecognised(found, truth.sections, truth.end_s)};
}

/// The mean of one measure over those pieces that it can be told of.
double meanOf(const std::vector<PieceScore>& scores, double PieceScore::*member) {
  double sum = 0;
  int count = 0;
  for (const PieceScore& score : scores) {
    if (score.*member < 0) continue;
    sum += score.*member;
    ++count;
  }
  return count > 0 ? sum / count : 0;
}

void row(const std::string& title, const std::vector<PieceScore>& scores) {
  std::printf("| %s | %zu |", title.c_str(), scores.size());
  for (const auto member : {&PieceScore::beats, &PieceScore::anyLevel, &PieceScore::bars, &PieceScore::onBeat,
                            &PieceScore::borders, &PieceScore::returns})
    std::printf(" %.3f |", meanOf(scores, member));
  std::printf("\n");
}

/// Measures all pieces of `folder`, with a line for each one if `isDetailed`.
void measure(const std::filesystem::path& folder, bool isDetailed) {
  std::map<std::string, std::vector<PieceScore>> byStyle;
  std::vector<PieceScore> all, swung;
  double music_s = 0, taken_s = 0;
  for (const CorpusPiece& piece : readCorpus(folder)) {
    const auto clip = decodeAudio(piece.recording);
    if (!clip) {
      std::fprintf(stderr, "%s: %s\n", piece.recording.c_str(), clip.failure().what.text().c_str());
      continue;
    }
    const auto begun = std::chrono::steady_clock::now();
    const Heard heard = listen(**clip);
    taken_s += std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    music_s += seconds((*clip)->length());
    const PieceScore score = scoreOf(heard, piece.truth);
    byStyle[piece.truth.style].push_back(score);
    all.push_back(score);
    if (piece.truth.isSwung) swung.push_back(score);
    if (isDetailed)
      std::printf(
          "%s %-20s beats %.3f any %.3f bars %.3f borders %.2f returns %.2f, found %.1f bpm of %d, is %.1f\n",
          piece.recording.filename().c_str(), piece.truth.style.c_str(), score.beats, score.anyLevel,
          score.bars, score.borders, score.returns, heard.beats.tempo_bpm, heard.beats.beatsPerBar,
          60 * static_cast<double>(piece.truth.beats_s.size() - 1) /
              (piece.truth.beats_s.back() - piece.truth.beats_s.front()));
  }
  std::printf(
      "| style | pieces | beats F | at any level F | first beats F | found that lie on a beat | borders F | "
      "returns recognised |\n");
  std::printf("| --- | --- | --- | --- | --- | --- | --- | --- |\n");
  for (const auto& [style, scores] : byStyle) row(style, scores);
  row("swung", swung);
  row("**all**", all);
  std::printf("\nAnalysis: %.0f times as fast as the music, on one core.\n", music_s / taken_s);
}

/// How well sections are found where the bars are known.
void measureSections(const std::filesystem::path& folder) {
  std::vector<PieceScore> all;
  for (const CorpusPiece& piece : readCorpus(folder)) {
    const auto clip = decodeAudio(piece.recording);
    if (!clip) continue;
    Heard heard;
    for (const double at : piece.truth.bars_s) heard.beats.bars.push_back(micros(at));
    heard.sections = findSections(analyseSpectrum(**clip), chromagramOf(**clip), heard.beats.bars);
    all.push_back(scoreOf(heard, piece.truth));
  }
  std::printf("borders F %.3f, returns recognised %.3f\n", meanOf(all, &PieceScore::borders),
              meanOf(all, &PieceScore::returns));
}

/// The share of the time of major and minor chords for which the found chord is the right one.
double chordShare(const FoundHarmony& found, const Truth& truth) {
  int right = 0, all = 0;
  for (std::size_t i = 0; i < truth.chords.size(); ++i) {
    const auto& chord = truth.chords[i];
    const double to_s = i + 1 < truth.chords.size() ? truth.chords[i + 1].from_s : truth.end_s;
    constexpr double kStep_s = 0.1;
    for (double at_s = chord.from_s + kStep_s / 2; chord.chord && at_s < to_s; at_s += kStep_s) {
      const auto after = std::upper_bound(found.chords.begin(), found.chords.end(), micros(at_s),
                                          [](Micros at, const FoundChord& one) { return at < one.at; });
      right += after != found.chords.begin() && std::prev(after)->chord == chord.chord;
      ++all;
    }
  }
  return all > 0 ? static_cast<double>(right) / all : 0;
}

/// How well chords and keys are heard.
void measureHarmony(const std::filesystem::path& folder) {
  double share = 0;
  int keys = 0, count = 0;
  for (const CorpusPiece& piece : readCorpus(folder)) {
    const auto clip = decodeAudio(piece.recording);
    if (!clip) continue;
    const Chromagram harmony = chromagramOf(**clip);
    const FoundBeats beats = findBeats(hearBeats(analyseSpectrum(**clip), harmony));
    const FoundHarmony found = findHarmony(harmony, beats.beats, beats.bars);
    share += chordShare(found, piece.truth);
    keys += found.key == piece.truth.key;
    ++count;
  }
  std::printf("\nOf %d pieces chords are right for %.3f of the time, and the keys of %.3f.\n", count,
              share / count, static_cast<double>(keys) / count);
}

/// Writes what the finder hears of a clip, one byte a number, into `path` with the ending .hear.
void writeInput(const AudioClip& clip, std::filesystem::path path) {
  const RhythmInput input = rhythmInput(analyseSpectrum(clip).picture, chromagramOf(clip));
  std::ofstream file(path.replace_extension(".hear"), std::ios::binary);
  for (const auto& frame : input.frames)
    for (const float number : frame)
      file.put(static_cast<char>(static_cast<unsigned char>(std::clamp(number, 0.f, 1.5f) * 170)));
}

/// The same for each piece of `folder`, beside it.
void writeInputs(const std::filesystem::path& folder) {
  for (const CorpusPiece& piece : readCorpus(folder))
    if (const auto clip = decodeAudio(piece.recording)) writeInput(**clip, piece.recording);
}

/// Makes up `count` pieces of plain tones and noise, which no sound font has, and writes what is heard of
/// them and what is known of them into `folder`.
void makeUp(const std::filesystem::path& folder, int count) {
  std::filesystem::create_directories(folder);
  std::mt19937 random(7);
  const auto between = [&random](double low, double high) {
    return std::uniform_real_distribution<>(low, high)(random);
  };
  for (int n = 0; n < count; ++n) {
    const double begins_bpm = 55 * std::pow(195.0 / 55, between(0, 1));
    const double ends_bpm = n % 5 == 0 ? begins_bpm * between(0.75, 1.35) : begins_bpm;
    test::Recipe recipe{
        .tempo_bpm = [=](double share) { return begins_bpm + (ends_bpm - begins_bpm) * share; },
        .beatsPerBar = n % 3 == 0 ? 3 : 4,
        .offbeat = n % 4 == 0 ? 0.66 : 0.5,
        .missing = between(0, 0.25),
        .offbeats = between(0.2, 1),
        .noise = between(0.001, 0.05),
        .seed = static_cast<unsigned>(1'000 + n)};
    const test::MadeUpMusic music = test::Composer(recipe).compose();
    const auto path = folder / ("m" + std::to_string(n));
    writeInput(music.clip, path);
    nlohmann::json beats = nlohmann::json::array();
    for (const double at : music.beats_s) {
      const bool isFirst = std::find(music.bars_s.begin(), music.bars_s.end(), at) != music.bars_s.end();
      beats.push_back({at, isFirst ? 1 : 2});
    }
    std::ofstream(folder / (path.filename().string() + ".json")) << nlohmann::json{{"beats", beats}};
  }
}

/// What is heard of beats in a piece, as writeInputs() left it.
BeatChances chancesOf(std::filesystem::path hear) {
  std::ifstream file(hear.replace_extension(".hear"), std::ios::binary);
  const std::string bytes{std::istreambuf_iterator<char>(file), {}};
  RhythmInput input;
  for (std::size_t at = 0; at + RhythmInput::kNumbers <= bytes.size(); at += RhythmInput::kNumbers) {
    auto& frame = input.frames.emplace_back();
    for (std::size_t k = 0; k < frame.size(); ++k)
      frame[k] = static_cast<float>(static_cast<unsigned char>(bytes[at + k])) / 170;
  }
  return beatChances(input);
}

/// Looks for the numbers of MetreModel with which beats and bars of `folder` are found best, one number after
/// the other.
void tune(const std::filesystem::path& folder) {
  const auto pieces = readCorpus(folder);
  std::vector<BeatChances> chances;
  for (const CorpusPiece& piece : pieces) chances.push_back(chancesOf(piece.recording));
  const auto scoreWith = [&](const MetreModel& model) {
    const auto sumOf = [&](std::size_t first) {
      std::pair<double, double> sums;
      for (std::size_t n = first; n < pieces.size(); n += 2) {
        const FoundBeats found = foundBeats(chances[n], placeBeats(chances[n], model));
        sums.first += fMeasure(secondsOf(found.beats), pieces[n].truth.beats_s);
        sums.second += fMeasure(secondsOf(found.bars), pieces[n].truth.bars_s);
      }
      return sums;
    };
    auto odd = std::async(std::launch::async, sumOf, 1);
    auto [beatSum, barSum] = sumOf(0);
    const auto rest = odd.get();
    beatSum += rest.first, barSum += rest.second;
    const double sum = beatSum + 0.5 * barSum;
    const auto count = static_cast<double>(pieces.size());
    std::printf("  beats %.4f bars %.4f\n", beatSum / count, barSum / count);
    std::fflush(stdout);
    return sum;
  };
  MetreModel best;
  double most = scoreWith(best);
  const auto tryOut = [&](const char* name, auto change) {
    MetreModel model = best;
    change(model);
    std::printf("%s", name);
    if (const double score = scoreWith(model); score > most) {
      most = score;
      best = model;
      std::printf("    taken\n");
    }
  };
  for (int round = 0; round < 2; ++round) {
    for (const float by : {0.5f, 2.f}) {
      const std::string word = by < 1 ? " halved" : " doubled";
      tryOut(("drift" + word).c_str(), [&](MetreModel& m) { m.drift *= by; });
      tryOut(("leap" + word).c_str(), [&](MetreModel& m) { m.leap *= by; });
      tryOut(("other metre" + word).c_str(), [&](MetreModel& m) { m.otherMetre *= by; });
      tryOut(("rest" + word).c_str(), [&](MetreModel& m) { m.rest *= by; });
      tryOut(("resting" + word).c_str(), [&](MetreModel& m) { m.resting *= by; });
      tryOut(("usual tempo" + word).c_str(), [&](MetreModel& m) { m.usualTempo *= by; });
      tryOut(("beat weight" + word).c_str(), [&](MetreModel& m) { m.beatWeight *= by < 1 ? 0.75f : 1.33f; });
      tryOut(("first weight" + word).c_str(),
             [&](MetreModel& m) { m.firstWeight *= by < 1 ? 0.75f : 1.33f; });
      tryOut(("least" + word).c_str(), [&](MetreModel& m) { m.least *= by; });
      tryOut(("metres" + word).c_str(), [&](MetreModel& m) {
        for (float& v : m.metre) v *= by;
      });
      tryOut(("two" + word).c_str(), [&](MetreModel& m) { m.metre[0] *= by; });
    }
  }
  std::printf(
      "drift %g leap %g otherMetre %g rest %g resting %g usualTempo %g beatWeight %g firstWeight %g least %g "
      "metres",
      best.drift, best.leap, best.otherMetre, best.rest, best.resting, best.usualTempo, best.beatWeight,
      best.firstWeight, best.least);
  for (const float v : best.metre) std::printf(" %g", v);
  std::printf("\n");
}

}  // namespace
}  // namespace chispa::bench

int main(int count, char** words) {
  using namespace chispa::bench;
  const std::string_view verb = count > 2 ? words[1] : "";
  if (verb == "measure") {
    measure(words[2], count > 3);
  } else if (verb == "sections") {
    measureSections(words[2]);
  } else if (verb == "chords") {
    measureHarmony(words[2]);
  } else if (verb == "tune") {
    tune(words[2]);
  } else if (verb == "made-up" && count > 3) {
    makeUp(words[2], std::atoi(words[3]));
  } else if (verb == "inputs") {
    writeInputs(words[2]);
  } else {
    std::fprintf(
        stderr,
        "usage: chispa-ear measure FOLDER [each] | sections FOLDER | chords FOLDER | inputs FOLDER | "
        "made-up FOLDER COUNT | tune FOLDER\n");
    return 2;
  }
  return 0;
}
