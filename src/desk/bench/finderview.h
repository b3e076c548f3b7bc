// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>
#include <memory>

#include "desk/bench/finder.h"

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace chispa::desk {

/// The dialogue of a finder: a question in large words, an answer by a key or a click, what is still possible. Backspace takes
/// an answer back, Return accepts what was found, Escape leaves; nothing changes until it is accepted.
class FinderView : public QWidget {
  Q_OBJECT
 public:
  explicit FinderView(const Session& session, QWidget* parent = nullptr);

  /// Begins, or goes on where it was left; null shows why there is none.
  void begin(std::shared_ptr<Finder> finder, const QString& place);

 signals:
  /// The maker has left it, or accepted what was found.
  void left();

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void ask();
  void answer(int seen);
  void accept();
  void leave();
  void showAnswers(const std::vector<FinderAnswer>& answers);

  Session session_;
  std::shared_ptr<Finder> finder_;
  QString place_;
  QLabel* head_;
  QLabel* words_;
  QLabel* look_;
  QHBoxLayout* answers_;
  QLabel* left_;
  QPushButton* accept_;
};

}  // namespace chispa::desk
