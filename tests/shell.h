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

/// Runs a command of the shell to its end.
inline Ran shell(const std::string& command) {
  Ran ran;
  std::FILE* pipe = ::popen((command + " 2>&1").c_str(), "r");
  std::array<char, 65536> buffer;
  while (const std::size_t size = std::fread(buffer.data(), 1, buffer.size(), pipe))
    ran.out.append(buffer.data(), size);
  const int status = ::pclose(pipe);
  ran.status = WIFSIGNALED(status) ? 128 + WTERMSIG(status) : WEXITSTATUS(status);
  return ran;
}

}  // namespace chispa::test
