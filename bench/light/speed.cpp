// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <ctime>

#include "../report.h"
#include "effectrun.h"
#include "effecttrial.h"
#include "lightreport.h"

namespace chispa::bench {
namespace {

/// Time of this thread's own, which nobody else takes from.
double ownSeconds() {
  timespec now{};
  ::clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
  return static_cast<double>(now.tv_sec) + static_cast<double>(now.tv_nsec) * 1e-9;
}

/// Nanoseconds a cell, the least of several frames.
double costOf(const Effect& effect, const ZoneCells& cells) {
  constexpr int kFrames = 12;
  EffectRun run(effect, cells);
  run.at(0.9);
  double least = 1;
  for (int i = 0; i < kFrames; ++i) {
    const double begun = ownSeconds();
    run.at(1 + i * 0.31);
    least = std::min(least, ownSeconds() - begun);
  }
  return least * 1e9 / cells.count();
}

}  // namespace

void reportSpeed() {
  const LightTable table("Nanoseconds a cell, of 100,000, as effects come from the shelf",
                         {"effect", "line", "matrix 400 × 250"});
  const ZoneCells line = test::cellsFor(LineShape{100'000, 0.01});
  const ZoneCells matrix = test::cellsFor(GridShape{400, 250, 0.01, 0.01});
  std::vector<double> all;
  for (const Effect& effect : effects()) {
    const double onLine = costOf(effect, line), onMatrix = costOf(effect, matrix);
    all.push_back(std::max(onLine, onMatrix));
    table.row({effect.name, format("%.1f", onLine), format("%.1f", onMatrix)});
  }
  std::sort(all.begin(), all.end());
  table.row({"the median, and the most", format("%.1f", all[all.size() / 2]), format("%.1f", all.back())});
}

}  // namespace chispa::bench
