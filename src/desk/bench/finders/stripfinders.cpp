// SPDX-License-Identifier: GPL-3.0-or-later
// Finders of what a strip is: order, direction, skipped pixels, count, grouping.
#include "core/finders/stripfinders.h"

#include "core/edit/planedits.h"
#include "core/edit/segmentedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/finders/finderparts.h"

namespace chispa::desk {
namespace {

using namespace finderparts;

Qt::Key digitKey(int digit) {
  return static_cast<Qt::Key>(Qt::Key_0 + digit);
}

class ColourOrder final : public EliminationFinder<std::string> {
 public:
  explicit ColourOrder(const Subject& subject)
      : EliminationFinder(subject, colourOrderFinder(true)), now_(subject.wire.order) {}

  QString title() const override { return finderTitle(FinderKind::ColourOrder); }
  QString difference(const Show&) const override {
    return changeText(text(now_), text(found().value_or(now_)));
  }
  void apply(Show& show) const override {
    changePortSettings(show, subject_.target.controller, subject_.target.port,
                       [order = found()](WireSettings& s) { s.order = order; });
  }

 protected:
  FinderQuestion ask(int channel) const override {
    static const char* const kNumbers[] = {
        QT_TRANSLATE_NOOP("Finder", "first"), QT_TRANSLATE_NOOP("Finder", "second"),
        QT_TRANSLATE_NOOP("Finder", "third"), QT_TRANSLATE_NOOP("Finder", "fourth")};
    FinderQuestion question{tr("The %1 channel is on. What colour do you see?").arg(tr(kNumbers[channel])),
                            tr("Look at the very first pixel of the strip; everything else is dark."),
                            rawChannels(subject_, channel, 1)};
    question.answers = {{Qt::Key_R, QStringLiteral("R"), tr("red"), QColor(0xe0, 0x48, 0x3c), 0},
                        {Qt::Key_G, QStringLiteral("G"), tr("green"), QColor(0x40, 0xa8, 0x58), 1},
                        {Qt::Key_B, QStringLiteral("B"), tr("blue"), QColor(0x48, 0x70, 0xe0), 2},
                        {Qt::Key_W, QStringLiteral("W"), tr("white"), QColor(0xec, 0xe8, 0xe0), 3}};
    if (channel == 3)
      question.answers.push_back(
          {Qt::Key_2, QStringLiteral("2"), tr("the second pixel"), QColor(), kSecondPixel});
    return question;
  }
  QString nameOf(const std::string& order) const override { return text(order); }

 private:
  std::string now_;
};

class Direction final : public EliminationFinder<bool> {
 public:
  explicit Direction(const Subject& subject) : EliminationFinder(subject, directionFinder()) {}

  QString title() const override { return finderTitle(FinderKind::Direction); }
  QString difference(const Show&) const override {
    return found().value_or(false) ? tr("%1: turned round").arg(subject_.name()) : QString();
  }
  void apply(Show& show) const override {
    if (found().value_or(false)) turnBead(show, subject_.place());
  }

 protected:
  FinderQuestion ask(int number) const override {
    engine::TestSignal signal = still(subject_, 0, 1);
    // The last pixel alone, without knowing how many there are.
    if (number == 1) signal.kind = engine::TestSignal::Kind::Ends;
    return {number == 0 ? tr("One pixel is lit. At which end of the strip?")
                        : tr("One end is green, the other red. At which end is the red one?"),
            tr("The near end is where the plan draws pixel %1.")
                .arg(subject_.bead.reversed ? subject_.bead.first + subject_.bead.count
                                            : subject_.bead.first + 1),
            signal,
            {{Qt::Key_N, QStringLiteral("N"), tr("near end"), QColor(), 0},
             {Qt::Key_F, QStringLiteral("F"), tr("far end"), QColor(), 1}}};
  }
  QString nameOf(const bool& isFar) const override {
    return isFar ? tr("data enters at the far end") : tr("data enters at the near end");
  }
};

/// How many LEDs the controller passes over by itself.
class Skipped final : public EliminationFinder<int> {
 public:
  /// So that the check, too, is answered by a single key.
  static constexpr int kMax = 8;
  explicit Skipped(const Subject& subject)
      : EliminationFinder(subject, skippedFinder(kMax)),
        now_(subject.controller->insertsSkipped ? subject.bead.skippedBefore : 0) {}

  QString title() const override { return finderTitle(FinderKind::Skipped); }
  QString difference(const Show&) const override {
    return changeText(nameOf(now_), nameOf(found().value_or(now_)));
  }
  void apply(Show& show) const override {
    if (!found()) return;
    changeItem(show.controllers, subject_.target.controller, [](Controller& c) { c.insertsSkipped = true; });
    setSkipped(show, subject_.place(), *found());
  }

 protected:
  FinderQuestion ask(int pixel) const override {
    const int channels = static_cast<int>(subject_.wire.order.size());
    FinderQuestion question{tr("The data of pixel %1 is on. Which LED of the strip lights?").arg(pixel + 1),
                            tr("Count from the data end; the very first LED is 1."),
                            rawChannels(subject_, pixel * channels, channels)};
    for (int led = pixel; led <= std::min(9, pixel + kMax); ++led)
      question.answers.push_back(
          {digitKey((led + 1) % 10), QString::number(led + 1), QString(), QColor(), led});
    return question;
  }
  QString nameOf(const int& skipped) const override {
    return skipped == 0 ? tr("none skipped") : tr("%1 skipped").arg(skipped);
  }

