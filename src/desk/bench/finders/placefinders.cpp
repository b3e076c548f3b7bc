// SPDX-License-Identifier: GPL-3.0-or-later
// Finders of places: where the parts of a strip begin, and which strip hangs where.
#include <map>

#include "core/edit/planedits.h"
#include "core/edit/segmentedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/finders/finderparts.h"

namespace chispa::desk {
namespace {

using namespace finderparts;

/// A cursor walks the strip; marks cut it into named segments.
class Parts final : public Finder {
 public:
  explicit Parts(const Subject& subject) : subject_(subject) { names_[0] = tr("Part %1").arg(1); }

  QString title() const override { return finderTitle(FinderKind::Parts); }
  std::optional<FinderQuestion> question() const override {
    if (isDone_) return std::nullopt;
    FinderQuestion question{tr("Pixel %1 of %2 is lit. Walk to where the next part begins.")
                                .arg(cursor_ + 1)
                                .arg(subject_.bead.count),
                            tr("← → one pixel, with Shift ten, with Ctrl a hundred. Space: a new part begins "
                               "here. Backspace takes the last one back. Return: all parts are marked."),
                            still(subject_, cursor_, 1)};
    const int first = std::prev(names_.upper_bound(cursor_))->first;
    question.name = names_.at(first);
    return question;
  }
  void answer(int) override { isDone_ = true; }
  void takeBack() override {
    if (std::exchange(isDone_, false)) return;
    if (order_.empty()) return;
    names_.erase(order_.back());
    order_.pop_back();
  }
  std::size_t answers() const override { return order_.size(); }
  QString leftTitle() const override { return tr("Parts so far:"); }
  QString left() const override {
    QStringList words;
    for (const auto& [first, name] : names_) words << tr("%1 from %2").arg(name).arg(first + 1);
    return words.join(QStringLiteral(" · "));
  }
  QString difference(const Show&) const override {
    return names_.size() < 2
               ? QString()
               : tr("%1 becomes %2 parts: %3").arg(subject_.name()).arg(names_.size()).arg(left());
  }
  void apply(Show& show) const override {
    const FixtureId id = subject_.bead.fixture;
    std::map<int, QString> byPixel;
    for (auto part = names_.begin(); part != names_.end(); ++part) {
      const auto next = std::next(part);
      const int end = next == names_.end() ? subject_.bead.count : next->first;
      byPixel[std::min(pixelOf(part->first), pixelOf(end - 1))] = part->second;
    }
    for (auto part = byPixel.rbegin(); part != byPixel.rend(); ++part) cutAt(show, id, part->first);
    changeItem(show.fixtures, id, [&](Fixture& fixture) {
      for (const auto& [pixel, name] : byPixel)
        fixture.segments[segmentOf(fixture, pixel)].name = name.toStdString();
    });
  }
  void walk(int by) override { cursor_ = std::clamp(cursor_ + by, 0, subject_.bead.count - 1); }
  void mark() override {
    if (names_.contains(cursor_)) return;
    names_[cursor_] = tr("Part %1").arg(names_.size() + 1);
    order_.push_back(cursor_);
  }
  void setName(const QString& name) override {
    if (!name.trimmed().isEmpty()) std::prev(names_.upper_bound(cursor_))->second = name.trimmed();
  }

 private:
  int pixelOf(int place) const {
    return subject_.bead.reversed ? subject_.bead.first + subject_.bead.count - 1 - place
                                  : subject_.bead.first + place;
  }
  static void cutAt(Show& show, FixtureId id, int pixel) {
    const Fixture* fixture = chispa::find(show.fixtures, id);
    if (!fixture) return;
    const std::size_t segment = segmentOf(*fixture, pixel);
    if (pixel > firstPixelOf(*fixture, segment))
      splitSegment(show, id, segment, pixel - firstPixelOf(*fixture, segment));
  }

  Subject subject_;
  int cursor_ = 0;
  /// Names of the parts, by their first place.
  std::map<int, QString> names_;
  std::vector<int> order_;
  bool isDone_ = false;
};

/// Lights one strip after the other; the maker clicks the one that he sees.
class Strips final : public Finder {
 public:
  Strips(std::vector<Subject> strips, QString controller)
      : strips_(std::move(strips)), controller_(std::move(controller)) {}

