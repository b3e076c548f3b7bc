// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <string>

#include "core/formula/program.h"

/// Formulas: a program, or a mistake that lies within the text.
extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  chispa::formula::Mistake mistake;
  const std::string text(reinterpret_cast<const char*>(data), size);
  if (!chispa::formula::compile(text, mistake) && mistake.at > text.size()) std::abort();
  return 0;
}
