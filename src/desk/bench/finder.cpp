// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/finder.h"

#include <QCoreApplication>
#include <QStringList>

#include "core/edit/wireedits.h"
#include "core/finders/stripfinders.h"
#include "core/wire/sizing.h"
#include "core/wire/wiresettings.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

QString tr(const char* words) { return QCoreApplication::translate("Finder", words); }

const Bead* firstBead(const Show& show, PortChoice port) { return beadAt(show, {port.controller, port.port, 0}); }

ResolvedWire wireOf(const Show& show, PortChoice port) {
  const Bead* bead = firstBead(show, port);
  const Fixture* fixture = bead ? chispa::find(show.fixtures, bead->fixture) : nullptr;
  if (!fixture) return {};
  const Controller* controller = chispa::find(show.controllers, port.controller);
  return resolveWire(stripTypeOf(show, *fixture), controller->ports[static_cast<std::size_t>(port.port)].settings, bead->settings);
}

/// Pixels from `first` on, standing still.
engine::TestSignal still(PortChoice port, int first, int lit, Rgb colour) {
  engine::TestSignal signal;
  signal.controller = port.controller;
  signal.port = port.port;
  signal.seconds = 0;
  signal.first = first;
  signal.lit = lit;
  signal.colour = colour;
  return signal;
}

constexpr Rgb kWhite{0.3f, 0.3f, 0.3f};

/// What all finders have in common: the narrowing down, and one question to check at the end.
template <class Truth>
class EliminationFinder : public Finder {
 public:
  EliminationFinder(PortChoice port, Elimination<Truth> elimination) : port_(port), elimination_(std::move(elimination)) {}

  std::optional<FinderQuestion> question() const override {
    const auto number = current();
    return number ? std::optional(ask(*number)) : std::nullopt;
  }
  void answer(int seen) override {
    const auto number = current();
    if (!number) return;
    decidedAt_.push_back(elimination_.isDecided());
    elimination_.answer(*number, seen);
  }
  void takeBack() override {
    if (decidedAt_.empty()) return;
    decidedAt_.pop_back();
    elimination_.takeBack();
  }
  std::size_t answers() const override { return elimination_.answers(); }
  bool isContradicted() const override { return elimination_.isContradicted(); }
  QString left() const override {
    constexpr std::size_t kMostNamed = 8;
    const auto all = elimination_.left();
    QStringList words;
    for (std::size_t i = 0; i < std::min(all.size(), kMostNamed); ++i) words << nameOf(all[i]);
    if (all.size() > kMostNamed) return tr("%1 to %2").arg(nameOf(all.front()), nameOf(all.back()));
    return words.join(QStringLiteral(" · "));
  }

 protected:
  virtual FinderQuestion ask(int number) const = 0;
  virtual QString nameOf(const Truth& truth) const = 0;
  std::optional<Truth> found() const { return elimination_.isDecided() ? std::optional<Truth>(Truth(elimination_.left().front())) : std::nullopt; }
  QString changeText(const QString& now, const QString& then) const { return now == then ? QString() : QStringLiteral("%1 → %2").arg(now, then); }

  PortChoice port_;

 private:
  /// After one check it is enough.
  std::optional<int> current() const {
    if (!decidedAt_.empty() && decidedAt_.back()) return std::nullopt;
    return elimination_.next();
  }

  Elimination<Truth> elimination_;
  std::vector<bool> decidedAt_;
};

class ColourOrder final : public EliminationFinder<std::string> {
 public:
  ColourOrder(const Show& show, PortChoice port) : EliminationFinder(port, colourOrderFinder(wireOf(show, port).order.size() == 4)), now_(wireOf(show, port).order) {}

  QString title() const override { return finderTitle(FinderKind::ColourOrder); }
  QString difference(const Show&) const override { return changeText(text(now_), text(found().value_or(now_))); }
  void apply(Show& show) const override {
    changePortSettings(show, port_.controller, port_.port, [order = found()](WireSettings& s) { s.order = order; });
  }

 protected:
  FinderQuestion ask(int channel) const override {
    static const char* const kNumbers[] = {QT_TRANSLATE_NOOP("Finder", "first"), QT_TRANSLATE_NOOP("Finder", "second"), QT_TRANSLATE_NOOP("Finder", "third"), QT_TRANSLATE_NOOP("Finder", "fourth")};
    // What lights a channel is the colour that the show takes it for.
    const char letter = now_[static_cast<std::size_t>(channel) % now_.size()];
    constexpr float kOn = 0.4f;
    const Rgb colour = letter == 'W' ? Rgb{kOn, kOn, kOn} : Rgb{letter == 'R' ? kOn : 0, letter == 'G' ? kOn : 0, letter == 'B' ? kOn : 0};
    FinderQuestion question{tr("The %1 channel is on. What colour do you see?").arg(tr(kNumbers[channel])), tr("Look at the first ten pixels of the strip; everything else is dark."), still(port_, 0, 10, colour),
                            {{Qt::Key_R, QStringLiteral("R"), tr("red"), QColor(0xe0, 0x48, 0x3c), 0},
                             {Qt::Key_G, QStringLiteral("G"), tr("green"), QColor(0x40, 0xa8, 0x58), 1},
                             {Qt::Key_B, QStringLiteral("B"), tr("blue"), QColor(0x48, 0x70, 0xe0), 2}}};
    if (now_.size() == 4) question.answers.push_back({Qt::Key_W, QStringLiteral("W"), tr("white"), QColor(0xec, 0xe8, 0xe0), 3});
    return question;
  }
  QString nameOf(const std::string& order) const override { return text(order); }

 private:
  std::string now_;
};

