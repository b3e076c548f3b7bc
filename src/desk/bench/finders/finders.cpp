// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/wireedits.h"
#include "core/wire/patch.h"
#include "desk/bench/finders/finderparts.h"

namespace chispa::desk {
namespace finderparts {

std::optional<Subject> subjectOf(const Show& show, BenchTarget target) {
  if (target.kind != BenchTarget::Kind::Bead) target.bead = 0;
  if (target.kind == BenchTarget::Kind::Controller || target.kind == BenchTarget::Kind::Channels) {
    // The first port that has something.
    const Controller* controller = chispa::find(show.controllers, target.controller);
    for (int p = 0; controller && p < std::ssize(controller->ports); ++p)
      if (!controller->ports[static_cast<std::size_t>(p)].run.empty()) {
        target.port = p;
        break;
      }
  }
  const Bead* bead = beadAt(show, {target.controller, target.port, target.bead});
  const Fixture* fixture = bead ? chispa::find(show.fixtures, bead->fixture) : nullptr;
  if (!fixture) return std::nullopt;
  Subject subject{target, *bead, fixture, chispa::find(show.controllers, target.controller), {}};
  const Port& port = subject.controller->ports[static_cast<std::size_t>(target.port)];
  subject.wire = resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings, bead->settings);
  subject.start = beadStart(port, target.bead);
  const Patch patch = derivePatch(show);
  for (const PatchSpan& span : patch.spans)
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id == target.controller &&
        span.port == target.port && span.bead == target.bead) {
      subject.universe = span.universe;
      subject.channel = span.channel;
      break;
    }
  return subject;
}

engine::TestSignal still(const Subject& subject, int first, int lit, Rgb colour) {
  engine::TestSignal signal;
  signal.target.controller = subject.target.controller;
  signal.target.port = subject.target.port;
  signal.target.places = engine::PlaceRange{subject.start, subject.bead.count};
  signal.seconds = 0;
  signal.first = first;
  signal.lit = lit;
  signal.loops = false;
  signal.colour = colour;
  return signal;
}

engine::TestSignal rawChannels(const Subject& subject, int dark, int lit) {
  constexpr std::uint8_t kOn = 100;
  engine::TestSignal signal;
  signal.kind = engine::TestSignal::Kind::Faders;
  signal.target.controller = subject.target.controller;
  // Data pixels in front of the bead belong to it, too.
  const int before =
      subject.controller->insertsSkipped ? 0 : subject.bead.skippedBefore * subject.wire.bytesPerValue();
  signal.target.channels =
      engine::ChannelRange{subject.universe, std::max(1, subject.channel - before), 1, "R"};
  const int bytes = subject.wire.bits / 8;
  signal.levels.assign(static_cast<std::size_t>((dark + lit) * bytes), 0);
  std::fill(signal.levels.begin() + dark * bytes, signal.levels.end(), kOn);
  return signal;
}

QString changeText(const QString& now, const QString& then) {
  return now == then ? QString() : QStringLiteral("%1 → %2").arg(now, then);
}

}  // namespace finderparts

using finderparts::tr;

QString finderTitle(FinderKind kind) {
  switch (kind) {
    case FinderKind::ColourOrder:
      return tr("Colour order");
    case FinderKind::Direction:
      return tr("Which end is first");
    case FinderKind::Skipped:
      return tr("Skipped pixels");
    case FinderKind::Count:
      return tr("How many pixels");
    case FinderKind::Grouping:
      return tr("Pixels per value");
    case FinderKind::Matrix:
      return tr("Matrix wiring");
    case FinderKind::Parts:
      return tr("Where parts begin");
    case FinderKind::White:
      return tr("White");
    case FinderKind::Chips:
      return tr("Chip colours");
    case FinderKind::Response:
      return tr("Even steps");
    case FinderKind::Delay:
      return tr("Delay");
    case FinderKind::Strips:
      return tr("Which strip is which");
  }
  return {};
}

QString finderEffort(FinderKind kind) {
  switch (kind) {
    case FinderKind::ColourOrder:
      return tr("in 3 answers");
    case FinderKind::Direction:
      return tr("in 1–2");
    case FinderKind::Skipped:
      return tr("in 1–2");
    case FinderKind::Count:
      return tr("in ≤ 11");
    case FinderKind::Grouping:
      return tr("in 1–2");
    case FinderKind::Matrix:
      return tr("in ≤ 5 pictures");
    case FinderKind::Parts:
      return tr("walk with ← →");
    case FinderKind::White:
      return tr("3 sliders, on paper");
    case FinderKind::Chips:
      return tr("3 sliders, on a grey card");
    case FinderKind::Response:
      return tr("1 slider");
    case FinderKind::Delay:
      return tr("flash and click");
    case FinderKind::Strips:
      return tr("click on the plan");
  }
  return {};
}

std::unique_ptr<Finder> makeFinder(FinderKind kind, const Show& show, const BenchTarget& target,
                                   QString& why) {
  const auto subject = finderparts::subjectOf(show, target);
  if (!subject) {
    why = tr("Nothing hangs there yet. Hang a strip on it in Wire, or type an address in by hand.");
    return nullptr;
  }
  switch (kind) {
    case FinderKind::ColourOrder:
      return makeColourOrderFinder(*subject);
    case FinderKind::Direction:
      return makeDirectionFinder(*subject);
    case FinderKind::Skipped:
      return makeSkippedFinder(*subject);
    case FinderKind::Count:
      return makeCountFinder(*subject);
    case FinderKind::Grouping:
      return makeGroupingFinder(*subject);
    case FinderKind::Matrix:
      return makeMatrixFinder(*subject, why);
    case FinderKind::Parts:
      return makePartsFinder(*subject);
    case FinderKind::White:
      return makeWhiteFinder(show, *subject);
    case FinderKind::Chips:
      return makeChipsFinder(show, *subject);
    case FinderKind::Response:
      return makeResponseFinder(*subject);
    case FinderKind::Delay:
      return makeDelayFinder(show, *subject);
    case FinderKind::Strips:
      return makeStripsFinder(show, *subject, why);
  }
  return nullptr;
}

}  // namespace chispa::desk
