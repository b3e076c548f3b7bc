// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>

#include "carousel/carousel.h"

#include "core/files/showfile.h"

int main(int argc, char** argv) {
  if (argc != 2) {
    std::cerr << "usage: chispa-demo-carousel SHOW.chispa\n";
    return 2;
  }
  const chispa::Outcome saved = chispa::saveShow(argv[1], chispa::demo::carousel());
  if (!saved) std::cerr << saved.failure().text() << "\n";
  return saved ? 0 : 1;
}
