// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/lightdata/lightdata.h"

#include <fstream>

#include "boardshow.h"
#include "carousel/carousel.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "core/effect/showmedia.h"
#include "core/media/lightrows.h"
#include "core/media/shown.h"
#include "core/recording/framepacker.h"

namespace chispa {
namespace {

using test::BoardShow;

std::string contentOf(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}
void write(const std::filesystem::path& path, const std::string& content) {
  std::ofstream(path, std::ios::binary) << content;
}

class LightData : public testing::Test {
 protected:
  std::filesystem::path in(const std::string& name) const { return folder_.path() / name; }

  /// Writes the first score of `made` with the media that it names.
  void writeScore(const BoardShow& made, const std::string& name) {
    std::vector<Failure> failures;
    const auto media = loadMedia(made.show, in("show.chispa"), failures);
    ASSERT_TRUE(failures.empty()) << failures.front().text();
    const Score& score = *made.show.scores.front();
    const auto done = writeLightData(made.show, *compile(made.show, {}, media), score,
                                     {{Micros(0), score.length}, 25}, in(name), {});
    ASSERT_TRUE(done) << done.failure().text();
    ASSERT_TRUE(*done);
  }
  /// A show of `pixels` pixels on which the rows of `file` play.
  static BoardShow playing(const std::string& file, int pixels, ParamValues params = {}) {
    BoardShow made(LineShape{pixels, 0.02});
    params["file"] = file;
    Clip clip = made.clip("rows", params);
    clip.length = Micros(4'000'000);
    made.addScoreOf({clip}, Micros(4'000'000));
    return made;
  }
  static BoardShow composed(int pixels) {
    BoardShow made(LineShape{pixels, 0.02});
    Clip clip = made.clip("ribbon", {{"passes", 1.7}});
    clip.length = Micros(4'000'000);
    Clip sparks = made.clip("glints");
    sparks.layer = 1;
    sparks.length = Micros(4'000'000);
    made.addScoreOf({clip, sparks}, Micros(4'000'000));
    return made;
  }
  /// The light of the first frame of what plays `file`.
  std::vector<float> redOf(const BoardShow& made, Micros t = Micros(0)) {
    std::vector<Failure> failures;
    const auto compiled = compile(made.show, {}, loadMedia(made.show, in("show.chispa"), failures));
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(static_cast<std::size_t>(compiled->map->count()));
    renderer.render(compiled->scores.front(), t, frame);
    return frame.r;
  }
  /// Rows of grey dots as bytes with their explanation.
  void writeGrey(const std::string& name, const std::vector<std::vector<int>>& rows, double rate = 25) {
    std::string bytes;
    for (const auto& row : rows)
      for (const int dot : row) bytes += std::string(3, static_cast<char>(dot));
    write(in(name), bytes);
    write(in(name + ".json"), nlohmann::json{{"format", "chispa-light"},
                                             {"version", 1},
                                             {"frames_per_second", rate},
                                             {"bytes_of_frame", 3 * rows.front().size()}}
                                  .dump());
  }

