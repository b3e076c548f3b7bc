// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <fstream>
#include <sstream>

#include "sound.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "cli/run.h"
#include "core/edit/planedits.h"
#include "core/files/showfile.h"
#include "core/media/audio.h"
#include "core/recording/recording.h"
#include "core/vision/scene.h"
#include "core/vision/simulatedcamera.h"
#include "core/vision/source.h"

namespace chispa {
namespace {

using test::kDemo;
using test::Ran;
using test::run;
using test::runProgram;

TEST(Cli, InfoCountsTheCarousel) {
  const Ran ran = run("info " + kDemo + " --json");
  ASSERT_EQ(ran.status, 0) << ran.out;
  const auto info = nlohmann::json::parse(ran.out);
  EXPECT_EQ(info["pixels"], 4046);
  EXPECT_EQ(info["controllers"], 4);
  EXPECT_EQ(info["fixtures"], 49);
  EXPECT_EQ(info["problems"], 0);
}

TEST(Cli, AScoreIsRecordedAndReadByTheReaderInC) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / "evening.chirec";
  const Ran ran = run("render " + kDemo + " --from 40 --seconds 2 --out " + path.string());
  ASSERT_EQ(ran.status, 0) << ran.out;
  auto opened = RecordingReader::open(path);
  ASSERT_TRUE(opened) << opened.failure().text();
  RecordingReader reader = *std::move(opened);
  EXPECT_EQ(reader.head().rig.controllers.size(), 4u);
  int values = 0;
  for (const RecordedSpan& one : reader.head().patch) values += one.span.isWhole() ? one.span.count : 0;
  EXPECT_EQ(values, 4046) << "the patch says where every pixel is";
  const std::size_t which = 3;
  std::string expected;
  for (int frame = 0; frame < 80; ++frame) {
    expected += std::to_string(frame * 25'000) + " ";
    const auto all = reader.at(Micros(frame * 25'000));
    ASSERT_TRUE(all);
    for (const std::uint8_t value : all->subspan(which * 512, 512))
      expected += {"0123456789abcdef"[value >> 4], "0123456789abcdef"[value & 15]};
    expected += "\n";
  }
  const Ran read = runProgram("recording_reader", path.string() + " 3");
  EXPECT_EQ(read.status, 0);
  EXPECT_EQ(read.out.substr(read.out.find('\n') + 1), expected);
  EXPECT_NE(expected.find_first_of("123456789abcdef", expected.find(' ')), std::string::npos)
      << "there is light in it";
}

TEST(Cli, ARecordingPlaysWithoutItsShow) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / "evening.chirec";
  ASSERT_EQ(run("render " + kDemo + " --from 40 --seconds 1 --out " + path.string()).status, 0);
  const Ran played = run("play " + path.string());
  EXPECT_EQ(played.status, 0) << played.out;
  EXPECT_NE(played.out.find("universes"), std::string::npos);
  std::ofstream(path, std::ios::trunc) << "a letter";
  EXPECT_EQ(run("play " + path.string()).status, 1);
}

TEST(Cli, AFilmHasItsSoundAndSaysHowLargeItWillBe) {
  const test::TemporaryFolder folder;
  const auto film = folder.path() / "round.mp4";
  const Ran ran = run("render " + kDemo + " --from 40 --seconds 2 --fps 10 --width 160 --height 90 --out " +
                      film.string());
  ASSERT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find(", about "), std::string::npos);
  const auto sound = decodeAudio(film);
  ASSERT_TRUE(sound) << sound.failure().text();
  EXPECT_NEAR(seconds((*sound)->length()), 2, 0.1);
  const auto whole = decodeAudio(std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg");
  ASSERT_TRUE(whole);
  const auto loudness = [](const AudioClip& clip, double from_s) {
    const auto mono = test::monoOf(clip);
    double sum = 0;
    for (std::size_t i = 0; i < AudioClip::kRate; ++i)
      sum += std::abs(static_cast<double>(mono[static_cast<std::size_t>(from_s * AudioClip::kRate) + i]));
    return sum;
  };
  EXPECT_NEAR(loudness(**sound, 0.5) / loudness(**whole, 40.5), 1, 0.1) << "the music of that moment";
}

TEST(Cli, AScoreIsRenderedAsAFilm) {
  const test::TemporaryFolder folder;
  const auto film = folder.path() / "round.gif";
  const Ran ran = run("render " + kDemo + " --from 20 --seconds 1 --fps 8 --width 160 --height 90 --out " +
                      film.string());
  ASSERT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find("8 pictures"), std::string::npos) << ran.out;
  EXPECT_GT(std::filesystem::file_size(film), 2000u);
  EXPECT_EQ(
      run("render " + kDemo + " --from 20 --seconds 1 --fps 4 --width 160 --height 90 --unrolled --out " +
          (folder.path() / "light-%02d.png").string())
          .status,
      0);
  EXPECT_TRUE(std::filesystem::exists(folder.path() / "light-04.png"));
  EXPECT_EQ(run("render " + kDemo + " --out " + (folder.path() / "film.xyz").string()).status, 1);
  EXPECT_EQ(run("render " + kDemo + " --from 900 --out " + film.string()).status, 1);
}

TEST(Cli, WhatWasRenderedIsSaidAsJson) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / "two “frames”.chirec";
  const Ran ran = run("render " + kDemo + " --json --seconds 0.2 --fps 10 --out '" + path.string() + "'");
  ASSERT_EQ(ran.status, 0) << ran.out;
  // How far it is stands before it, on stderr.
  const auto written = nlohmann::json::parse(ran.out.substr(ran.out.find("\n{")));
  EXPECT_EQ(written["file"], path.string());
  EXPECT_EQ(written["bytes"], std::filesystem::file_size(path));
}

TEST(Cli, CheckOfTheDemoIsQuiet) {
  const Ran ran = run("check " + kDemo);
  EXPECT_EQ(ran.status, 0);
  EXPECT_EQ(ran.out, "");
}

TEST(Cli, CheckEndsWith1WhereThereIsAnError) {
  const test::TemporaryFolder folder;
  Show show = *loadShow(kDemo);
  changeItem(show.controllers, show.controllers[0]->id, [](Controller& c) { c.host = ""; });
  ASSERT_TRUE(saveShow(folder.path() / "bad.chispa", show));
  const Ran ran = run("check " + (folder.path() / "bad.chispa").string());
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.out.find("error: Rim box: The controller has no address. Enter"), std::string::npos)
      << ran.out;
  EXPECT_NE(ran.out.find("slow-round.ogg is not there"), std::string::npos) << ran.out;
}

