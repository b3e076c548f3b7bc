// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/vec3.h"

namespace chispa::svg {

/// What is wrong with a drawing, for people.
struct Error : std::runtime_error {
  using std::runtime_error::runtime_error;
};

/// Reads numbers and letters as SVG writes them (SVG 1.1, 4.2 and 8.3.9): separators are spaces and commas,
/// and may be left out where nothing can be mistaken.
class Scanner {
 public:
  explicit Scanner(std::string_view text) : text_(text) {}

  bool isAtEnd();
  /// True if a number comes next.
  bool hasNumber();
  double number();
  /// A single 0 or 1.
  bool flag();
  char letter();
  std::string word();
  void expect(char c);
  [[noreturn]] void wants(const std::string& wanted) const;

 private:
  void skipSeparators();

  std::string_view text_;
  std::size_t at_ = 0;
};

/// One subpath; its curves are chains of legs.
using Chain = std::vector<Vec3>;

/// The subpaths of path data (the attribute d), in its own units, y down.
std::vector<Chain> chainsOf(std::string_view pathData);

/// Appends the elliptical arc from the chain's end to `to` (SVG 1.1, appendix F.6).
void appendArc(Chain& chain, double rx, double ry, double turn_deg, bool isLarge, bool isSweep, Vec3 to);

}  // namespace chispa::svg