  test::TemporaryFolder folder_;
};

TEST_F(LightData, PicturesOfRowsComeBackAsTheyWere) {
  writeScore(composed(37), "light.png");
  writeScore(playing("light.png", 37, {{"rate", 25.0}}), "again.png");
  EXPECT_EQ(contentOf(in("light.png")), contentOf(in("again.png")));
  const auto rows = readLightRows(in("light.png"));
  ASSERT_TRUE(rows);
  EXPECT_EQ((*rows)->width, 37);
  EXPECT_EQ((*rows)->frames, 100);
}

TEST_F(LightData, BytesComeBackAsTheyWere) {
  writeScore(composed(41), "light.rgb");
  EXPECT_EQ(contentOf(in("light.rgb")).size(), 41u * 3 * 100);
  // The file says how many frames a second there are.
  writeScore(playing("light.rgb", 41), "again.rgb");
  EXPECT_EQ(contentOf(in("light.rgb")), contentOf(in("again.rgb")));
  const auto json = nlohmann::json::parse(contentOf(in("light.rgb.json")));
  EXPECT_EQ(json["frames"], 100);
  EXPECT_EQ(json["bytes_of_frame"], 123);
  EXPECT_EQ(json["parts"][0]["name"], "Lamp");
  EXPECT_EQ(json["parts"][0]["pixels"], 41);
}

TEST_F(LightData, TablesComeBackAsTheyWere) {
  writeScore(composed(23), "light.csv");
  // The table's times say how many frames a second there are.
  writeScore(playing("light.csv", 23), "again.csv");
  EXPECT_EQ(contentOf(in("light.csv")), contentOf(in("again.csv")));
  const auto rows = readLightRows(in("light.csv"));
  ASSERT_TRUE(rows);
  EXPECT_EQ((*rows)->framesPerSecond, 25);
  EXPECT_EQ((*rows)->frames, 100);
  // Names may hold commas and quotes; lines may end as other systems end them.
  write(in("names.csv"), "frame,time_s,\"A, \"\"big\"\" one 1 r\",g,b\r\n0,0,1,2,3\r\n1,0.5,4,5,6\r\n");
  const auto named = readLightRows(in("names.csv"));
  ASSERT_TRUE(named) << named.failure().text();
  EXPECT_EQ((*named)->width, 1);
  EXPECT_EQ((*named)->framesPerSecond, 2);
  for (const char* lie :
       {"", "frame,time_s\n", "frame,time_s,r,g\n", "frame,time_s,r,g,b\n", "r,g,b\n1,2,3\n",
        "frame,time_s,r,g,b\n0,0,1,2\n", "frame,time_s,r,g,b\n0,0,1,2,256\n",
        "frame,time_s,r,g,b\n0,0,1,2,3,4\n", "frame,time_s,r,g,b\n0,0,1,2,x\n"}) {
    write(in("lie.csv"), lie);
    EXPECT_FALSE(readLightRows(in("lie.csv"))) << lie;
  }
}

TEST_F(LightData, TablesSayTheSameAsBytes) {
  const BoardShow made = composed(5);
  writeScore(made, "light.rgb");
  writeScore(made, "light.csv");
  std::istringstream lines(contentOf(in("light.csv")));
  std::string line;
  std::getline(lines, line);
  EXPECT_EQ(line.substr(0, 42), "frame,time_s,\"Lamp 1 r\",\"Lamp 1 g\",\"Lamp 1");
  const std::string bytes = contentOf(in("light.rgb"));
  std::size_t at = 0;
  for (int frame = 0; std::getline(lines, line); ++frame) {
    std::istringstream cells(line);
    std::string cell;
    std::getline(cells, cell, ',');
    EXPECT_EQ(std::stoi(cell), frame);
    std::getline(cells, cell, ',');
    EXPECT_DOUBLE_EQ(std::stod(cell), frame / 25.0);
    while (std::getline(cells, cell, ',')) ASSERT_EQ(std::stoi(cell), static_cast<std::uint8_t>(bytes[at++]));
  }
  EXPECT_EQ(at, bytes.size());
}

TEST_F(LightData, ChannelsAreThoseThatAreSent) {
  const Show show = demo::carousel();
  const auto compiled = compile(show);
  const Score& score = *show.scores.front();
  const LightDataOrder order{{Micros(20'000'000), Micros(1'000'000)}, 10, true};
  ASSERT_TRUE(writeLightData(show, *compiled, score, order, in("channels.rgb"), {}));
  const auto json = nlohmann::json::parse(contentOf(in("channels.rgb.json")));
  const std::string bytes = contentOf(in("channels.rgb"));
  ASSERT_EQ(json["parts"].size(), compiled->patch.universes.size());
  FramePacker packer(*compiled, 10);
  for (int i = 0; i < 10; ++i) {
    const auto& values = packer.at(*compiled->scoreOf(score.id), Micros(20'000'000 + i * 100'000));
    for (std::size_t u = 0; u < compiled->patch.universes.size(); ++u) {
      const std::size_t first = json["parts"][u]["first_byte"];
      const std::size_t count = json["parts"][u]["channels"];
      for (std::size_t c = 0; c < count; ++c)
        ASSERT_EQ(
            static_cast<std::uint8_t>(
                bytes[static_cast<std::size_t>(i) * json["bytes_of_frame"].get<std::size_t>() + first + c]),
            values[u * kUniverseChannels + c]);
    }
  }
}

TEST_F(LightData, AnotherSizeHasTheMeanInLinearLight) {
  writeGrey("two.rgb", {{0, 255, 255, 0}});
  EXPECT_NEAR(redOf(playing("two.rgb", 2))[0], 0.5f, 1e-5f);
  EXPECT_NEAR(redOf(playing("two.rgb", 1))[0], 0.5f, 1e-5f);
  // A larger one repeats each dot.
  const auto eight = redOf(playing("two.rgb", 8));
  EXPECT_EQ(eight, (std::vector<float>{0, 0, 1, 1, 1, 1, 0, 0}));
  // Three cells have a third each: dot and a third, two thirds and two thirds.
  const auto three = redOf(playing("two.rgb", 3));
  EXPECT_NEAR(three[0], 0.25f, 1e-5f);
  EXPECT_NEAR(three[1], 1.f, 1e-5f);
}

TEST_F(LightData, IsCutMirroredAndEndsAsToldTo) {
  writeGrey("steps.rgb", {{0, 100, 200, 255}, {255, 255, 255, 255}}, 1);
  const auto shown = [&](ParamValues params, Micros t = Micros(0)) {
    return redOf(playing("steps.rgb", 4, std::move(params)), t);
  };
  const auto plain = shown({});
  EXPECT_EQ(shown({{"from", 1.0}, {"to", 0.0}}),
            (std::vector<float>{plain[3], plain[2], plain[1], plain[0]}));
  EXPECT_EQ(shown({{"from", 0.5}})[0], plain[2]);
  EXPECT_EQ(shown({{"to", 0.5}})[3], plain[1]);
  // Two rows of a second each.
  EXPECT_EQ(shown({}, Micros(2'000'000)), plain);
  EXPECT_EQ(shown({{"then", std::string("stay")}}, Micros(3'000'000))[0], 1);
  EXPECT_EQ(shown({{"then", std::string("dark")}}, Micros(2'000'000))[3], 0);
}

TEST_F(LightData, ZonesAndFixturesAreWrittenInTheOrderAskedFor) {
  const Show show = demo::carousel();
  const Score& score = *show.scores.front();
  LightDataOrder order{{Micros(5'000'000), Micros(400'000)}, 10};
  order.parts = {findNamed(show.zones, "Lanterns")->id, findNamed(show.fixtures, "Post 2")->id};
  ASSERT_TRUE(writeLightData(show, *compile(show), score, order, in("some.rgb"), {}));
  const auto json = nlohmann::json::parse(contentOf(in("some.rgb.json")));
  ASSERT_EQ(json["parts"].size(), 2u);
  EXPECT_EQ(json["parts"][0]["name"], "Lanterns");
  EXPECT_EQ(json["parts"][1]["first_byte"], 72 * 3);
  EXPECT_EQ(json["parts"][1]["pixels"], 32);
}

/// A picture of 8 × 8 dots on a matrix of `side`, stretched over all of it.
class PictureLight : public testing::Test {
 protected:
  std::vector<float> redOn(int side, bool isMirrored) {
    BoardShow made(GridShape{side, side, 0.1, 0.1});
    changeItem(made.show.zones, made.zone, [](Zone& zone) { zone.layout = ZoneLayout::SideBySide; });
    Clip clip = made.clip(
        "picture",
        {{"file", std::string("eight")}, {"fit", std::string("stretch")}, {"mirrored", isMirrored}});
    made.addScoreOf({clip}, Micros(1'000'000));
    auto media = std::make_shared<Media>(Media{8, 8, 0, 1, {}});
    for (int y = 0; y < 8; ++y)
      for (int x = 0; x < 8; ++x) {
        const auto red = static_cast<std::uint8_t>((x + y) % 2 == 0 ? 255 : 0);
        media->rgba.insert(media->rgba.end(), {x == 0 ? std::uint8_t{255} : red, 0, 0, 255});
      }
    MediaLibrary library;
    library.add("eight", media);
    const auto compiled = compile(made.show, {}, library);
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(static_cast<std::size_t>(side * side));
    renderer.render(compiled->scores.front(), Micros(0), frame);
    // Column by column, as the zone has them.
    std::vector<float> red;
    const auto& cells = *compiled->scores.front().staves.front().cells;
    for (int column = 0; column < side; ++column)
      for (int row = 0; row < side; ++row)
        red.push_back(frame.r[cells.pixelsOf(static_cast<int>(cells.cellAt(column, row)))[0]]);
    return red;
  }
};

TEST_F(PictureLight, IsTheMeanOfTheDotsOnACellInLinearLight) {
  // A chequer of full and dark is half the light, not what its bytes' mean would be; the first column is
  // whole.
  const auto red = redOn(4, false);
  EXPECT_NEAR(red[0], 0.75f, 1e-5f);
  for (std::size_t i = 4; i < red.size(); ++i) EXPECT_NEAR(red[i], 0.5f, 1e-5f) << i;
  // As many cells as dots show each dot as it is.
  const auto eight = redOn(8, false);
  for (std::size_t i = 0; i < 8; ++i) EXPECT_EQ(eight[i], 1);
  for (std::size_t i = 8; i < eight.size(); ++i) EXPECT_TRUE(eight[i] == 0 || eight[i] == 1);
}

TEST_F(PictureLight, IsMirrored) {
  const auto red = redOn(4, true);
  EXPECT_NEAR(red[0], 0.5f, 1e-5f);
  EXPECT_NEAR(red[15], 0.75f, 1e-5f);
}

TEST_F(LightData, SaysWhatCannotBeRead) {
  const auto expectSaid = [&](const std::string& name, const std::string& words) {
    const auto rows = readLightRows(in(name));
    ASSERT_FALSE(rows) << name;
    EXPECT_NE(rows.failure().text().find(words), std::string::npos) << rows.failure().text();
  };
  expectSaid("none.png", "not there");
  write(in("text.png"), "this is no picture");
  expectSaid("text.png", "no PNG");
  // A head that promises more dots than memory holds.
  write(in("bomb.png"), std::string("\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\1\0\0\0\1\0\0", 24) + "\x08\x02");
  expectSaid("bomb.png", "larger than 256 MB");
  write(in("cut.png"), std::string("\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\4\0\0\0\4", 24));
  expectSaid("cut.png", "cannot be read");
  write(in("bare.rgb"), "abcdef");
  expectSaid("bare.rgb", "bare.rgb.json");
  writeGrey("short.rgb", {{1, 2, 3}});
  write(in("short.rgb"), "abcd");
  expectSaid("short.rgb", "not that of whole frames");
  for (const char* lie : {"[]", "{\"format\":\"chispa-light\",\"bytes_of_frame\":-3}", "{\"format\":7}", "{",
                          "{\"format\":\"chispa-light\",\"bytes_of_frame\":1e300}"}) {
    write(in("short.rgb.json"), lie);
    EXPECT_FALSE(readLightRows(in("short.rgb"))) << lie;
  }
}

TEST_F(LightData, CancelledLeavesWhatWasThere) {
  write(in("light.csv"), "mine");
  const BoardShow made = composed(5);
  const Score& score = *made.show.scores.front();
  const auto done = writeLightData(made.show, *compile(made.show), score, {{Micros(0), score.length}, 25},
                                   in("light.csv"), [](double) { return false; });
  ASSERT_TRUE(done);
  EXPECT_FALSE(*done);
  EXPECT_EQ(contentOf(in("light.csv")), "mine");
}

}  // namespace
}  // namespace chispa