TEST(Cli, PositionsAndPatchHaveARowAPixel) {
  const Ran positions = run("positions " + kDemo + " --csv");
  EXPECT_EQ(positions.lines(), 4047u);
  EXPECT_NE(
      positions.out.find("fixture,segment,pixel,x_m,y_m,z_m\nCanopy rim,rim,1,2.99984,0.03142,3.40000\n"),
      std::string::npos);
  const Ran patch = run("patch " + kDemo + " --csv");
  EXPECT_EQ(patch.lines(), 4047u);
  EXPECT_NE(patch.out.find("\nRim box,127.0.0.11,E1.31,2,Canopy rim,171,2,1,3,GRB\n"), std::string::npos);
  EXPECT_NE(patch.out.find("\nPost box,127.0.0.12,Art-Net,1,Post 1,1,16,4,3,GRB\n"), std::string::npos)
      << "one skipped pixel in front";
}

TEST(Cli, ZonesHaveARowAPixelOfEachCell) {
  const Ran lanterns = run("zones " + kDemo + " --csv --zone Lanterns");
  EXPECT_EQ(lanterns.lines(), 73u) << "twelve cells of six pixels";
  EXPECT_NE(lanterns.out.find("zone,cell,row,column,fixture,pixel,along,x_m,y_m,z_m,angle_deg,radius_m\n"
                              "Lanterns,1,1,1,Post 1,27,0.0417,2.5114,0.6729,3.0800,15.00,2.6000\n"),
            std::string::npos)
      << lanterns.out;
  EXPECT_EQ(run("zones " + kDemo + " --zone Nowhere").status, 1);
}

TEST(Cli, FrameIsTheSameEachTimeAndNotDark) {
  const Ran a = run("frame " + kDemo + " --score \"The Slow Round\" --at 20.5 --csv");
  const Ran b = run("frame " + kDemo + " --at 20.5 --csv");
  EXPECT_EQ(a.status, 0);
  EXPECT_EQ(a.lines(), 4047u);
  EXPECT_EQ(a.out, b.out);
  EXPECT_NE(a.out.find(",255"), std::string::npos);
}

