// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/pointfile.h"

#include <charconv>
#include <cmath>
#include <cstdio>
#include <optional>
#include <sstream>

#include <nlohmann/json.hpp>

#include "core/base/boundedjson.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

constexpr const char* kPlainNumbers = "Each line holds x, y and perhaps z as plain numbers.";

/// The numbers of a line, or nothing if something else stands in it. A comma that separates needs no space.
std::optional<std::vector<double>> numbersOf(const std::string& line) {
  std::vector<double> numbers;
  const char* at = line.data();
  const char* const end = at + line.size();
  const auto isGap = [](char c) { return c == ',' || c == ';' || c == '\t' || c == ' ' || c == '\r'; };
  while (true) {
    while (at != end && isGap(*at)) ++at;
    if (at == end) return numbers;
    if (*at == '+') ++at;
    double value = 0;
    const auto [rest, error] = std::from_chars(at, end, value);
    if (error != std::errc() || !std::isfinite(value) || (rest != end && !isGap(*rest))) return std::nullopt;
    numbers.push_back(value);
    at = rest;
  }
}

std::optional<Vec3> pointOf(const std::vector<double>& numbers, double metresPerUnit) {
  if (numbers.size() < 2 || numbers.size() > 3) return std::nullopt;
  const Vec3 point = Vec3{numbers[0], numbers[1], numbers.size() == 3 ? numbers[2] : 0} * metresPerUnit;
  if (length(point) > limits::kLargest_m) return std::nullopt;
  return point;
}

Failure wrongLine(int number, const std::string& line, const std::string& where) {
  return {sentence("Line %1 is no point: \"%2\".", number, line.substr(0, 40)), where, kPlainNumbers};
}

Result<std::vector<Vec3>> parseTable(const std::string& text, const std::string& where,
                                     double metresPerUnit) {
  std::vector<Vec3> points;
  std::istringstream lines(text);
  std::string line;
  for (int number = 1; std::getline(lines, line); ++number) {
    const auto numbers = numbersOf(line);
    if (numbers && numbers->empty()) continue;
    const auto point = numbers ? pointOf(*numbers, metresPerUnit) : std::nullopt;
    // Words may stand in the first line only: they are its heading.
    if (!point && !numbers && points.empty() && number == 1) continue;
    if (!point) return wrongLine(number, line, where);
    points.push_back(*point);
  }
  return points;
}

Result<std::vector<Vec3>> parseList(const std::string& text, const std::string& where, double metresPerUnit) {
  constexpr const char* kListCure = "It is a list of {\"point\": [x, y, z]}.";
  const auto root = parseJson(text, "The point list", where, kListCure);
  if (!root) return root.failure();
  try {
    std::vector<Vec3> points;
    for (const auto& element : *root) {
      const auto point = pointOf(element.at("point").get<std::vector<double>>(), metresPerUnit);
      if (!point)
        return Failure{sentence("Point %1 is not two or three numbers.", points.size() + 1), where,
                       "Each element is {\"point\": [x, y, z]}."};
      points.push_back(*point);
    }
    return points;
  } catch (const std::exception& error) {
    return Failure{sentence("The point list makes no sense: %1.", error.what()), where, kListCure};
  }
}

}  // namespace

Result<std::vector<Vec3>> parsePoints(const std::string& text, const std::string& where,
                                      double metresPerUnit) {
  const auto first = text.find_first_not_of(" \t\r\n");
  const bool isJson = first != std::string::npos && (text[first] == '[' || text[first] == '{');
  auto points = isJson ? parseList(text, where, metresPerUnit) : parseTable(text, where, metresPerUnit);
  if (!points) return points;
  if (points->empty()) return Failure{"There is no point in it.", where, kPlainNumbers};
  if (points->size() > static_cast<std::size_t>(limits::kMaxPixelsOfSegment))
    return Failure{"It has more points than any strip has pixels.", where, "Split the file."};
  return points;
}

std::string pointsCsv(const std::vector<Vec3>& points) {
  std::string text = "x_m,y_m,z_m\n";
  char line[96];
  for (const Vec3& p : points) {
    std::snprintf(line, sizeof line, "%.6f,%.6f,%.6f\n", p.x, p.y, p.z);
    text += line;
  }
  return text;
}

std::string pointsJson(const std::vector<Vec3>& points) {
  auto list = nlohmann::json::array();
  for (const Vec3& p : points) list.push_back({{"point", {p.x, p.y, p.z}}});
  return list.dump(1) + "\n";
}

}  // namespace chispa