  QString title() const override { return finderTitle(FinderKind::Strips); }
  std::optional<FinderQuestion> question() const override {
    // The last strip is the one that is left.
    if (seen_.size() + 1 >= strips_.size() || isContradicted()) return std::nullopt;
    const Subject& strip = strips_[seen_.size()];
    FinderQuestion question{tr("Which strip is lit?"),
                            tr("Click it on the plan; or choose it with the arrow keys and press Return."),
                            still(strip, 0, std::max(1, strip.bead.count / 2))};
    for (const Subject& one : strips_) question.fixtures.push_back(one.bead.fixture);
    return question;
  }
  void answer(int) override {}
  void pick(FixtureId fixture) override { seen_.push_back(fixture); }
  void takeBack() override {
    if (!seen_.empty()) seen_.pop_back();
  }
  std::size_t answers() const override { return seen_.size(); }
  QString leftTitle() const override { return tr("So far:"); }
  bool isContradicted() const override {
    for (std::size_t i = 0; i < seen_.size(); ++i)
      if (std::count(seen_.begin(), seen_.end(), seen_[i]) > 1) return true;
    return false;
  }
  QString left() const override {
    return tr("%1 of %2 strips of %3 found").arg(seen_.size()).arg(strips_.size()).arg(controller_);
  }
  QString difference(const Show& show) const override {
    QStringList words;
    const auto found = all();
    for (std::size_t i = 0; i < strips_.size(); ++i)
      if (found[i] != strips_[i].bead.fixture) {
        const Fixture* now = chispa::find(show.fixtures, found[i]);
        words << tr("port %1: %2 → %3")
                     .arg(strips_[i].target.port + 1)
                     .arg(strips_[i].name(), now ? text(now->name) : QString());
      }
    return words.join(QStringLiteral("\n"));
  }
  void apply(Show& show) const override {
    const auto found = all();
    changeItem(show.controllers, strips_.front().target.controller, [&](Controller& controller) {
      for (std::size_t i = 0; i < strips_.size(); ++i) {
        const auto from = std::find_if(strips_.begin(), strips_.end(),
                                       [&](const Subject& s) { return s.bead.fixture == found[i]; });
        Bead& bead = controller.ports[static_cast<std::size_t>(strips_[i].target.port)]
                         .run[static_cast<std::size_t>(strips_[i].target.bead)];
        bead.fixture = from->bead.fixture;
        bead.first = from->bead.first;
        bead.count = from->bead.count;
        bead.reversed = from->bead.reversed;
      }
    });
  }

 private:
  /// The strip at each place, the last by what is left.
  std::vector<FixtureId> all() const {
    std::vector<FixtureId> found = seen_;
    for (const Subject& strip : strips_)
      if (found.size() < strips_.size() &&
          std::find(found.begin(), found.end(), strip.bead.fixture) == found.end())
        found.push_back(strip.bead.fixture);
    return found;
  }

  std::vector<Subject> strips_;
  QString controller_;
  std::vector<FixtureId> seen_;
};

}  // namespace

std::unique_ptr<Finder> makePartsFinder(const Subject& subject) {
  return std::make_unique<Parts>(subject);
}

std::unique_ptr<Finder> makeStripsFinder(const Show& show, const Subject& subject, QString& why) {
  std::vector<Subject> strips;
  std::map<FixtureId, int> uses;
  const Controller& controller = *subject.controller;
  for (const Port& port : controller.ports)
    for (const Bead& bead : port.run) ++uses[bead.fixture];
  for (int p = 0; p < std::ssize(controller.ports); ++p)
    for (int b = 0; b < std::ssize(controller.ports[static_cast<std::size_t>(p)].run); ++b)
      if (const auto strip = subjectOf(show, {BenchTarget::Kind::Bead, controller.id, p, b});
          strip && uses[strip->bead.fixture] == 1)
        strips.push_back(*strip);
  if (strips.size() < 2) {
    why = tr("This finder needs two strips on a controller, each hung whole. Here is only one.");
    return nullptr;
  }
  return std::make_unique<Strips>(std::move(strips), text(controller.name));
}

}  // namespace chispa::desk
