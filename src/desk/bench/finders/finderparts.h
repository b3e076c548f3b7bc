// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QCoreApplication>
#include <QStringList>

#include "core/finders/elimination.h"
#include "core/wire/wiresettings.h"
#include "desk/bench/finder.h"
#include "desk/parts/format.h"

namespace chispa::desk {

namespace finderparts {

inline QString tr(const char* words) {
  return QCoreApplication::translate("Finder", words);
}

/// The light that finders ask with: well seen, and easy on eyes and supplies.
inline constexpr Rgb kWhite{0.3f, 0.3f, 0.3f};

/// The bead that a finder is about.
struct Subject {
  BenchTarget target;
  Bead bead;
  const Fixture* fixture = nullptr;
  const Controller* controller = nullptr;
  ResolvedWire wire;
  /// Where its chain places begin.
  int start = 0;
  /// Its first channel.
  int universe = 1;
  int channel = 1;

  ChainPlace place() const { return {target.controller, target.port, target.bead}; }
  QString name() const { return text(fixture->name); }
};
/// Nothing if the target has no bead with a fixture.
std::optional<Subject> subjectOf(const Show& show, BenchTarget target);

/// Pixels of the subject from `first` on, standing still.
engine::TestSignal still(const Subject& subject, int first, int lit, Rgb colour = kWhite);
/// Channels as they are: `lit` of them after `dark` ones, counted from the subject's first.
engine::TestSignal rawChannels(const Subject& subject, int dark, int lit);
QString changeText(const QString& now, const QString& then);

}  // namespace finderparts

/// What finders that narrow down have in common: the narrowing, and one question to check at the end.
template <class Truth>
class EliminationFinder : public Finder {
 public:
  EliminationFinder(finderparts::Subject subject, Elimination<Truth> elimination)
      : subject_(std::move(subject)), elimination_(std::move(elimination)) {}

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
  QString leftTitle() const override { return finderparts::tr("Still possible:"); }
  QString left() const override {
    constexpr std::size_t kMaxNamed = 8;
    const auto all = elimination_.left();
    if (all.empty()) return {};
    QStringList words;
    for (std::size_t i = 0; i < std::min(all.size(), kMaxNamed); ++i) words << nameOf(all[i]);
    constexpr qsizetype kShortName = 16;
    if (all.size() > kMaxNamed && nameOf(all.front()).size() > kShortName)
      return finderparts::tr("%1 possibilities").arg(all.size());
    if (all.size() > kMaxNamed)
      return finderparts::tr("%1 to %2, %3 in all")
          .arg(nameOf(all.front()), nameOf(all.back()))
          .arg(all.size());
    return words.join(QStringLiteral(" · "));
  }

 protected:
  virtual FinderQuestion ask(int number) const = 0;
  virtual QString nameOf(const Truth& truth) const = 0;
  std::vector<Truth> possible() const { return elimination_.left(); }
  std::optional<Truth> found() const {
    return elimination_.isDecided() ? std::optional<Truth>(Truth(elimination_.left().front())) : std::nullopt;
  }

  finderparts::Subject subject_;

 private:
  /// After one check it is enough.
  std::optional<int> current() const {
    if (!decidedAt_.empty() && decidedAt_.back()) return std::nullopt;
    return elimination_.next();
  }

  Elimination<Truth> elimination_;
  std::vector<bool> decidedAt_;
};

// Those with a `why` are null, with the reason in it, if there is nothing to ask about.
std::unique_ptr<Finder> makeColourOrderFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeDirectionFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeSkippedFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeCountFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeGroupingFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeMatrixFinder(const finderparts::Subject& subject, QString& why);
std::unique_ptr<Finder> makePartsFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeChipsFinder(const Show& show, const finderparts::Subject& subject);
std::unique_ptr<Finder> makeWhiteFinder(const Show& show, const finderparts::Subject& subject);
std::unique_ptr<Finder> makeResponseFinder(const finderparts::Subject& subject);
std::unique_ptr<Finder> makeDelayFinder(const Show& show, const finderparts::Subject& subject);
std::unique_ptr<Finder> makeStripsFinder(const Show& show, const finderparts::Subject& subject, QString& why);

}  // namespace chispa::desk
