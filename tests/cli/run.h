// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "shell.h"

namespace chispa::test {

/// Runs one of our programs with `words`, in the shell.
inline Ran runProgram(const std::string& program, const std::string& words,
                      const std::string& environment = {}) {
  return shell(environment + " " + CHISPA_BIN_DIR + "/" + program + " " + words);
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
  return shell(bounds + CHISPA_BIN_DIR "/chispa-cli " + words);
}

inline const std::string kDemo = std::string(CHISPA_SOURCE_DIR) + "/demo/carousel.chispa";

}  // namespace chispa::test
