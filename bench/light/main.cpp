// SPDX-License-Identifier: GPL-3.0-or-later
// Measures the light that strips are sent, and prints it as tables: `./run light [table …]`; or draws
// effects: `./run light sheet FILE.png [effect …]`.
#include <cstdio>
#include <functional>
#include <map>
#include <string_view>

#include "lightreport.h"

namespace chispa::bench {

LightTable::LightTable(const std::string& title, std::vector<std::string> titles) : columns_(titles.size()) {
  std::printf("\n## %s\n\n", title.c_str());
  line(titles);
  line(std::vector<std::string>(columns_, "---"));
}

void LightTable::row(const std::vector<std::string>& fields) const {
  line(fields);
}

void LightTable::line(const std::vector<std::string>& fields) const {
  for (const std::string& field : fields) std::printf("| %s ", field.c_str());
  std::printf("|\n");
  std::fflush(stdout);
}

}  // namespace chispa::bench

int main(int count, char** words) {
  using namespace chispa::bench;
  const std::map<std::string, std::function<void()>> reports{
      {"dim", reportDimLight},    {"colour", reportColour}, {"fades", reportFades},
      {"effects", reportEffects}, {"demo", reportDemo},     {"speed", reportSpeed}};
  if (count > 2 && std::string_view(words[1]) == "sheet")
    return drawEffects(words[2], {words + 3, words + count}) ? 0 : 1;
  if (count < 2)
    for (const char* name : {"dim", "colour", "fades", "effects", "demo"}) reports.at(name)();
  for (int i = 1; i < count; ++i) {
    const auto report = reports.find(words[i]);
    if (report == reports.end()) {
      std::fprintf(stderr,
                   "There is no table “%s”: dim, colour, fades, effects, demo, speed, or sheet FILE.png.\n",
                   words[i]);
      return 2;
    }
    report->second();
  }
  return 0;
}
