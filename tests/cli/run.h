// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <sys/wait.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <string>

namespace chispa::test {

/// What a program did: its status, 128 or more if a signal ended it, and both of its outputs.
struct Ran {
  int status = -1;
  std::string out;

  std::size_t lines() const { return static_cast<std::size_t>(std::count(out.begin(), out.end(), '\n')); }
};

/// Runs one of our programs with `words`, in the shell.
inline Ran runProgram(const std::string& program, const std::string& words, const std::string& environment = {}) {
  Ran ran;
  const std::string command = environment + " " + CHISPA_BIN_DIR + "/" + program + " " + words + " 2>&1";
  std::FILE* pipe = ::popen(command.c_str(), "r");
  std::array<char, 4096> buffer;
  while (const std::size_t size = std::fread(buffer.data(), 1, buffer.size(), pipe)) ran.out.append(buffer.data(), size);
  ran.status = WEXITSTATUS(::pclose(pipe));
  return ran;
}

inline Ran run(const std::string& words) { return runProgram("chispa-cli", words); }

inline const std::string kDemo = std::string(CHISPA_SOURCE_DIR) + "/demo/carousel.chispa";

}  // namespace chispa::test
