// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "core/media/media.h"
#include "core/media/videowriter.h"

namespace chispa {
namespace {

/// Twelve pictures whose left half is red and whose right half brightens.
void write(const std::filesystem::path& path, Outcome& outcome) {
  const FilmShape shape{64, 48, 12};
  auto writer = FilmWriter::open(path, shape);
  ASSERT_TRUE(writer) << writer.failure().text();
  auto film = *std::move(writer);
  std::vector<std::uint8_t> picture(64 * 48 * 4);
  for (int n = 0; n < 12; ++n) {
    for (std::size_t i = 0; i < 64 * 48; ++i) {
      const bool isLeft = i % 64 < 32;
      const auto grey = static_cast<std::uint8_t>(n * 20);
      picture[4 * i] = isLeft ? 255 : grey;
      picture[4 * i + 1] = isLeft ? 0 : grey;
      picture[4 * i + 2] = isLeft ? 0 : grey;
      picture[4 * i + 3] = 255;
    }
    ASSERT_TRUE(film->add(picture.data()));
  }
  outcome = film->finish();
}

class Film : public testing::TestWithParam<const char*> {};

TEST_P(Film, IsReadAgainAsItWasWritten) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / (std::string("film") + GetParam());
  Outcome outcome = Done{};
  write(path, outcome);
  ASSERT_TRUE(outcome) << outcome.failure().text();
  const auto media = decodeMedia(path);
  ASSERT_TRUE(media) << media.failure().text();
  const Media& film = **media;
  EXPECT_EQ(film.width, 64);
  EXPECT_EQ(film.height, 48);
  EXPECT_NEAR(film.frames, 12, 1);
  EXPECT_GT(film.dot(0, 10, 20)[0], 200);
  EXPECT_LT(film.dot(0, 10, 20)[1], 60);
  EXPECT_GT(film.dot(film.frames - 1, 50, 20)[1], film.dot(0, 50, 20)[1] + 100);
}

INSTANTIATE_TEST_SUITE_P(Kinds, Film, testing::Values(".mp4", ".webm", ".avi", ".gif", ".apng", ".webp"),
                         [](const auto& which) { return std::string(which.param + 1); });

TEST(MovingWebp, ThatIsCutOffShowsWhatIsThereOrIsRefused) {
  const test::TemporaryFolder folder;
  const auto path = folder.path() / "film.webp";
  Outcome outcome = Done{};
  write(path, outcome);
  ASSERT_TRUE(outcome);
  std::ifstream in(path, std::ios::binary);
  const std::string whole{std::istreambuf_iterator<char>(in), {}};
  for (std::size_t size = 21; size < whole.size(); size += whole.size() / 17) {
    std::ofstream(folder.path() / "cut.webp", std::ios::binary) << whole.substr(0, size);
    const auto media = decodeMedia(folder.path() / "cut.webp");
    if (media)
      EXPECT_EQ((*media)->rgba.size(),
                static_cast<std::size_t>((*media)->frames * (*media)->width * (*media)->height * 4));
    else
      EXPECT_NE(media.failure().text().find("cut.webp"), std::string::npos);
  }
}

TEST(FilmWriter, WritesAPngEachUnderANumberedName) {
  const test::TemporaryFolder folder;
  Outcome outcome = Done{};
  write(folder.path() / "light-%02d.png", outcome);
  ASSERT_TRUE(outcome);
  EXPECT_TRUE(decodeMedia(folder.path() / "light-12.png"));
}

TEST(FilmWriter, SaysWhatItCannotWrite) {
  EXPECT_FALSE(FilmWriter::open("/tmp/film.xyz", {64, 48, 10}));
  EXPECT_FALSE(FilmWriter::open("/nowhere/film.mp4", {64, 48, 10}));
  EXPECT_FALSE(FilmWriter::open("/tmp/film.mp4", {63, 48, 10}));
}

TEST(DecodeMedia, SaysWhatItCannotRead) {
  const test::TemporaryFolder folder;
  EXPECT_FALSE(decodeMedia(folder.path() / "none.png"));
  const auto path = folder.path() / "noise.gif";
  std::ofstream(path) << "GIF89a and then nothing that makes sense";
  EXPECT_FALSE(decodeMedia(path));
}

}  // namespace
}  // namespace chispa
