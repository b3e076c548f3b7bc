// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/svg/pathdata.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>

namespace chispa::svg {

void Scanner::skipSeparators() {
  while (at_ < text_.size() && (std::isspace(static_cast<unsigned char>(text_[at_])) || text_[at_] == ','))
    ++at_;
}

bool Scanner::isAtEnd() {
  skipSeparators();
  return at_ >= text_.size();
}

bool Scanner::hasNumber() {
  if (isAtEnd()) return false;
  const char c = text_[at_];
  return std::isdigit(static_cast<unsigned char>(c)) || c == '.' || c == '-' || c == '+';
}

double Scanner::number() {
  if (!hasNumber()) wants("a number");
  if (text_[at_] == '+') ++at_;
  double value = 0;
  const auto [end, error] = std::from_chars(text_.data() + at_, text_.data() + text_.size(), value);
  constexpr double kLargest = 1e9;
  if (error != std::errc() || !(std::abs(value) <= kLargest)) wants("a number within reason");
  at_ = static_cast<std::size_t>(end - text_.data());
  return value;
}

bool Scanner::flag() {
  if (isAtEnd() || (text_[at_] != '0' && text_[at_] != '1')) wants("0 or 1");
  return text_[at_++] == '1';
}

char Scanner::letter() {
  if (isAtEnd() || !std::isalpha(static_cast<unsigned char>(text_[at_]))) wants("a command");
  return text_[at_++];
}

std::string Scanner::word() {
  std::string word;
  skipSeparators();
  while (at_ < text_.size() && std::isalpha(static_cast<unsigned char>(text_[at_]))) word += text_[at_++];
  return word;
}

void Scanner::expect(char c) {
  if (isAtEnd() || text_[at_] != c) wants(std::string("\"") + c + "\"");
  ++at_;
}

void Scanner::wants(const std::string& wanted) const {
  throw Error("at character " + std::to_string(at_ + 1) + " " + wanted + " is missing");
}

namespace {

constexpr int kCurveSteps = 24;
constexpr std::size_t kMaxLegs = 1'000'000;

void appendCubic(Chain& chain, Vec3 b, Vec3 c, Vec3 d) {
  const Vec3 a = chain.back();
  for (int i = 1; i <= kCurveSteps; ++i) {
    const double t = static_cast<double>(i) / kCurveSteps;
    const double s = 1 - t;
    chain.push_back(a * (s * s * s) + b * (3 * s * s * t) + c * (3 * s * t * t) + d * (t * t * t));
  }
}

/// Goes through path data command by command.
class PathReader {
 public:
  explicit PathReader(std::string_view data) : in_(data) {}

  std::vector<Chain> read() && {
    char command = 0;
    while (!in_.isAtEnd()) {
      if (!in_.hasNumber())
        command = in_.letter();
      else if (command == 0 || command == 'Z' || command == 'z')
        in_.wants("a command");
      // Numbers that follow a move without a command are lines.
      else if (command == 'M')
        command = 'L';
      else if (command == 'm')
        command = 'l';
      if (chains_.empty() && command != 'M' && command != 'm') in_.wants("a move (M)");
      run(command);
      if (legs_ > kMaxLegs) in_.wants("an end: the path has more legs than Chispa reads, and something");
    }
    std::erase_if(chains_, [](const Chain& chain) { return chain.size() < 2; });
    return std::move(chains_);
  }

 private:
  Chain& chain() { return chains_.back(); }
  Vec3 here() const { return chains_.empty() ? Vec3{} : chains_.back().back(); }

  Vec3 point(bool isRelative) {
    const Vec3 from = isRelative ? here() : Vec3{};
    const double x = in_.number();
    return from + Vec3{x, in_.number(), 0};
  }

  /// The control point that mirrors the one before, if the command before was of the same family.
  Vec3 mirroredControl(const char* family) const {
    return std::string_view(family).find(before_) != std::string_view::npos ? here() * 2 - control_ : here();
  }

