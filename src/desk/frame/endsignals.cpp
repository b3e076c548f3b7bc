// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/endsignals.h"

#include <array>
#include <csignal>

#include <QSocketNotifier>
#include <fcntl.h>
#include <unistd.h>

namespace chispa::desk {
namespace {

constexpr std::array kAsking = {SIGTERM, SIGINT, SIGHUP};
/// A handler may write; the event loop reads.
int pipeEnds[2] = {-1, -1};

void note(int) {
  const char byte = 1;
  // A full pipe has been noticed already.
  [[maybe_unused]] const auto written = ::write(pipeEnds[1], &byte, 1);
}

}  // namespace

EndSignals::EndSignals(QObject* parent) : QObject(parent) {
  if (::pipe2(pipeEnds, O_CLOEXEC | O_NONBLOCK) != 0) return;
  auto* notifier = new QSocketNotifier(pipeEnds[0], QSocketNotifier::Read, this);
  connect(notifier, &QSocketNotifier::activated, this, [this] {
    char byte = 0;
    while (::read(pipeEnds[0], &byte, 1) == 1) {
    }
    emit asked();
  });
  for (const int signal : kAsking) std::signal(signal, note);
}

EndSignals::~EndSignals() {
  for (const int signal : kAsking) std::signal(signal, SIG_DFL);
  for (int& end : pipeEnds) {
    if (end >= 0) ::close(end);
    end = -1;
  }
}

}  // namespace chispa::desk
