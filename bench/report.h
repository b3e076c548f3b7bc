// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <cstdio>
#include <string>

namespace chispa::bench {

/// Seconds that one call takes.
template <class F>
double secondsOnce(F call) {
  const auto begun = std::chrono::steady_clock::now();
  call();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
}

/// Mean seconds of one call, over about half a second of calls; the first does not count.
template <class F>
double secondsOf(F call) {
  call();
  constexpr double kLong_s = 0.5;
  int calls = 0;
  double passed = 0;
  for (; passed < kLong_s; ++calls) passed += secondsOnce(call);
  return passed / calls;
}

/// A row of the report.
inline void line(const std::string& what, const std::string& budget, const std::string& reached) {
  std::printf("| %-58s | %-34s | %s |\n", what.c_str(), budget.c_str(), reached.c_str());
}

/// As std::printf writes it.
std::string format(const char* pattern, auto... values) {
  char text[200];
  std::snprintf(text, sizeof text, pattern, values...);
  return text;
}

}  // namespace chispa::bench
