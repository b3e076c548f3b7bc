// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include <QColor>
#include <QString>

#include "desk/bench/benchtarget.h"

class QPainter;
class QRectF;

namespace chispa::desk {

/// An answer that the maker can give by one key.
struct FinderAnswer {
  Qt::Key key;
  QString letter;
  QString words;
  QColor colour = {};
  int seen = 0;
  /// Drawn large, where a picture says it best.
  std::function<void(QPainter&, const QRectF&)> picture = {};
};

/// A value that is slid until it looks or sounds right.
struct FinderSlider {
  QString name;
  QString unit;
  double low = 0;
  double high = 1;
  double step = 0.01;
  double value = 0;
  int decimals = 0;
};

/// What is asked now: the words, where to look, what lights, and how it is answered: by one of several keys,
/// by sliders and Return, by a fixture of the plan, or by a place that is walked to.
struct FinderQuestion {
  QString words;
  QString look;
  engine::TestSignal signal;
  std::vector<FinderAnswer> answers = {};
  std::vector<FinderSlider> sliders = {};
  std::vector<FixtureId> fixtures = {};
  /// Arrow keys walk, Space marks a place, and what is marked has this name.
  std::optional<QString> name = {};
  /// The maker hears a click each second.
  bool clicks = false;
};

/// A finder at work: asks one question at a time until it knows, then says what would change. UI thread.
class Finder {
 public:
  virtual ~Finder() = default;
  virtual QString title() const = 0;
  /// Nothing if all is asked, or the answers contradict each other.
  virtual std::optional<FinderQuestion> question() const = 0;
  virtual void answer(int seen) = 0;
  virtual void takeBack() = 0;
  virtual std::size_t answers() const = 0;
  virtual bool isContradicted() const { return false; }
  /// What is still possible, or known so far; and which of the two it is, in words.
  virtual QString left() const = 0;
  virtual QString leftTitle() const = 0;
  /// True if what is left can be drawn, and the drawing of it.
  virtual bool hasDrawing() const { return false; }
  virtual void draw(QPainter& /*painter*/, const QRectF& /*box*/) const {}
  /// Once it knows: what the show says now and what it would say; empty if nothing changes.
  virtual QString difference(const Show& show) const = 0;
  /// Changes the show to what was found.
  virtual void apply(Show& show) const = 0;

  /// True if what plays while it asks is the show as apply() would leave it.
  virtual bool isTrial() const { return false; }
  virtual void slide(int /*slider*/, double /*value*/) {}
  virtual void pick(FixtureId /*fixture*/) {}
  virtual void walk(int /*by*/) {}
  virtual void mark() {}
  virtual void setName(const QString& /*name*/) {}
};

/// The kinds of finders, in the order of their list.
enum class FinderKind {
  ColourOrder,
  Direction,
  Skipped,
  Count,
  Grouping,
  Matrix,
  Parts,
  White,
  Chips,
  Response,
  Delay,
  Strips
};
constexpr int kFinderKinds = 12;
QString finderTitle(FinderKind kind);
/// "in 3 answers".
QString finderEffort(FinderKind kind);
/// Null, with the reason in `why`, if the target has nothing that it could find out about.
std::unique_ptr<Finder> makeFinder(FinderKind kind, const Show& show, const BenchTarget& target,
                                   QString& why);

}  // namespace chispa::desk