  void run(char command) {
    const bool isRelative = std::islower(static_cast<unsigned char>(command)) != 0;
    switch (std::toupper(static_cast<unsigned char>(command))) {
      case 'M':
        chains_.push_back({point(isRelative)});
        break;
      case 'L':
        chain().push_back(point(isRelative));
        break;
      case 'H':
        chain().push_back({in_.number() + (isRelative ? here().x : 0), here().y, 0});
        break;
      case 'V':
        chain().push_back({here().x, in_.number() + (isRelative ? here().y : 0), 0});
        break;
      case 'C':
        runCubic(point(isRelative), isRelative);
        break;
      case 'S':
        runCubic(mirroredControl("CcSs"), isRelative);
        break;
      case 'Q':
        runQuadratic(point(isRelative), isRelative);
        break;
      case 'T':
        runQuadratic(mirroredControl("QqTt"), isRelative);
        break;
      case 'A':
        runArc(isRelative);
        break;
      case 'Z':
        close();
        break;
      default:
        in_.wants(std::string("a command that SVG has (not \"") + command + "\")");
    }
    before_ = command;
    ++legs_;
  }

  void runCubic(Vec3 first, bool isRelative) {
    const Vec3 second = point(isRelative);
    const Vec3 to = point(isRelative);
    appendCubic(chain(), first, second, to);
    control_ = second;
    legs_ += kCurveSteps;
  }

  void runQuadratic(Vec3 middle, bool isRelative) {
    const Vec3 to = point(isRelative);
    const Vec3 from = here();
    appendCubic(chain(), from + (middle - from) * (2.0 / 3), to + (middle - to) * (2.0 / 3), to);
    control_ = middle;
    legs_ += kCurveSteps;
  }

  void runArc(bool isRelative) {
    const double rx = in_.number();
    const double ry = in_.number();
    const double turn = in_.number();
    const bool isLarge = in_.flag();
    const bool isSweep = in_.flag();
    appendArc(chain(), rx, ry, turn, isLarge, isSweep, point(isRelative));
    legs_ += 2 * kCurveSteps;
  }

  void close() {
    const Vec3 first = chain().front();
    if (!(here() == first)) chain().push_back(first);
    // What follows without a move begins where this began.
    chains_.push_back({first});
  }

  Scanner in_;
  std::vector<Chain> chains_;
  Vec3 control_;
  char before_ = ' ';
  std::size_t legs_ = 0;
};

}  // namespace

std::vector<Chain> chainsOf(std::string_view pathData) {
  return PathReader(pathData).read();
}

void appendArc(Chain& chain, double rx, double ry, double turn_deg, bool isLarge, bool isSweep, Vec3 to) {
  const Vec3 from = chain.back();
  rx = std::abs(rx);
  ry = std::abs(ry);
  if (from == to) return;
  if (rx < 1e-12 || ry < 1e-12) {
    chain.push_back(to);
    return;
  }
  const double c = std::cos(radians(turn_deg));
  const double s = std::sin(radians(turn_deg));
  const Vec3 half = (from - to) * 0.5;
  const double x = c * half.x + s * half.y;
  const double y = -s * half.x + c * half.y;
  // Radii too small to reach are grown until they do (F.6.6).
  const double grow = std::sqrt(std::max(1.0, x * x / (rx * rx) + y * y / (ry * ry)));
  rx *= grow;
  ry *= grow;
  const double below = rx * rx * y * y + ry * ry * x * x;
  const double root =
      std::sqrt(std::max(0.0, (rx * rx * ry * ry - below) / below)) * (isLarge == isSweep ? -1 : 1);
  const double cx = root * rx * y / ry;
  const double cy = -root * ry * x / rx;
  const Vec3 middle = (from + to) * 0.5 + Vec3{c * cx - s * cy, s * cx + c * cy, 0};
  const double first = std::atan2((y - cy) / ry, (x - cx) / rx);
  double sweep = std::atan2((-y - cy) / ry, (-x - cx) / rx) - first;
  if (isSweep && sweep < 0) sweep += 2 * kPi;
  if (!isSweep && sweep > 0) sweep -= 2 * kPi;
  const int steps = std::max(2, static_cast<int>(std::ceil(std::abs(sweep) / (2 * kPi) * 2 * kCurveSteps)));
  for (int i = 1; i < steps; ++i) {
    const double angle = first + sweep * i / steps;
    const double ex = rx * std::cos(angle);
    const double ey = ry * std::sin(angle);
    chain.push_back(middle + Vec3{c * ex - s * ey, s * ex + c * ey, 0});
  }
  chain.push_back(to);
}

}  // namespace chispa::svg
