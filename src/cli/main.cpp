// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verbs.h"

int main(int argc, char** argv) {
  return chispa::cli::run(argc, argv);
}
