// SPDX-License-Identifier: GPL-3.0-or-later
// Pictures in files: what is written is read again, dot by dot, and what others wrote is read as it is.
#include <cstdlib>
#include <fstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "core/base/picturereader.h"
#include "core/base/pngwriter.h"

namespace chispa {
namespace {

PictureBytes ramp(int width, int height, int channels) {
  PictureBytes picture{width, height, {}};
  for (int i = 0; i < width * height * channels; ++i)
    picture.bytes.push_back(static_cast<std::uint8_t>(i * 7));
  return picture;
}

TEST(PictureFile, IsReadAsItWasWritten) {
  const test::TemporaryFolder folder;
  for (const PictureColours colours : {PictureColours::Grey, PictureColours::Rgb}) {
    // Odd sides: rows must not be filled up.
    const PictureBytes picture = ramp(37, 5, colours == PictureColours::Grey ? 1 : 3);
    const auto file = folder.path() / "ramp.png";
    ASSERT_EQ(writePng(file, picture, colours), "");
    const auto reader = PictureReader::open(file, colours);
    ASSERT_TRUE(reader);
    const auto read = reader->next();
    ASSERT_TRUE(read);
    EXPECT_EQ(read->width, 37);
    EXPECT_EQ(read->height, 5);
    EXPECT_EQ(read->bytes, picture.bytes);
    EXPECT_FALSE(reader->next()) << "one picture, not two";
  }
}

TEST(PictureFile, WithColoursIsReadAsGreyByTheirLuma) {
  const test::TemporaryFolder folder;
  const auto file = folder.path() / "primaries.png";
  ASSERT_EQ(writePng(file, {4, 1, {255, 0, 0, 0, 255, 0, 0, 0, 255, 255, 255, 255}}, PictureColours::Rgb),
            "");
  const auto reader = PictureReader::open(file, PictureColours::Grey);
  ASSERT_TRUE(reader);
  const auto read = reader->next();
  ASSERT_TRUE(read);
  // ITU-R BT.601: 0.299, 0.587, 0.114.
  const int expected[] = {76, 150, 29, 255};
  for (std::size_t i = 0; i < 4; ++i) EXPECT_NEAR(read->bytes[i], expected[i], 1) << i;
}

TEST(PictureFile, IsAFilmToo) {
  const test::TemporaryFolder folder;
  const auto film = folder.path() / "count.mp4";
  const std::string made =
      "ffmpeg -loglevel error -f lavfi -i testsrc=size=64x48:rate=10:duration=1 '" + film.string() + "'";
  ASSERT_EQ(std::system(made.c_str()), 0);
  const auto reader = PictureReader::open(film, PictureColours::Grey);
  ASSERT_TRUE(reader);
  EXPECT_DOUBLE_EQ(reader->framesPerSecond(), 10);
  int frames = 0;
  while (const auto picture = reader->next()) {
    EXPECT_EQ(picture->bytes.size(), 64u * 48u);
    ++frames;
  }
  EXPECT_EQ(frames, 10);
}

TEST(PictureFile, ThatIsNoneIsNotOpened) {
  const test::TemporaryFolder folder;
  const auto text = folder.path() / "text.png";
  std::ofstream(text) << "These are words.";
  EXPECT_FALSE(PictureReader::open(text, PictureColours::Rgb));
  EXPECT_FALSE(PictureReader::open(folder.path() / "none.png", PictureColours::Rgb));
  EXPECT_FALSE(PictureReader::open(folder.path(), PictureColours::Rgb));
}

TEST(PictureFile, ThatCannotBeWrittenSaysWhy) {
  EXPECT_NE(writePng("/nowhere/at/all.png", ramp(2, 2, 1), PictureColours::Grey), "");
}

}  // namespace
}  // namespace chispa
