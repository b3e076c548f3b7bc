// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>
#include <QString>
#include <memory>
#include <optional>
#include <vector>

#include "desk/session/session.h"
#include "engine/signal.h"

namespace chispa::desk {

/// An answer that the maker can give by one key.
struct FinderAnswer {
  Qt::Key key;
  QString letter;
  QString words;
  QColor colour;
  int seen = 0;
};

/// What is asked now: the words, where to look, what lights, and the answers.
struct FinderQuestion {
  QString words;
  QString look;
  engine::TestSignal signal;
  std::vector<FinderAnswer> answers;
};

/// A finder at work on a port: asks one question at a time until it knows, then says what would change. UI thread.
class Finder {
 public:
  virtual ~Finder() = default;
  virtual QString title() const = 0;
  /// Nothing if all is asked, or the answers contradict each other.
  virtual std::optional<FinderQuestion> question() const = 0;
  virtual void answer(int seen) = 0;
  virtual void takeBack() = 0;
  virtual std::size_t answers() const = 0;
  virtual bool isContradicted() const = 0;
  /// What is still possible.
  virtual QString left() const = 0;
  /// Once it knows: what the show says now and what it would say; empty if nothing changes.
  virtual QString difference(const Show& show) const = 0;
  /// False if what was found has to be entered elsewhere.
  virtual bool canApply() const { return true; }
  /// Changes the show to what was found.
  virtual void apply(Show& show) const = 0;
};

/// The kinds of finders, in the order of their list.
enum class FinderKind { ColourOrder, Direction, Count, Grouping };
constexpr int kFinderKinds = 4;
QString finderTitle(FinderKind kind);
/// "in 3 answers".
QString finderEffort(FinderKind kind);
std::unique_ptr<Finder> makeFinder(FinderKind kind, const Show& show, PortChoice port);

}  // namespace chispa::desk
