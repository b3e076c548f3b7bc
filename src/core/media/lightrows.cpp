// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/lightrows.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <fstream>

#include "core/base/boundedjson.h"
#include "core/base/picturereader.h"

namespace chispa {
namespace {

constexpr const char* kCure =
    "Choose a PNG whose rows are frames, a table, or a .rgb file with its .json beside it, as "
    "docs/light-data.md has them.";
constexpr const char* kPrefix = "rows:";

Failure unreadable(const std::filesystem::path& path, Sentence what) {
  return {std::move(what), path.string(), kCure};
}

constexpr std::size_t kMaxRowBytes = std::size_t{256} << 20;

/// Dots of a PNG as its head says (PNG, third edition, §11.2.1), before any memory is taken for them; 0 if it
/// is none.
std::size_t dotsOfPng(const std::filesystem::path& path) {
  std::array<unsigned char, 24> head{};
  std::ifstream in(path, std::ios::binary);
  in.read(reinterpret_cast<char*>(head.data()), static_cast<std::streamsize>(head.size()));
  constexpr std::array<unsigned char, 8> kSignature = {0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
  if (!in || !std::equal(kSignature.begin(), kSignature.end(), head.begin())) return 0;
  const auto number = [&](std::size_t at) {
    return std::size_t{head[at]} << 24 | std::size_t{head[at + 1]} << 16 | std::size_t{head[at + 2]} << 8 |
           std::size_t{head[at + 3]};
  };
  return number(16) * number(20);
}

Result<std::shared_ptr<const Media>> readPicture(const std::filesystem::path& path) {
  const std::size_t dots = dotsOfPng(path);
  if (dots == 0) return unreadable(path, "It is no PNG.");
  if (dots * 4 > kMaxRowBytes) return unreadable(path, "The picture is larger than 256 MB.");
  const auto reader = PictureReader::open(path, PictureColours::Rgb);
  const auto picture = reader ? reader->next() : std::nullopt;
  if (!picture) return unreadable(path, "The picture cannot be read.");
  auto media = std::make_shared<Media>(Media{picture->width, 1, 0, picture->height, {}});
  const std::vector<std::uint8_t>& rgb = picture->bytes;
  media->rgba.reserve(rgb.size() / 3 * 4);
  for (std::size_t i = 0; i + 2 < rgb.size(); i += 3)
    media->rgba.insert(media->rgba.end(), {rgb[i], rgb[i + 1], rgb[i + 2], 255});
  return std::shared_ptr<const Media>(std::move(media));
}

Result<std::shared_ptr<const Media>> readBytes(const std::filesystem::path& path) {
  std::ifstream words(explanationPath(path), std::ios::binary);
  if (!words)
    return unreadable(path, sentence("There is no %1 beside it.", explanationPath(path).filename().string()));
  const std::string text((std::istreambuf_iterator<char>(words)), {});
  const auto parsed = parseJson(text, "What explains the light", explanationPath(path).string(), kCure);
  if (!parsed) return parsed.failure();
  const auto& json = *parsed;
  const auto number = [&](const char* key) {
    return json.is_object() && json.contains(key) && json[key].is_number() ? json[key].get<double>() : 0.0;
  };
  const double frameBytes = number("bytes_of_frame");
  if (!json.is_object() || !json.contains("format") || json["format"] != kLightFormat || frameBytes < 3 ||
      frameBytes > 1e7 || std::fmod(frameBytes, 3) != 0)
    return unreadable(explanationPath(path), "It does not explain bytes of pixels.");
  std::error_code error;
  const auto size = std::filesystem::file_size(path, error);
  const auto width = static_cast<std::size_t>(frameBytes) / 3;
  if (error || size == 0 || size % (3 * width) != 0)
    return unreadable(path, "Its size is not that of whole frames.");
  if (size / 3 * 4 > kMaxRowBytes) return unreadable(path, "It is larger than 256 MB.");
  std::ifstream in(path, std::ios::binary);
  std::vector<std::uint8_t> bytes(size);
  in.read(reinterpret_cast<char*>(bytes.data()), static_cast<std::streamsize>(size));
  if (!in) return unreadable(path, "It cannot be read.");
  auto media = std::make_shared<Media>(Media{static_cast<int>(width),
                                             1,
                                             std::clamp(number("frames_per_second"), 0.0, 1000.0),
                                             static_cast<int>(size / (3 * width)),
                                             {}});
  media->rgba.reserve(size / 3 * 4);
  for (std::size_t i = 0; i < size; i += 3)
    media->rgba.insert(media->rgba.end(), {bytes[i], bytes[i + 1], bytes[i + 2], 255});
  return std::shared_ptr<const Media>(std::move(media));
}

/// Fields of a line of CSV (RFC 4180); commas within quotes are none.
std::size_t fieldsOf(const std::string& line) {
  std::size_t fields = 1;
  bool isQuoted = false;
  for (const char c : line) {
    if (c == '"') isQuoted = !isQuoted;
    if (c == ',' && !isQuoted) ++fields;
  }
  return fields;
}

/// A line of numbers: a frame's number and its time, then bytes. False if it is anything else.
bool readLine(const std::string& line, std::size_t bytes, double& time_s, std::vector<std::uint8_t>& rgba) {
  const char* at = line.data();
  const char* end = at + line.size();
  if (end != at && end[-1] == '\r') --end;
  const auto next = [&](auto& number) {
    const auto read = std::from_chars(at, end, number);
    const bool isGood = read.ec == std::errc() && (read.ptr == end || *read.ptr == ',');
    at = read.ptr == end ? end : read.ptr + 1;
    return isGood;
  };
  long frame = 0;
  if (!next(frame) || !next(time_s)) return false;
  for (std::size_t i = 0; i < bytes; ++i) {
    int value = 0;
    if (!next(value) || value < 0 || value > 255) return false;
    rgba.push_back(static_cast<std::uint8_t>(value));
    if (i % 3 == 2) rgba.push_back(255);
  }
  return at == end;
}

Result<std::shared_ptr<const Media>> readTable(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::string line;
  if (!std::getline(in, line)) return unreadable(path, "It is empty.");
  const std::size_t fields = fieldsOf(line);
  if (!line.starts_with("frame,time_s,") || fields < 5 || (fields - 2) % 3 != 0)
    return unreadable(path, "Its heading does not name pixels.");
  auto media = std::make_shared<Media>(Media{static_cast<int>((fields - 2) / 3), 1, 0, 0, {}});
  double first_s = 0, time_s = 0;
  while (std::getline(in, line)) {
    if (!readLine(line, fields - 2, time_s, media->rgba))
      return unreadable(path, sentence("Line %1 is no frame.", media->frames + 2));
    if (media->rgba.size() > kMaxRowBytes) return unreadable(path, "It is larger than 256 MB.");
    if (media->frames++ == 0) first_s = time_s;
  }
  if (media->frames == 0) return unreadable(path, "It has no frames.");
  // The mean distance of all frames tells the rate, however its times are rounded.
  if (media->frames > 1 && time_s > first_s)
    media->framesPerSecond =
        std::min(1000.0, std::round((media->frames - 1) / (time_s - first_s) * 1000) / 1000);
  return std::shared_ptr<const Media>(std::move(media));
}

}  // namespace

std::filesystem::path explanationPath(const std::filesystem::path& path) {
  return path.string() + ".json";
}

Result<std::shared_ptr<const Media>> readLightRows(const std::filesystem::path& path) {
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error))
    return Failure{"The file is not there.", path.string(), "Put it back, or choose the file anew."};
  if (path.extension() == ".csv") return readTable(path);
  return path.extension() == ".rgb" ? readBytes(path) : readPicture(path);
}

std::string rowsName(const std::string& file) {
  return kPrefix + file;
}

std::optional<std::string> fileOfRowsName(const std::string& name) {
  return name.rfind(kPrefix, 0) == 0 ? std::optional(name.substr(std::string(kPrefix).size())) : std::nullopt;
}

}  // namespace chispa