TEST(Cli, MusicFindsTheWaltz) {
  const Ran ran = run("music " + std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg --json");
  ASSERT_EQ(ran.status, 0);
  const auto music = nlohmann::json::parse(ran.out);
  EXPECT_NEAR(music["tempo_bpm"].get<double>(), 132, 0.5);
  EXPECT_GE(music["bars"].size(), 54u);
  EXPECT_EQ(music["key"], "C major");
  // A chord a bar, as the waltz was written (demo/waltz/tune.cpp).
  std::istringstream written(
      "C C G G  C C G G G G C C C C F F C G C C  Am Am E E Am Am E Am F F C C D D G G "
      "C C G G G G C C C C F F C G C C  F G C C");
  const double bar_s = 3 * 60.0 / 132;
  double at_s = music["bars"][0].get<double>() + bar_s / 2;
  int right = 0, all = 0;
  for (std::string chord; written >> chord; at_s += bar_s, ++all) {
    std::string heard;
    for (const auto& one : music["chords"])
      if (one["at"].get<double>() <= at_s) heard = one["chord"];
    right += heard == chord;
  }
  EXPECT_EQ(all, 56);
  // Some bars have one loud note of the melody over a chord without its root: those are told as others.
  EXPECT_GE(right, 42) << music["chords"].dump();
}

TEST(Cli, PlayWritesItsFigures) {
  const test::TemporaryFolder folder;
  const std::string stats = (folder.path() / "stats.json").string();
  // The demo's own addresses may belong to a demo that is running; another network of 127/8 is nobody's.
  Show show = *loadShow(kDemo);
  for (const auto& controller : Items<Controller>(show.controllers))
    changeItem(show.controllers, controller->id, [](Controller& c) { c.host = test::loopbackAddress(8); });
  ASSERT_TRUE(saveShow(folder.path() / "moved.chispa", show));
  const Ran ran = run("play " + (folder.path() / "moved.chispa").string() +
                      " --silent --from 10 --seconds 1 --stats " + stats);
  ASSERT_EQ(ran.status, 0) << ran.out;
  std::ifstream in(stats);
  const auto figures = nlohmann::json::parse(in);
  EXPECT_GT(figures["frames"], 10);
  EXPECT_EQ(figures["controllers"].size(), 4u);
  EXPECT_EQ(figures["controllers"][0]["trouble"].get<std::string>().substr(0, 18), "no answer from 127");
}

TEST(Cli, ARehearsalComparesRowsToo) {
  const test::TemporaryFolder folder;
  Show show = *loadShow(kDemo);
  int index = 9;
  for (const auto& controller : Items<Controller>(show.controllers))
    changeItem(show.controllers, controller->id, [&](Controller& c) {
      c.host = test::loopbackAddress(index++);
      c.setupPort = 18'092;
      if (c.name == "Rim box") c.protocol = Protocol::Ddp;
      if (c.name == "Booth box") c.protocol = Protocol::Opc;
      c.delay_ms = 40;
    });
  ASSERT_TRUE(saveShow(folder.path() / "rows.chispa", show));
  const Ran ran = run("rehearse " + (folder.path() / "rows.chispa").string() + " --seconds 3");
  EXPECT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find(" 0 differing, 0 missing, 0 unexpected"), std::string::npos) << ran.out;
}

TEST(Cli, OthersAreFoundAndHeard) {
  const Ran found = run("find --interface " + test::loopbackAddress(13) + " --json");
  EXPECT_EQ(found.status, 0) << found.out;
  EXPECT_TRUE(nlohmann::json::parse(found.out).empty());
  const Ran heard = run("listen --interface " + test::loopbackAddress(13) + " --seconds 0.2");
  EXPECT_EQ(heard.status, 0);
  EXPECT_NE(heard.out.find("Nothing arrived."), std::string::npos);
  const Ran wrong = run("listen --interface 203.0.113.9 --seconds 0.2");
  EXPECT_EQ(wrong.status, 1);
}

TEST(Cli, WhatIsWrongIsSaidWithPlaceAndCure) {
  const test::TemporaryFolder folder;
  std::ofstream(folder.path() / "cut.chispa") << R"({"format": "chispa-show", "vers)";
  for (const std::string file : {"none.chispa", "cut.chispa"}) {
    const Ran ran = run("info " + (folder.path() / file).string());
    EXPECT_EQ(ran.status, 1);
    EXPECT_NE(ran.out.find(file), std::string::npos) << ran.out;
    EXPECT_GE(ran.lines(), 2u) << "what happened, and what to do: " << ran.out;
  }
  EXPECT_EQ(run("music /nowhere/song.mp3").status, 1);
  EXPECT_EQ(run("frame " + kDemo + " --score Nobody --at 1").status, 1);
  EXPECT_EQ(run("dance").status, 2);
  EXPECT_EQ(run("frame " + kDemo).status, 2);
  EXPECT_EQ(run("--help").status, 0);
}