class Direction final : public EliminationFinder<bool> {
 public:
  Direction(const Show&, PortChoice port) : EliminationFinder(port, directionFinder()) {}

  QString title() const override { return finderTitle(FinderKind::Direction); }
  QString difference(const Show& show) const override {
    const Bead* bead = firstBead(show, port_);
    const Fixture* fixture = bead ? chispa::find(show.fixtures, bead->fixture) : nullptr;
    return fixture && found().value_or(false) ? tr("%1: turned round").arg(text(fixture->name)) : QString();
  }
  void apply(Show& show) const override {
    if (found().value_or(false)) turnBead(show, {port_.controller, port_.port, 0});
  }

 protected:
  FinderQuestion ask(int number) const override {
    engine::TestSignal signal = still(port_, 0, 1, kWhite);
    // The last pixel alone, without knowing how many there are.
    if (number == 1) signal.kind = engine::TestSignal::Kind::Ends;
    return {number == 0 ? tr("One pixel is lit. At which end of the strip?") : tr("The first pixel is green, the last red. At which end is the red one?"), tr("The near end is where the plan draws pixel 1."), signal,
            {{Qt::Key_N, QStringLiteral("N"), tr("near end"), QColor(), 0}, {Qt::Key_F, QStringLiteral("F"), tr("far end"), QColor(), 1}}};
  }
  QString nameOf(const bool& isFar) const override { return isFar ? tr("far end") : tr("near end"); }
};

int chainLength(const Show& show, PortChoice port) {
  const Controller* controller = chispa::find(show.controllers, port.controller);
  return controller && port.port < std::ssize(controller->ports) ? threadPixels(controller->ports[static_cast<std::size_t>(port.port)]) : 0;
}

class Count final : public EliminationFinder<int> {
 public:
  Count(const Show& show, PortChoice port) : EliminationFinder(port, countFinder(chainLength(show, port))), wired_(chainLength(show, port)) {}

  QString title() const override { return finderTitle(FinderKind::Count); }
  QString difference(const Show&) const override {
    return found().value_or(wired_) == wired_ ? QString() : tr("%1 pixels light, %2 are wired. Enter the number in Plan.").arg(*found()).arg(wired_);
  }
  bool canApply() const override { return false; }
  void apply(Show&) const override {}

 protected:
  FinderQuestion ask(int number) const override {
    if (number < wired_) return {tr("Pixel %1 of the chain is lit. Do you see it?").arg(number + 1), tr("Look along the whole strip."), still(port_, number, 1, kWhite), {{Qt::Key_Y, QStringLiteral("Y"), tr("yes"), QColor(), 1}, {Qt::Key_N, QStringLiteral("N"), tr("no"), QColor(), 0}}};
    return {tr("Pixels %1 and %2 are lit. How many do you see?").arg(number - wired_ + 1).arg(number - wired_ + 2), tr("Look at the end of the strip."), still(port_, number - wired_, 2, kWhite),
            {{Qt::Key_0, QStringLiteral("0"), tr("none"), QColor(), 0}, {Qt::Key_1, QStringLiteral("1"), tr("one"), QColor(), 1}, {Qt::Key_2, QStringLiteral("2"), tr("both"), QColor(), 2}}};
  }
  QString nameOf(const int& count) const override { return QString::number(count); }

 private:
  int wired_;
};

class Grouping final : public EliminationFinder<int> {
 public:
  Grouping(const Show& show, PortChoice port) : EliminationFinder(port, groupingFinder(9)), now_(wireOf(show, port).grouping) {}

  QString title() const override { return finderTitle(FinderKind::Grouping); }
  QString difference(const Show&) const override { return changeText(tr("%1 a value").arg(now_), tr("%1 a value").arg(found().value_or(now_))); }
  void apply(Show& show) const override {
    changePortSettings(show, port_.controller, port_.port, [grouping = found()](WireSettings& s) { s.grouping = grouping; });
  }

 protected:
  FinderQuestion ask(int value) const override {
    FinderQuestion question{value == 0 ? tr("The first value is on. How many pixels light together?") : tr("Value %1 is on. How many pixels light together?").arg(value + 1), tr("Count them at the data end."), still(port_, value * now_, now_, kWhite), {}};
    for (int n = 1; n <= 9; ++n) question.answers.push_back({static_cast<Qt::Key>(Qt::Key_0 + n), QString::number(n), QString(), QColor(), 1000 * n * value + n});
    return question;
  }
  QString nameOf(const int& grouping) const override { return QString::number(grouping); }

 private:
  int now_;
};

}  // namespace

QString finderTitle(FinderKind kind) {
  switch (kind) {
    case FinderKind::ColourOrder: return tr("Colour order");
    case FinderKind::Direction: return tr("Which end is first");
    case FinderKind::Count: return tr("How many pixels");
    case FinderKind::Grouping: return tr("Pixels per value");
  }
  return {};
}

QString finderEffort(FinderKind kind) {
  switch (kind) {
    case FinderKind::ColourOrder: return tr("in 3 answers");
    case FinderKind::Direction: return tr("in 1–2");
    case FinderKind::Count: return tr("in ≤ 11");
    case FinderKind::Grouping: return tr("in 1–2");
  }
  return {};
}

std::unique_ptr<Finder> makeFinder(FinderKind kind, const Show& show, PortChoice port) {
  if (!firstBead(show, port)) return nullptr;
  switch (kind) {
    case FinderKind::ColourOrder: return std::make_unique<ColourOrder>(show, port);
    case FinderKind::Direction: return std::make_unique<Direction>(show, port);
    case FinderKind::Count: return std::make_unique<Count>(show, port);
    case FinderKind::Grouping: return std::make_unique<Grouping>(show, port);
  }
  return nullptr;
}

}  // namespace chispa::desk
