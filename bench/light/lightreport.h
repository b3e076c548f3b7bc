// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

namespace chispa::bench {

/// A table in the form of Markdown, on standard output. The first row has the titles.
class LightTable {
 public:
  LightTable(const std::string& title, std::vector<std::string> titles);
  void row(const std::vector<std::string>& fields) const;

 private:
  void line(const std::vector<std::string>& fields) const;

  std::size_t columns_;
};

// What leaves the strips, measured; docs/light.md explains each table.
void reportDimLight();
void reportColour();
void reportFades();
void reportEffects();
void reportDemo();
/// What effects cost.
void reportSpeed();

/// Writes a picture of the effects with `keys` (of all if there are none): on a line and a ring through time,
/// on a matrix and the carousel at some instants. False, and said, if it cannot.
bool drawEffects(const std::string& file, const std::vector<std::string>& keys);

}  // namespace chispa::bench
