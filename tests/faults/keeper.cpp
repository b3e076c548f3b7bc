// SPDX-License-Identifier: GPL-3.0-or-later
// Works on a show as the window does, edit after edit, with journal and saving, and says on standard output
// what is safe: a fixture more with each edit. What the disk does to it is the test's affair
// (tests/core/faults_test.cpp). Each line on standard input orders a run, in a process of its own:
//   FOLDER PAUSE_US [FAULT]
// It answers with “pid”, then what is safe, then “over”; after one more line “status” as waitpid() has it:
// until then no other process takes the number.
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <iostream>
#include <sstream>
#include <string>

#include <sys/wait.h>
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

void keep(const std::filesystem::path& folder, int pause_us) {
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
}

}  // namespace

int main() {
  std::string line;
  while (std::getline(std::cin, line)) {
    std::istringstream words(line);
    std::string folder, fault;
    int pause_us = 0;
    words >> folder >> pause_us >> fault;
    const pid_t child = ::fork();
    if (child < 0) return 2;
    if (child == 0) {
      ::setenv("CHISPA_FAULT_FOLDER", folder.c_str(), 1);
      if (!fault.empty()) ::setenv("CHISPA_FAULT", fault.c_str(), 1);
      say("pid", ::getpid());
      keep(folder, pause_us);
      std::exit(0);
    }
    siginfo_t over{};
    ::waitid(P_PID, static_cast<id_t>(child), &over, WEXITED | WNOWAIT);
    say("over", child);
    std::getline(std::cin, line);
    int status = 0;
    ::waitpid(child, &status, 0);
    say("status", status);
  }
  return 0;
}