/// The chain end to end: four chispa-node processes, real packets, every byte of every frame compared.
TEST(Cli, ARehearsalFindsNoDifferingByte) {
  const test::TemporaryFolder folder;
  Show show = *loadShow(kDemo);
  int index = 9;
  for (const auto& controller : Items<Controller>(show.controllers))
    changeItem(show.controllers, controller->id,
               [&](Controller& c) { c.host = test::loopbackAddress(index++); });
  ASSERT_TRUE(saveShow(folder.path() / "moved.chispa", show));
  std::filesystem::copy(std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg", folder.path());
  const Ran ran = run("rehearse " + (folder.path() / "moved.chispa").string() + " --seconds 3");
  EXPECT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find(" 0 differing, 0 missing, 0 unexpected"), std::string::npos) << ran.out;
}

/// Twelve LEDs along a bow, filmed while they blink; the pictures lie in a folder.
std::vector<std::optional<vision::Spot>> film(const std::filesystem::path& folder, double azimuth_deg) {
  std::filesystem::create_directories(folder);
  std::vector<Vec3> leds;
  for (int i = 0; i < 16; ++i) leds.push_back({0.1 * i, 0.25 * std::sin(i * 0.8), 0.3 * std::sin(i * 0.4)});
  vision::Lens lens;
  lens.width = 320;
  lens.height = 200;
  vision::SimulatedCamera camera(leds, vision::viewOfAll(leds, lens, azimuth_deg, 10),
                                 vision::defectsOf(vision::Severity::Clean), 11);
  int count = 0;
  vision::simulateCapture(camera, vision::BlinkCode(16), 1, 0.15, 0.3, [&](const vision::Frame& frame) {
    std::string name = std::to_string(count++);
    name = std::string(5 - name.size(), '0') + name + ".png";
    EXPECT_TRUE(vision::writePicture(frame.picture, folder / name));
  });
  return camera.truth();
}

TEST(Cli, MapFindsLedsInAFolderOfPictures) {
  const test::TemporaryFolder folder;
  const auto truth = film(folder.path() / "left", -18);
  film(folder.path() / "right", 18);
  const Ran plane = run("map --leds 16 --csv --frames " + (folder.path() / "left").string());
  ASSERT_EQ(plane.status, 0) << plane.out;
  std::istringstream lines(plane.out.substr(plane.out.find("led,x_px")));
  std::string line;
  std::getline(lines, line);
  int found = 0;
  while (std::getline(lines, line)) {
    int led = 0;
    double x = 0, y = 0;
    if (std::sscanf(line.c_str(), "%d,%lf,%lf", &led, &x, &y) != 3) continue;
    EXPECT_NEAR(x, truth[static_cast<std::size_t>(led - 1)]->x, 0.5);
    EXPECT_NEAR(y, truth[static_cast<std::size_t>(led - 1)]->y, 0.5);
    ++found;
  }
  EXPECT_EQ(found, 16);
  const Ran space = run("map --leds 16 --frames " + (folder.path() / "left").string() + " --second " +
                        (folder.path() / "right").string() + " --known 1 16 1.5");
  EXPECT_EQ(space.status, 0) << space.out;
  EXPECT_NE(space.out.find("led,x_m,y_m,z_m,residual_px"), std::string::npos);
  EXPECT_EQ(run("map --leds 16 --frames /nowhere").status, 1);
  EXPECT_EQ(run("map --frames /nowhere").status, 2) << "how many LEDs must be said";
}

TEST(Cli, ANodeIsFilmed) {
  const test::TemporaryFolder folder;
  const auto scene = folder.path() / "scene.csv";
  std::ofstream(scene) << vision::sceneText({{"", 0, 1, 1, {0, 0, 0}}, {"", 0, 1, 2, {1, 0, 0}}});
  const auto film = folder.path() / "film";
  const std::string command = "timeout 2 " + std::string(CHISPA_BIN_DIR) + "/chispa-node --listen " +
                              test::loopbackAddress(2) + " --film " + film.string() + " --scene " +
                              scene.string() + " > /dev/null 2>&1";
  EXPECT_NE(std::system(command.c_str()), -1);
  EXPECT_TRUE(std::filesystem::exists(film / "000003.png"));
  std::ifstream times(film / "times.csv");
  std::string first;
  EXPECT_TRUE(std::getline(times, first));
  EXPECT_EQ(first.substr(0, 11), "000000.png,");
}

}  // namespace
}  // namespace chispa
