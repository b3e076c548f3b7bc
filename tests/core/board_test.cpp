// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <filesystem>
#include <fstream>
#include <map>
#include <random>

#include "boardshow.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/base/hash.h"
#include "core/board/condense.h"
#include "core/board/files.h"
#include "core/board/frames.h"
#include "core/board/kinds.h"
#include "core/board/player.h"
#include "core/board/program.h"
#include "core/effect/effect.h"

namespace chispa {
namespace {

using board::Blob;
using board::BoardLight;
using board::BoardOptions;
using board::BoardPlayer;
using board::FrameSequence;
using board::Graph;
using board::Term;
using test::BoardShow;

// ---- Terms ----

TEST(Terms, WorkOutWhatIsKnown) {
  Graph graph;
  const Term sum = graph.constant(2) * 3.0 + 0.5;
  EXPECT_EQ(graph[sum].op, board::TermOp::Constant);
  EXPECT_DOUBLE_EQ(graph[sum].number, 6.5);
  // A time that is shifted and scaled is a time.
  const Term time = (graph.ramp(1, 2) * 3.0 - 1.0) / 2.0;
  EXPECT_EQ(graph[time].op, board::TermOp::Ramp);
  EXPECT_DOUBLE_EQ(graph[time].number, 1);
  EXPECT_DOUBLE_EQ(graph[time].rate, 3);
}

TEST(Terms, SaidTwiceAreOne) {
  Graph graph;
  const Term place = graph.input({0, 0.25f, 0.5f});
  EXPECT_EQ((place * 2.0 + 1.0).node, (place * 2.0 + 1.0).node);
  EXPECT_EQ(graph.input({0, 0.25f, 0.5f}).node, place.node);
  EXPECT_EQ(graph[graph.input({3, 3, 3})].op, board::TermOp::Constant);
}

/// A scene that never ends, of one part of that kind.
Blob::Bytes sceneOf(std::uint8_t kind, std::size_t body) {
  Blob::Bytes scene;
  board::putBytes(scene, 0, 3);
  board::putBytes(scene, 0, 3);
  board::putBytes(scene, 1, 2);
  board::putBytes(scene, 0, 3);
  board::putBytes(scene, 0xffffff, 3);
  scene.push_back(kind);
  board::putBytes(scene, body, 3);
  return scene;
}

/// What the board computes of `term` for each of `cells` cells, in 1/65536, read off a grey strip of so many
/// thresholds: by programs that compare it with a number.
std::vector<std::uint8_t> shownBy(Graph& graph, Term term, std::size_t cells) {
  board::CellPixels pixels;
  for (std::size_t i = 0; i < cells; ++i) pixels.push_back({static_cast<std::uint16_t>(i)});
  Blob blob;
  // A head of one scene with one part: kit/player.c.
  Blob::Bytes head = {1, 1, 40,  3,   0,   1,   2,   0,   static_cast<std::uint8_t>(cells),
                      0, 0, 255, 255, 255, 255, 255, 255, 0,
                      0, 0, 1,   0,   0,   0};
  blob.append(head);
  const auto written = board::writeProgram(graph, {term, term, term}, pixels, Response{}, blob);
  EXPECT_TRUE(written);
  const Blob::Bytes scene = sceneOf(written->isSweep ? 2 : 1, written->at);
  blob.setThree(21, blob.append(scene));
  BoardPlayer player(blob.bytes());
  const auto bytes = player.frame(0);
  std::vector<std::uint8_t> shown;
  for (std::size_t i = 0; i < cells; ++i) shown.push_back(bytes[3 * i]);
  return shown;
}

TEST(Terms, AreComputedAsTheyAreSaid) {
  const std::vector<float> places = {0, 0.1f, 0.2f, 0.35f, 0.5f, 0.77f, 0.9f, 1};
  const std::map<std::string, std::pair<Term (*)(Term), double (*)(double)>> functions = {
      {"square", {[](Term x) { return x * x; }, [](double x) { return x * x; }}},
      {"root", {[](Term x) { return board::rootOf(x); }, [](double x) { return std::sqrt(x); }}},
      {"cosine",
       {[](Term x) { return 0.5 + 0.5 * board::cosineOf(x); },
        [](double x) { return 0.5 + 0.5 * std::cos(2 * kPi * x); }}},
      {"power",
       {[](Term x) { return board::powerOf(x, x.graph->constant(2.2)); },
        [](double x) { return std::pow(x, 2.2); }}},
      {"division", {[](Term x) { return x / (x + 1.0); }, [](double x) { return x / (x + 1); }}},
      {"modulo",
       {[](Term x) { return board::moduloOf(x * 7.0 - 3.0, 1); },
        [](double x) { return 7 * x - 3 - std::floor(7 * x - 3); }}},
      {"smooth",
       {[](Term x) { return board::eased(x.graph->constant(0.25), x.graph->constant(0.5), x); },
        [](double x) {
          const double u = std::clamp((x - 0.25) / 0.5, 0.0, 1.0);
          return u * u * (3 - 2 * u);
        }}},
      {"exponential",
       {[](Term x) { return board::exponentialOf(x * -3.0); }, [](double x) { return std::exp(-3 * x); }}},
      {"choice",
       {[](Term x) { return board::choose(x < 0.3, x, 0.0); }, [](double x) { return x < 0.3 ? x : 0; }}},
      {"lines",
       {[](Term x) {
          return board::alongLines(x, {{0, 0}, {0.5, 1}, {1, 0.2}});
        },
        [](double x) { return x < 0.5 ? 2 * x : 1 - 1.6 * (x - 0.5); }}},
  };
  for (const auto& [name, function] : functions) {
    Graph graph;
    const auto shown = shownBy(graph, function.first(graph.input(places)), places.size());
    for (std::size_t i = 0; i < places.size(); ++i) {
      // A whole turn's remainder at a whole number may come out as either end.
      if (name == "modulo" && (places[i] == 0 || places[i] == 1)) continue;
      EXPECT_NEAR(shown[i], 255 * function.second(static_cast<double>(places[i])), 1.01)
          << name << " at " << places[i];
    }
  }
}

TEST(Terms, HaveTheChanceOfEffects) {
  Graph graph;
  std::vector<float> numbers(40);
  for (std::size_t i = 0; i < numbers.size(); ++i) numbers[i] = static_cast<float>(i) - 20;
  const Term word = graph.add(board::TermOp::Word, graph.input(numbers));
  const auto shown = shownBy(graph, graph.chance(9, word, graph.wordConstant(3)), numbers.size());
  for (std::size_t i = 0; i < numbers.size(); ++i) {
    const auto n = static_cast<std::uint64_t>(static_cast<std::int64_t>(numbers[i]));
    EXPECT_NEAR(shown[i], 255 * chispa::chance(9, n, 3), 1.01);
  }
}

TEST(Terms, CondenseWhatDependsOnOneNumber) {
  Graph graph;
  const Term place = graph.input({0, 0.3f, 0.6f, 0.9f, 0.2f});
  const Term wave =
      board::powerOf(0.5 + 0.5 * board::cosineOf(place * 3.0 - graph.ramp(0, 1)), graph.constant(2));
  const auto light = board::condensed(graph, {wave, wave * 0.5, wave * 0.25});
  EXPECT_EQ(graph[light[0]].op, board::TermOp::Channel);
  // What depends on time in another way too is left as it is.
  const Term two = wave * board::fractionOf(graph.ramp(0, 0.3));
  EXPECT_EQ(board::condensed(graph, {two, two, two})[0].node, two.node);
}

// ---- Frames ----

/// Plays a sequence that was written, alone, and compares `count` frames.
void expectPlays(const FrameSequence& sequence, std::uint32_t count) {
  const auto pixels = static_cast<std::uint16_t>(sequence.values.back() + 1);
  Blob blob;
  Blob::Bytes head = {1, 1, 40, static_cast<std::uint8_t>(sequence.channels), 0, 1, 2, 3};
  board::putBytes(head, pixels, 2);
  for (const int byte : {0, 255, 255, 255, 255, 255, 255, 0, 0, 0, 1, 0, 0, 0})
    head.push_back(static_cast<std::uint8_t>(byte));
  blob.append(head);
  const std::size_t body = board::writeFrames(sequence, blob);
  const Blob::Bytes scene = sceneOf(0, body);
  blob.setThree(21, blob.append(scene));
  BoardPlayer player(blob.bytes());
  const auto channels = static_cast<std::size_t>(sequence.channels);
  for (std::uint32_t i = 0; i < count; ++i) {
    const auto shown = player.frame(i);
    std::size_t at = i;
    if (at >= sequence.frames.size()) {
      const std::size_t from = sequence.loopsFrom.value_or(sequence.frames.size() - 1);
      at = from + (at - from) % (sequence.frames.size() - from);
    }
    for (std::size_t v = 0; v < sequence.values.size(); ++v)
      for (std::size_t c = 0; c < channels; ++c)
        ASSERT_EQ(shown[sequence.values[v] * channels + c], sequence.frames[at][v * channels + c])
            << "frame " << i << ", value " << v;
  }
}

/// Frames with runs, repeats, stretches that stay and stretches that come again.
FrameSequence madeUpSequence(std::mt19937& chance, int colours) {
  const auto below = [&](std::size_t n) { return static_cast<std::size_t>(chance() % n); };
  FrameSequence sequence;
  sequence.channels = 3 + static_cast<int>(below(2));
  std::uint16_t next = 0;
  for (std::size_t i = 0; i < 20 + below(400); ++i) {
    next = static_cast<std::uint16_t>(next + 1 + (below(9) == 0 ? below(30) : 0));
    sequence.values.push_back(next);
  }
  const auto channels = static_cast<std::size_t>(sequence.channels);
  Blob::Bytes frame(sequence.values.size() * channels, 0);
  while (sequence.frames.size() < 220) {
    switch (below(5)) {
      case 0: {
        const std::size_t from = below(sequence.values.size());
        const std::size_t to = std::min(sequence.values.size(), from + 1 + below(90));
        const auto colour = static_cast<std::uint8_t>(below(static_cast<std::size_t>(colours)));
        for (std::size_t i = from * channels; i < to * channels; ++i)
          frame[i] = static_cast<std::uint8_t>(colour + i % channels);
        break;
      }
      case 1:
        for (std::uint8_t& byte : frame)
          if (below(3) == 0) byte = static_cast<std::uint8_t>(below(static_cast<std::size_t>(colours)));
        break;
      case 2:
        for (std::size_t i = 12 * channels; i < frame.size(); ++i) frame[i] = frame[i - 12 * channels];
        break;
      case 3:
        for (std::size_t n = below(30); n > 0; --n) sequence.frames.push_back(frame);
        break;
      default: {
        const std::size_t from = sequence.frames.empty() ? 0 : below(sequence.frames.size());
        for (std::size_t n = below(40), at = from; n > 0 && at < sequence.frames.size(); --n, ++at)
          sequence.frames.push_back(Blob::Bytes(sequence.frames[at]));
        if (!sequence.frames.empty()) frame = sequence.frames.back();
      }
    }
    sequence.frames.push_back(frame);
  }
  return sequence;
}

TEST(BoardFrames, ArePlayedAsTheyWereWritten) {
  std::mt19937 chance(4);
  for (int round = 0; round < 60; ++round) {
    SCOPED_TRACE(round);
    FrameSequence sequence = madeUpSequence(chance, round % 2 == 0 ? 3 : 250);
    expectPlays(sequence, static_cast<std::uint32_t>(sequence.frames.size()));
    sequence.loopsFrom = chance() % sequence.frames.size();
    expectPlays(sequence, static_cast<std::uint32_t>(3 * sequence.frames.size()));
  }
}

TEST(BoardFrames, FindTheirOwnLoops) {
  FrameSequence sequence;
  for (std::uint16_t i = 0; i < 60; ++i) sequence.values.push_back(i);
  // A light that runs round and round, 50 times; each round is as the one before.
  for (int i = 0; i < 60 * 50; ++i) {
    Blob::Bytes frame(180, 0);
    frame[static_cast<std::size_t>(i % 60 * 3)] = 255;
    sequence.frames.push_back(frame);
  }
  Blob blob;
  board::writeFrames(sequence, blob);
  EXPECT_LT(blob.size(), 600u);
  expectPlays(sequence, 3000);
}

TEST(BoardFrames, WithFewerColoursHaveNoMore) {
  std::mt19937 chance(5);
  FrameSequence sequence = madeUpSequence(chance, 200);
  board::reduceColours(sequence, 8);
  std::set<std::vector<std::uint8_t>> colours;
  const auto channels = static_cast<std::ptrdiff_t>(sequence.channels);
  for (const auto& frame : sequence.frames)
    for (auto at = frame.begin(); at != frame.end(); at += channels) colours.insert({at, at + channels});
  EXPECT_LE(colours.size(), 8u);
  EXPECT_GT(colours.size(), 3u);
}

// ---- Effects ----

/// Every effect that a board can compute, on a strip and on a matrix.
class SayableEffect : public testing::TestWithParam<std::string> {};

/// Whether all of it is a program that is right everywhere.
bool expectRight(BoardShow made, const std::string& effect, bool isScore) {
  const SceneId scene = isScore ? SceneId(made.addScoreOf({made.clip(effect)}, Micros(8'000'000)))
                                : SceneId(made.addLookOf({made.clip(effect)}));
  const auto light = made.write(made.planOf(scene));
  EXPECT_TRUE(light) << light.failure().text();
  if (!light) return false;
  EXPECT_FALSE(light->scenes[0].parts.empty());
  bool isProgram = true;
  for (const board::BoardPart& part : light->scenes[0].parts) {
    EXPECT_TRUE(part.isProgram || part.reason == "frames are smaller") << effect << ": " << part.reason;
    EXPECT_LE(part.meanError, board::kMaxMeanError) << effect;
    isProgram = isProgram && part.isProgram && part.maxError <= board::kMaxError;
  }
  EXPECT_LT(light->scenes[0].loss, 1) << effect;
  return isProgram;
}

TEST_P(SayableEffect, OnAStripIsRight) {
  expectRight(BoardShow(LineShape{60, 0.02}), GetParam(), false);
  expectRight(BoardShow(LineShape{60, 0.02}), GetParam(), true);
}

TEST_P(SayableEffect, OnAMatrixIsRight) {
  expectRight(BoardShow(GridShape{16, 9, 0.05, 0.05}), GetParam(), false);
  expectRight(BoardShow(GridShape{16, 9, 0.05, 0.05}), GetParam(), true);
}

std::vector<std::string> sayable() {
  std::vector<std::string> keys;
  for (const Effect& effect : effects())
    if (board::isSayable(effect.key)) keys.push_back(effect.key);
  return keys;
}

INSTANTIATE_TEST_SUITE_P(Board, SayableEffect, testing::ValuesIn(sayable()), [](const auto& one) {
  std::string name = one.param;
  std::erase(name, '-');
  return name;
});

TEST(BoardPrograms, AreTwentyEffectsAtLeast) {
  int programs = 0;
  for (const std::string& key : sayable())
    if (expectRight(BoardShow(LineShape{60, 0.02}), key, true) ||
        expectRight(BoardShow(GridShape{16, 9, 0.05, 0.05}), key, true))
      ++programs;
  EXPECT_GE(programs, 20);
}

TEST(BoardPrograms, KeepFadesLayersAndMotions) {
  BoardShow made(LineShape{60, 0.02});
  Clip below = made.clip("ribbon");
  below.fadeIn = Micros(1'500'000);
  below.fadeOut = Micros(2'000'000);
  below.fadeShape = FadeShape::Soft;
  Clip above = made.clip("comets", {{"heads", 3.0}});
  above.layer = 1;
  above.start = Micros(1'000'000);
  above.blend = Blend::Screen;
  above.motions["strength"] = Motion{Driver::Curve, 0, 1, {{0, 0}, {0.5, 1}, {1, 0.3}}, 0, {}};
  Clip last = made.clip("swell");
  last.start = Micros(7'000'000);
  last.blend = Blend::Normal;
  last.motions["waves"] = Motion{Driver::Curve, 1, 6, {{0, 0}, {1, 1}}, 0, {}};
  const auto light = made.write(made.planOf(made.addScoreOf({below, above, last}, Micros(14'000'000))));
  ASSERT_TRUE(light) << light.failure().text();
  EXPECT_TRUE(light->scenes[0].isProgram);
  EXPECT_LT(light->data.size(), 3000u);
  for (const auto& part : light->scenes[0].parts) {
    EXPECT_TRUE(part.isProgram) << part.effects << ": " << part.reason;
    EXPECT_LE(part.maxError, board::kMaxError) << part.effects;
  }
}

/// A clip that gives way fades out by what a fade-in takes: on the board too.
TEST(BoardPrograms, SayWhatGivesWay) {
  BoardShow made(LineShape{60, 0.02});
  Clip clip = made.clip("ribbon");
  clip.fadeIn = Micros(500'000);
  clip.fadeOut = Micros(4'000'000);
  clip.givesWay = true;
  const auto light = made.write(made.planOf(made.addScoreOf({clip}, clip.end())));
  ASSERT_TRUE(light) << light.failure().text();
  ASSERT_TRUE(light->scenes[0].isProgram) << light->scenes[0].parts.front().reason;
  for (const auto& part : light->scenes[0].parts) EXPECT_LE(part.maxError, board::kMaxError);
}

TEST(BoardPrograms, TakeTheStripsOwnResponseOrderAndWhite) {
  for (const auto& [order, response] : {std::pair("GRB", 2.2), std::pair("RGBW", 1.0), std::pair("W", 1.8)}) {
    StripType type;
    type.order = order;
    type.response = {response};
    type.white = {1, 0.8f, 0.6f};
    BoardShow made(LineShape{30, 0.02}, type);
    EXPECT_TRUE(expectRight(made, "ribbon", true)) << order;
  }
}

TEST(BoardPrograms, PlayForHoursAsAtTheBeginning) {
  BoardShow made(LineShape{40, 0.02});
  const LookId look = made.addLookOf({made.clip("swell", {{"passes", 0.37}})});
  const auto light = made.write(made.planOf(look));
  ASSERT_TRUE(light && light->scenes[0].isProgram);
  BoardPlayer player(light->data);
  const auto compiled = compile(made.show);
  board::BoardScene scene(made.show, *compiled, look);
  const auto strip = board::BoardStrip::of(made.show, *compiled->map, {board::BoardRun(made.fixture)}, 1);
  PixelFrame frame;
  constexpr std::uint32_t kFramesOfHour = 40 * 3600;
  for (const std::uint32_t hour : {1u, 3u, 8u}) {
    scene.render(Micros(std::int64_t{hour} * 3'600'000'000), frame);
    const auto shown = player.frame(hour * kFramesOfHour);
    const auto full = strip->bytesOf(frame);
    for (std::size_t i = 0; i < full.size(); ++i) ASSERT_NEAR(shown[i], full[i], 6) << hour << " h";
  }
}

// ---- Boards ----

TEST(Board, ASceneBeginsInTheDark) {
  BoardShow made(LineShape{30, 0.02});
  const LookId bright = made.addLookOf({made.clip("hold")});
  Clip late = made.clip("ribbon");
  late.start = Micros(1'000'000);
  const ScoreId score = made.addScoreOf({late}, Micros(9'000'000));
  board::BoardPlan plan = made.planOf(bright);
  plan.scenes.push_back({score, 0});
  const auto light = made.write(plan);
  ASSERT_TRUE(light);
  BoardPlayer player(light->data);
  EXPECT_GT(player.frame(10)[0], 0);
  player.begin(1);
  for (const std::uint8_t byte : player.frame(0)) EXPECT_EQ(byte, 0);
  EXPECT_GT(player.frame(60)[1], 0);
  // And when it is over there is nothing.
  EXPECT_TRUE(player.frame(9 * 40).empty());
}

TEST(Board, FramesMayBeLeftOut) {
  BoardShow made(GridShape{8, 8, 0.05, 0.05});
  const auto light = made.write(made.planOf(made.addScoreOf({made.clip("rockets")}, Micros(8'000'000))));
  ASSERT_TRUE(light);
  EXPECT_FALSE(light->scenes[0].isProgram);
  BoardPlayer all(light->data), some(light->data);
  for (std::uint32_t i = 0; i < 300; ++i) {
    const auto whole = all.frame(i);
    if (i % 7 != 3) continue;
    const auto part = some.frame(i);
    ASSERT_TRUE(std::equal(whole.begin(), whole.end(), part.begin()));
  }
}

TEST(Board, ALookThatIsFramesComesAgain) {
  BoardShow made(GridShape{8, 8, 0.05, 0.05});
  BoardOptions options;
  options.lookSeconds = 4;
  const auto light = made.write(made.planOf(made.addLookOf({made.clip("rockets")}), options));
  ASSERT_TRUE(light);
  BoardPlayer player(light->data);
  const auto keep = [&](std::uint32_t i) {
    const auto bytes = player.frame(i);
    return std::vector<std::uint8_t>(bytes.begin(), bytes.end());
  };
  std::vector<std::vector<std::uint8_t>> first;
  for (std::uint32_t i = 0; i < 160; ++i) first.push_back(keep(i));
  // After four seconds it goes on with its second second, which its end has passed into.
  for (std::uint32_t i = 160; i < 280; ++i) EXPECT_EQ(keep(i), first[i - 120]) << i;
}

TEST(Board, SaysWhatCannotBe) {
  BoardShow made(LineShape{30, 0.02});
  const LookId look = made.addLookOf({made.clip("hold")});
  EXPECT_FALSE(made.write({{}, {{look, 0}}, {}}));
  EXPECT_FALSE(made.write({{board::BoardRun(made.fixture)}, {}, {}}));
  EXPECT_FALSE(made.write(made.planOf(LookId{9999})));
  StripType other;
  other.id = made.show.newId<StripTypeId>();
  other.name = "Other";
  other.order = "RGBW";
  put(made.show.stripTypes, other);
  const FixtureId second = made.show.newId<FixtureId>();
  put(made.show.fixtures, Fixture{second, "Second", other.id, {}, {{"run", LineShape{5, 0.1}, {}}}});
  const auto mixed = made.write({{board::BoardRun(made.fixture), board::BoardRun(second)}, {{look, 0}}, {}});
  ASSERT_FALSE(mixed);
  EXPECT_NE(mixed.failure().what.text().find("Second"), std::string::npos);
}

TEST(Board, IsToldWhatItLacks) {
  BoardShow made(GridShape{20, 20, 0.05, 0.05});
  const auto light = made.write(made.planOf(made.addScoreOf({made.clip("rockets")}, Micros(8'000'000))));
  ASSERT_TRUE(light);
  const auto lacks = board::lacksOf(*light, board::boardOf(16 * 1024, 1024));
  ASSERT_GE(lacks.size(), 3u);
  EXPECT_EQ(lacks[0].rfind("Flash: ", 0), 0u);
  EXPECT_EQ(lacks[1].rfind("RAM: ", 0), 0u);
  EXPECT_TRUE(board::lacksOf(*light, board::boardKinds().back()).empty());
}

TEST(Board, IsToldWhatMakesItSmaller) {
  BoardShow made(GridShape{12, 8, 0.05, 0.05});
  const board::BoardPlan plan = made.planOf(made.addScoreOf({made.clip("rockets")}, Micros(5'000'000)));
  const auto light = made.write(plan);
  ASSERT_TRUE(light);
  const auto savings = board::savingsOf(made.show, *compile(made.show), plan, *light, {});
  ASSERT_GE(savings.size(), 3u);
  for (const auto& saving : savings) {
    board::BoardPlan smaller = plan;
    smaller.options = saving.options;
    const auto made2 = made.write(smaller);
    ASSERT_TRUE(made2);
    EXPECT_EQ(light->data.size() - made2->data.size(), saving.saved) << saving.what;
    EXPECT_GE(saving.loss, light->scenes[0].loss) << saving.what;
  }
}

TEST(Board, CancelledWritesNothing) {
  BoardShow made(LineShape{60, 0.02});
  const board::BoardPlan plan = made.planOf(made.addLookOf({made.clip("swell")}));
  EXPECT_FALSE(board::writeBoard(made.show, *compile(made.show), plan, [](double) { return false; }));
}

TEST(Board, FilesAreAllThere) {
  const test::TemporaryFolder folder;
  BoardShow made(LineShape{60, 0.02});
  made.show.name = "*/ #define LIGHT_PIXELS 1 \\";
  const auto light = made.write(made.planOf(made.addLookOf({made.clip("swell")})));
  ASSERT_TRUE(light);
  const auto kind = board::boardKinds()[1];
  const auto files = board::boardFiles(*light, kind, made.show.name);
  ASSERT_TRUE(board::writeBoardFiles(files, folder.path() / "new" / "board"));
  std::set<std::string> names;
  for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "new" / "board"))
    names.insert(entry.path().filename());
  EXPECT_EQ(names, (std::set<std::string>{"README.md", "example-8bit.c", "light.h", "player.c", "player.h"}));
  // A name from the show ends no comment.
  std::ifstream in(folder.path() / "new" / "board" / "light.h");
  const std::string text((std::istreambuf_iterator<char>(in)), std::istreambuf_iterator<char>());
  EXPECT_LT(text.find("#define LIGHT_PIXELS 60"), text.size());
  EXPECT_EQ(text.find("*/"), text.find(" */\n#ifndef LIGHT_H") + 1);
}

TEST(Board, FilesSayWhereTheyCannotBe) {
  BoardShow made(LineShape{10, 0.02});
  const auto light = made.write(made.planOf(made.addLookOf({made.clip("hold")})));
  ASSERT_TRUE(light);
  const auto done =
      board::writeBoardFiles(board::boardFiles(*light, board::boardKinds()[1], "x"), "/proc/nowhere/board");
  ASSERT_FALSE(done);
  EXPECT_NE(done.failure().text().find("/proc/nowhere/board"), std::string::npos);
}

}  // namespace
}  // namespace chispa
