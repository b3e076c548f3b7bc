// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <cstdio>
#include <string>

#include <sys/wait.h>

namespace chispa::test {

/// What a program did: its status, 128 or more if a signal ended it, and both of its outputs.
struct Ran {
  int status = -1;
  std::string out;

  std::size_t lines() const { return static_cast<std::size_t>(std::count(out.begin(), out.end(), '\n')); }
};

/// Runs one of our programs with `words`, in the shell.
inline Ran runProgram(const std::string& program, const std::string& words,
                      const std::string& environment = {}) {
  Ran ran;
  const std::string command = environment + " " + CHISPA_BIN_DIR + "/" + program + " " + words + " 2>&1";
  std::FILE* pipe = ::popen(command.c_str(), "r");
  std::array<char, 4096> buffer;
  while (const std::size_t size = std::fread(buffer.data(), 1, buffer.size(), pipe))
    ran.out.append(buffer.data(), size);
  ran.status = WEXITSTATUS(::pclose(pipe));
  return ran;
}

inline Ran run(const std::string& words) {
  return runProgram("chispa-cli", words);
}

/// The same within two gigabytes and ten seconds; 124 if it took longer. Sanitizers need room and time of
/// their own.
inline Ran runBounded(const std::string& words) {
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
  const std::string bounds = "exec timeout 120 ";
#else
  const std::string bounds = "ulimit -v 2097152; exec timeout 10 ";
#endif
  Ran ran;
  const std::string command = bounds + CHISPA_BIN_DIR "/chispa-cli " + words + " 2>&1";
  std::FILE* pipe = ::popen(command.c_str(), "r");
  std::array<char, 4096> buffer;
  while (const std::size_t size = std::fread(buffer.data(), 1, buffer.size(), pipe))
    ran.out.append(buffer.data(), size);
  const int status = ::pclose(pipe);
  ran.status = WIFSIGNALED(status) ? 128 + WTERMSIG(status) : WEXITSTATUS(status);
  return ran;
}

inline const std::string kDemo = std::string(CHISPA_SOURCE_DIR) + "/demo/carousel.chispa";

}  // namespace chispa::test