 private:
  int now_;
};

class Count final : public EliminationFinder<int> {
 public:
  explicit Count(const Subject& subject)
      : EliminationFinder(subject, countFinder(subject.bead.count)), wired_(subject.bead.count) {}

  QString title() const override { return finderTitle(FinderKind::Count); }
  QString difference(const Show&) const override {
    return changeText(nameOf(wired_), nameOf(found().value_or(wired_)));
  }
  void apply(Show& show) const override {
    const int count = found().value_or(wired_);
    if (count <= 0 || count >= wired_) return;
    // What is beyond the end of the strip is cut off the fixture, at whichever end of it that is.
    const FixtureId id = subject_.bead.fixture;
    const int first = subject_.bead.first;
    if (subject_.bead.reversed)
      cutOff(show, id, 0, first + wired_ - count);
    else
      cutOff(show, id, first + count, pixelCount(*chispa::find(show.fixtures, id)));
  }

 protected:
  FinderQuestion ask(int number) const override {
    if (number < wired_) {
      return {tr("Pixel %1 is lit. Do you see it?").arg(number + 1),
              tr("Look along the whole strip."),
              still(subject_, number, 1),
              {{Qt::Key_Y, QStringLiteral("Y"), tr("yes"), QColor(), 1},
               {Qt::Key_N, QStringLiteral("N"), tr("no"), QColor(), 0}}};
    }
    return {tr("Pixels %1 and %2 are lit. How many do you see?")
                .arg(number - wired_ + 1)
                .arg(number - wired_ + 2),
            tr("Look at the end of the strip."),
            still(subject_, number - wired_, 2),
            {{Qt::Key_0, QStringLiteral("0"), tr("none"), QColor(), 0},
             {Qt::Key_1, QStringLiteral("1"), tr("one"), QColor(), 1},
             {Qt::Key_2, QStringLiteral("2"), tr("both"), QColor(), 2}}};
  }
  QString nameOf(const int& count) const override {
    return count == wired_ ? tr("%1 pixels, or more than are wired").arg(count) : tr("%1 pixels").arg(count);
  }

 private:
  /// Takes pixels `from` up to `to` off the fixture.
  static void cutOff(Show& show, FixtureId id, int from, int to) {
    const auto split = [&](int pixel) {
      const Fixture* fixture = chispa::find(show.fixtures, id);
      if (pixel <= 0 || pixel >= pixelCount(*fixture)) return;
      const std::size_t segment = segmentOf(*fixture, pixel);
      if (pixel > firstPixelOf(*fixture, segment))
        splitSegment(show, id, segment, pixel - firstPixelOf(*fixture, segment));
    };
    split(to);
    split(from);
    for (int left = to - from; left > 0;) {
      const Fixture* fixture = chispa::find(show.fixtures, id);
      if (fixture->segments.size() < 2) return;
      const std::size_t segment = segmentOf(*fixture, from);
      left -= pixelCount(fixture->segments[segment]);
      removeSegment(show, id, segment);
    }
  }
  int wired_;
};

class Grouping final : public EliminationFinder<int> {
 public:
  static constexpr int kMax = 9;
  explicit Grouping(const Subject& subject)
      : EliminationFinder(subject, groupingFinder(kMax)), now_(subject.wire.grouping) {}

  QString title() const override { return finderTitle(FinderKind::Grouping); }
  QString difference(const Show&) const override {
    return changeText(nameOf(now_), nameOf(found().value_or(now_)));
  }
  void apply(Show& show) const override {
    changePortSettings(show, subject_.target.controller, subject_.target.port,
                       [grouping = found()](WireSettings& s) { s.grouping = grouping; });
  }

 protected:
  FinderQuestion ask(int value) const override {
    const int channels = static_cast<int>(subject_.wire.order.size());
    FinderQuestion question{value == 0 ? tr("The first value is on. How many pixels light together?")
                                       : tr("Value %1 is on. How many pixels light together?").arg(value + 1),
                            tr("Count them."), rawChannels(subject_, value * channels, channels)};
    for (int n = 1; n <= kMax; ++n)
      question.answers.push_back(
          {digitKey(n), QString::number(n), QString(), QColor(), 1000 * n * value + n});
    return question;
  }
  QString nameOf(const int& grouping) const override { return tr("%1 per value").arg(grouping); }

 private:
  int now_;
};

}  // namespace

std::unique_ptr<Finder> makeColourOrderFinder(const Subject& subject) {
  return std::make_unique<ColourOrder>(subject);
}
std::unique_ptr<Finder> makeDirectionFinder(const Subject& subject) {
  return std::make_unique<Direction>(subject);
}
std::unique_ptr<Finder> makeSkippedFinder(const Subject& subject) {
  return std::make_unique<Skipped>(subject);
}
std::unique_ptr<Finder> makeCountFinder(const Subject& subject) {
  return std::make_unique<Count>(subject);
}
std::unique_ptr<Finder> makeGroupingFinder(const Subject& subject) {
  return std::make_unique<Grouping>(subject);
}

}  // namespace chispa::desk
