// SPDX-License-Identifier: GPL-3.0-or-later
// The Bench as a phone holds it: one question, big answers.
#include "desk/bench/benchpage.h"
#include "desk/bench/finderview.h"
#include "desk/bench/signalform.h"
#include "desk/bench/targetlist.h"

namespace chispa::desk {
namespace {

/// Those that are asked by plain answers.
constexpr FinderKind kByHand[] = {FinderKind::ColourOrder, FinderKind::Direction, FinderKind::Skipped,
                                  FinderKind::Count,       FinderKind::Grouping,  FinderKind::Matrix,
                                  FinderKind::Parts};

}  // namespace

BenchPage::HandQuestion BenchPage::handQuestion() const {
  HandQuestion hand;
  hand.target = targetName(workingShow(), target());
  const Finder* finder = finderView_->finder();
  if (!finder) {
    hand.question = tr("What is to be found?");
    hand.hint = session_.stage.isLit() ? QString() : tr("Light is OFF: switch it on first.");
    for (const FinderKind kind : kByHand)
      hand.answers.push_back({finderTitle(kind), {}, 0, static_cast<int>(kind)});
    return hand;
  }
  hand.canGoBack = true;
  hand.left = finder->leftTitle() + QLatin1Char(' ') + finder->left();
  const auto question = finder->question();
  if (question) {
    hand.question = question->words;
    hand.hint =
        session_.stage.isLit() ? question->look : tr("Light is OFF: switch it on first. ") + question->look;
    for (const FinderAnswer& answer : question->answers)
      hand.answers.push_back(
          {answer.words.isEmpty() ? answer.letter : answer.words, answer.colour, answer.seen});
    return hand;
  }
  if (finder->isContradicted()) {
    hand.question = tr("These answers contradict each other.");
    hand.hint = tr("One of them was wrong: go back.");
    return hand;
  }
  const QString difference = finder->difference(workingShow());
  hand.question = difference.isEmpty() ? tr("It is as the show says: %1.").arg(finder->left()) : difference;
  hand.answers.push_back({difference.isEmpty() ? tr("Done") : tr("Apply to the show")});
  return hand;
}

void BenchPage::answerByHand(int seen) {
  const Finder* finder = finderView_->finder();
  if (!finder) return;
  finder->question() ? finderView_->answer(seen) : finderView_->accept();
}

void BenchPage::goBackByHand() {
  const Finder* finder = finderView_->finder();
  if (!finder) return;
  finder->answers() > 0 ? finderView_->takeBack() : finderView_->leave();
}

void BenchPage::stepPort(int by) {
  std::vector<PortChoice> ports;
  for (const auto& controller : session_.show().controllers)
    for (int port = 0; port < std::ssize(controller->ports); ++port) ports.push_back({controller->id, port});
  if (ports.empty()) return;
  const auto at = std::find(ports.begin(), ports.end(), target().portChoice());
  const auto count = static_cast<std::ptrdiff_t>(ports.size());
  const std::ptrdiff_t place = at == ports.end() ? 0 : ((at - ports.begin() + by) % count + count) % count;
  choosePort(ports[static_cast<std::size_t>(place)]);
}

void BenchPage::walkByHand(int by) {
  if (finderView_->finder()) finderView_->leave();
  setSending(true);
  step(by);
}

void BenchPage::locateByHand() {
  isLocating_ = !isLocating_;
  engine::Highlight highlight{engine::Highlight::Kind::Blink, {}};
  const auto compiled = session_.stage.compiled();
  const Controller* controller = chispa::find(session_.show().controllers, target().controller);
  if (isLocating_ && compiled && controller)
    highlight.pixels =
        engine::wiredPixels(session_.show(), compiled->map->ranges, *controller, target().port);
  session_.stage.setHighlight(std::move(highlight));
}

}  // namespace chispa::desk
