// SPDX-License-Identifier: GPL-3.0-or-later
// Works on a show as the window does, edit after edit, with journal and saving, and says on standard output
// what is safe: a fixture more with each edit. What the disk does to it is the test's affair
// (tests/core/faults_test.cpp).
#include <cstdio>
#include <cstdlib>
#include <string>

#include <unistd.h>

#include "core/edit/planedits.h"
#include "core/files/journal.h"
#include "core/files/showfile.h"

namespace {

using namespace chispa;

constexpr int kEdits = 12;
constexpr int kSaveEvery = 4;

void say(const char* what, int number) {
  std::printf("%s %d\n", what, number), std::fflush(stdout);
}

}  // namespace

int main(int argc, char** argv) {
  if (argc < 2) return 2;
  const std::filesystem::path folder = argv[1];
  const int pause_us = argc > 2 ? std::atoi(argv[2]) : 0;
  const std::filesystem::path file = folder / "fair.chispa", state = folder / "state";
  Show show;
  show.name = "Fair";
  if (saveShow(file, show)) say("saved", 0);
  std::unique_ptr<Journal> journal;
  const auto begin = [&] {
    if (auto begun = Journal::begin(state, file.string(), show)) journal = *std::move(begun);
  };
  begin();
  for (int edit = 1; edit <= kEdits; ++edit) {
    addFixture(show, LineShape{edit, 0.1}, {});
    if (!journal) begin();
    if (journal && journal->append(show)) say("safe", edit);
    if (edit % kSaveEvery == 0 && saveShow(file, show)) {
      say("saved", edit);
      begin();
    }
    if (pause_us > 0) ::usleep(static_cast<useconds_t>(pause_us));
  }
  // Tried again, as the window does: at the end nothing is missing.
  if (journal && journal->append(show)) say("safe", kEdits);
  if (saveShow(file, show)) say("saved", kEdits);
  say("end", 0);
  return 0;
}
