// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/labelfile.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <optional>
#include <sstream>

#include "core/base/utf8.h"
#include "core/files/showfile.h"

namespace chispa {
namespace {

constexpr double kMost_s = 86'400;
constexpr std::size_t kMaxBytes = 32u << 20;

std::optional<double> numberOf(std::string_view text) {
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc{} || end != text.data() + text.size() || !(value >= 0 && value <= kMost_s))
    return std::nullopt;
  return value;
}

/// "1:02:03.450", "02:03.450" or "3.45" in seconds.
std::optional<double> clockOf(std::string_view text) {
  double sum = 0;
  while (true) {
    const auto colon = text.find(':');
    const auto part = numberOf(text.substr(0, colon));
    if (!part) return std::nullopt;
    sum = sum * 60 + *part;
    if (colon == std::string_view::npos) break;
    text.remove_prefix(colon + 1);
  }
  return sum <= kMost_s ? std::optional(sum) : std::nullopt;
}

std::vector<std::string> linesOf(const std::string& text) {
  std::vector<std::string> lines;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) {
    if (!line.empty() && line.back() == '\r') line.pop_back();
    lines.push_back(asUtf8(line));
  }
  if (!lines.empty() && lines.front().starts_with("\xef\xbb\xbf")) lines.front().erase(0, 3);
  return lines;
}

Failure wrongLine(const std::string& where, std::size_t line, const char* what) {
  return {sentence("Line %1 %2.", line + 1, what), where, "Mend the line, or export the labels anew."};
}

Result<std::vector<Mark>> parseTrack(const std::vector<std::string>& lines, const std::string& where) {
  std::vector<Mark> marks;
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const std::string& line = lines[i];
    // Lines of frequencies, which some programs add, begin with a backslash.
    if (line.find_first_not_of(" \t") == std::string::npos || line.front() == '\\') continue;
    const auto first = line.find('\t');
    const auto second = first == std::string::npos ? first : line.find('\t', first + 1);
    const auto start = numberOf(std::string_view(line).substr(0, first));
    const auto end = first == std::string::npos
                         ? std::nullopt
                         : numberOf(std::string_view(line).substr(
                               first + 1, second == std::string::npos ? second : second - first - 1));
    if (!start || !end || *end < *start)
      return wrongLine(where, i, "is not a start, an end and a text with tabs between");
    marks.push_back({{},
                     micros(*start),
                     second == std::string::npos ? std::string() : line.substr(second + 1),
                     micros(*end) - micros(*start)});
  }
  return marks;
}

Result<std::vector<Mark>> parseVtt(const std::vector<std::string>& lines, const std::string& where) {
  std::vector<Mark> marks;
  if (lines.empty() || !lines.front().starts_with("WEBVTT"))
    return wrongLine(where, 0, "does not begin with WEBVTT");
  for (std::size_t i = 1; i < lines.size(); ++i) {
    const auto arrow = lines[i].find("-->");
    if (arrow == std::string::npos) continue;
    const auto word = [](std::string_view part) {
      const auto from = part.find_first_not_of(" \t");
      if (from == std::string_view::npos) return std::string_view();
      part.remove_prefix(from);
      return part.substr(0, part.find_first_of(" \t"));
    };
    const auto start = clockOf(word(std::string_view(lines[i]).substr(0, arrow)));
    const auto end = clockOf(word(std::string_view(lines[i]).substr(arrow + 3)));
    if (!start || !end || *end < *start) return wrongLine(where, i, "is not two times with --> between");
    std::string words;
    for (std::size_t k = i + 1; k < lines.size() && !lines[k].empty(); ++k)
      words += (words.empty() ? "" : " ") + lines[k];
    marks.push_back({{}, micros(*start), words, micros(*end) - micros(*start)});
  }
  return marks;
}

Result<std::vector<Mark>> parseLrc(const std::vector<std::string>& lines) {
  std::vector<Mark> marks;
  for (const std::string& line : lines) {
    // A line may have several times; "[ar:…]" and the like are no times.
    std::vector<double> times;
    std::size_t at = 0;
    while (at < line.size() && line[at] == '[') {
      const auto close = line.find(']', at);
      if (close == std::string::npos) break;
      if (const auto time = clockOf(std::string_view(line).substr(at + 1, close - at - 1)))
        times.push_back(*time);
      at = close + 1;
    }
    for (const double time : times) marks.push_back({{}, micros(time), line.substr(at), Micros(0)});
  }
  return marks;
}

std::string clockText(Micros at) {
  const auto ms = at.count() / 1000;
  char text[32];
  std::snprintf(text, sizeof text, "%02lld:%02lld:%02lld.%03lld", static_cast<long long>(ms / 3'600'000),
                static_cast<long long>(ms / 60'000 % 60), static_cast<long long>(ms / 1000 % 60),
                static_cast<long long>(ms % 1000));
  return text;
}

/// A text on one line.
std::string flat(std::string text) {
  for (char& c : text)
    if (c == '\n' || c == '\r' || c == '\t') c = ' ';
  return text;
}

}  // namespace

LabelFormat labelFormatOf(const std::filesystem::path& path) {
  const auto ending = path.extension();
  return ending == ".vtt"   ? LabelFormat::WebVtt
         : ending == ".lrc" ? LabelFormat::Lrc
                            : LabelFormat::LabelTrack;
}

Result<std::vector<Mark>> parseLabels(const std::string& text, LabelFormat format, const std::string& where) {
  const auto lines = linesOf(text);
  auto read = format == LabelFormat::WebVtt ? parseVtt(lines, where)
              : format == LabelFormat::Lrc  ? parseLrc(lines)
                                            : parseTrack(lines, where);
  if (!read) return read.failure();
  auto marks = *std::move(read);
  if (marks.empty())
    return Failure{"There are no labels in it.", where, "Choose a label track, a WebVTT or an LRC file."};
  std::stable_sort(marks.begin(), marks.end(), [](const Mark& a, const Mark& b) { return a.at < b.at; });
  return marks;
}

Result<std::vector<Mark>> readLabels(const std::filesystem::path& path) {
  const auto text = readFile(path, kMaxBytes);
  if (!text) return text.failure();
  return parseLabels(*text, labelFormatOf(path), path.string());
}

std::string labelText(const MarkLane& lane, LabelFormat format, Micros end) {
  std::string out = format == LabelFormat::WebVtt ? "WEBVTT\n\n" : "";
  char line[64];
  for (std::size_t i = 0; i < lane.marks.size(); ++i) {
    const Mark& mark = lane.marks[i];
    const Micros next = i + 1 < lane.marks.size() ? lane.marks[i + 1].at : std::max(end, mark.at);
    switch (format) {
      case LabelFormat::LabelTrack:
        std::snprintf(line, sizeof line, "%.6f\t%.6f\t", seconds(mark.at), seconds(mark.at + mark.length));
        out += line + flat(mark.text) + "\n";
        break;
      case LabelFormat::WebVtt:
        out += clockText(mark.at) + " --> " +
               clockText(mark.length.count() > 0 ? mark.at + mark.length : next) + "\n" + flat(mark.text) +
               "\n\n";
        break;
      case LabelFormat::Lrc:
        std::snprintf(line, sizeof line, "[%02lld:%05.2f]",
                      static_cast<long long>(mark.at.count() / 60'000'000),
                      seconds(mark.at % Micros(60'000'000)));
        out += line + flat(mark.text) + "\n";
        break;
    }
  }
  return out;
}

}  // namespace chispa
