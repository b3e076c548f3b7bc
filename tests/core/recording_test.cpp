// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/recording.h"

#include <fstream>
#include <random>

#include "temporary.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

class RecordingTest : public testing::Test {
 protected:
  /// Ten seconds of two universes; frame n is at n × 40 ms and known by its number.
  void write() {
    auto created =
        RecordingWriter::create(path_, {.universes = {{Protocol::E131, 7}, {Protocol::ArtNet, 3}}});
    ASSERT_TRUE(created);
    RecordingWriter writer = *std::move(created);
    for (int n = 0; n < 250; ++n) writer.add(timeOf(n), valuesOf(n));
    ASSERT_TRUE(writer.finish());
  }
  static Micros timeOf(int n) { return Micros(n * 40'000); }
  static std::vector<std::uint8_t> valuesOf(int n) {
    std::vector<std::uint8_t> values(1024);
    std::mt19937 random(static_cast<unsigned>(n));
    for (int i = 0; i < 40; ++i) values[random() % 1024] = static_cast<std::uint8_t>(random());
    return values;
  }
  std::string bytes() const {
    std::ifstream in(path_, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
  }

  test::TemporaryFolder folder_;
  std::filesystem::path path_ = folder_.path() / "arrived.chirec";
};

TEST_F(RecordingTest, EveryFrameIsReadAtItsInstantInAnyOrder) {
  write();
  auto opened = RecordingReader::open(path_);
  ASSERT_TRUE(opened) << opened.failure().text();
  RecordingReader reader = *std::move(opened);
  EXPECT_EQ(reader.universes(), (std::vector<RecordedUniverse>{{Protocol::E131, 7}, {Protocol::ArtNet, 3}}));
  EXPECT_EQ(reader.length(), timeOf(249));
  for (int k = 0; k < 250; ++k) {
    const int n = k * 97 % 250;
    for (const Micros later : {Micros(0), Micros(39'999)}) {
      const auto values = reader.at(timeOf(n) + later);
      ASSERT_TRUE(values);
      EXPECT_TRUE(std::equal(values->begin(), values->end(), valuesOf(n).begin())) << n;
    }
  }
  EXPECT_EQ(*std::max_element(reader.at(Micros(-1))->begin(), reader.at(Micros(-1))->end()), 0)
      << "dark before it begins";
  EXPECT_LT(std::filesystem::file_size(path_), 250u * 1024 / 4) << "it is packed";
}

TEST_F(RecordingTest, AFileThatWasCutOffIsReadAsFarAsItGoes) {
  write();
  const std::string whole = bytes();
  std::ofstream(path_, std::ios::binary | std::ios::trunc)
      .write(whole.data(), static_cast<std::streamsize>(whole.size() * 2 / 3));
  auto opened = RecordingReader::open(path_);
  ASSERT_TRUE(opened);
  RecordingReader reader = *std::move(opened);
  EXPECT_GT(reader.length(), timeOf(100));
  EXPECT_LT(reader.length(), timeOf(249));
  const auto sixtieth = valuesOf(60);
  EXPECT_TRUE(std::equal(sixtieth.begin(), sixtieth.end(), reader.at(timeOf(60))->begin()));
}

TEST_F(RecordingTest, DamageIsSaidAndNeverCrashes) {
  write();
  const std::string whole = bytes();
  std::mt19937 random(3);
  for (int round = 0; round < 300; ++round) {
    std::string hurt = whole;
    for (int i = 0; i < 3; ++i)
      hurt[random() % (round % 2 == 0 ? 200 : hurt.size())] = static_cast<char>(random());
    std::ofstream(path_, std::ios::binary | std::ios::trunc)
        .write(hurt.data(), static_cast<std::streamsize>(hurt.size()));
    auto opened = RecordingReader::open(path_);
    if (!opened) continue;
    RecordingReader reader = *std::move(opened);
    for (int n = 0; n < 250; n += 24) {
      const auto values = reader.at(timeOf(n));
      if (!values) {
        EXPECT_FALSE(values.failure().what.text().empty());
      }
    }
  }
  std::ofstream(path_, std::ios::trunc) << "a letter to a friend";
  EXPECT_EQ(RecordingReader::open(path_).failure().what.text(), "this is no recording of Chispa");
}

/// A small file that says it holds 34 GB: it is refused, or read with the memory of a frame.
TEST_F(RecordingTest, SizesThatLieTakeNoMemory) {
  auto created = RecordingWriter::create(
      path_, {.universes = std::vector<RecordedUniverse>(16'000, {Protocol::E131, 1})});
  ASSERT_TRUE(created);
  RecordingWriter writer = *std::move(created);
  const std::vector<std::uint8_t> black(16'000 * 512);
  for (int n = 0; n < 3; ++n) writer.add(Micros(n * 1000), black);
  ASSERT_TRUE(writer.finish());
  std::string lying = bytes();
  const auto block = lying.find("BLK1");
  ASSERT_NE(block, std::string::npos);
  for (const char frames : {char(4), char(127)}) {
    lying[block + 4] = frames;
    std::ofstream(path_, std::ios::binary | std::ios::trunc)
        .write(lying.data(), static_cast<std::streamsize>(lying.size()));
    EXPECT_FALSE(RecordingReader::open(path_)) << "more frames than it holds";
  }
  lying[block + 5] = 15;
  std::ofstream(path_, std::ios::binary | std::ios::trunc)
      .write(lying.data(), static_cast<std::streamsize>(lying.size()));
  EXPECT_FALSE(RecordingReader::open(path_)) << "and more than a block may";
}

TEST_F(RecordingTest, LargeFramesMakeShortBlocks) {
  auto created = RecordingWriter::create(
      path_, {.universes = std::vector<RecordedUniverse>(40'000, {Protocol::E131, 1})});
  ASSERT_TRUE(created);
  RecordingWriter writer = *std::move(created);
  std::vector<std::uint8_t> values(40'000 * 512);
  for (int n = 0; n < 8; ++n) {
    values[static_cast<std::size_t>(n)] = static_cast<std::uint8_t>(n + 1);
    writer.add(Micros(n * 25'000), values);
  }
  ASSERT_TRUE(writer.finish());
  auto opened = RecordingReader::open(path_);
  ASSERT_TRUE(opened) << opened.failure().text();
  RecordingReader reader = *std::move(opened);
  for (const int n : {7, 0, 3, 4, 2}) {
    const auto at = reader.at(Micros(n * 25'000));
    ASSERT_TRUE(at);
    EXPECT_EQ((*at)[static_cast<std::size_t>(n)], n + 1);
    EXPECT_EQ((*at)[static_cast<std::size_t>(n) + 1], 0);
  }
}

TEST_F(RecordingTest, AHeadThatLiesIsRefused) {
  for (const RecordedUniverse& universe :
       {RecordedUniverse{Protocol::Ddp, 1'000'000}, RecordedUniverse{Protocol::E131, 0},
        RecordedUniverse{Protocol::E131, 64'000}, RecordedUniverse{Protocol::ArtNet, 32'768},
        RecordedUniverse{Protocol::Ddp, -1}}) {
    auto created = RecordingWriter::create(path_, {.universes = {universe}});
    ASSERT_TRUE(created);
    ASSERT_TRUE(RecordingWriter(*std::move(created)).finish());
    EXPECT_FALSE(RecordingReader::open(path_)) << universe.universe;
  }
}

}  // namespace
}  // namespace chispa
