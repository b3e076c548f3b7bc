// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/silentscoredialog.h"

#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>

#include "core/edit/scoreedits.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/nameditems.h"

namespace chispa::desk {
namespace {

class SilentScoreDialog : public QDialog {
 public:
  SilentScoreDialog(const Show& show, QWidget* parent) : QDialog(parent), scores_(show.scores) {
    setObjectName(QStringLiteral("silentScoreDialog"));
    setWindowTitle(tr("New silent score"));
    auto* rows = new QFormLayout(this);
    named(name_, "silentName", tr("Name"), tr("What the score is called"));
    named(tempo_, "silentTempo", tr("Tempo"), tr("Beats per minute"));
    named(beats_, "silentBeats", tr("Beats per bar"), tr("3 for a waltz, 4 for most else"));
    named(bars_, "silentBars", tr("Bars"), tr("How many bars it is long"));
    tempo_->setRange(20, 400);
    tempo_->setDecimals(1);
    tempo_->setValue(wish_.beatsPerMinute);
    beats_->setRange(1, 16);
    beats_->setValue(wish_.beatsPerBar);
    bars_->setRange(1, 2'000);
    bars_->setValue(wish_.bars);
    name_->setText(tr("Silent score"));
    rows->addRow(tr("Name"), name_);
    rows->addRow(tr("Tempo"), tempo_);
    rows->addRow(tr("Beats per bar"), beats_);
    rows->addRow(tr("Bars"), bars_);
    if (!scores_.ids.empty()) {
      named(like_, "silentLike", tr("Light"),
            tr("It begins empty, or with the light of another score, bar by bar"));
      like_->addItem(tr("none yet"));
      for (const QString& name : scores_.names) like_->addItem(tr("as in “%1”").arg(name));
      rows->addRow(tr("Light"), like_);
    }
    rows->addRow(length_);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    rows->addRow(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    connect(tempo_, &QDoubleSpinBox::valueChanged, this, [this] { showLength(); });
    for (const QSpinBox* box : {beats_, bars_})
      connect(box, &QSpinBox::valueChanged, this, [this] { showLength(); });
    showLength();
  }

  SilentScoreWish wish() const {
    return {name_->text().trimmed().isEmpty() ? tr("Silent score") : name_->text().trimmed(), tempo_->value(),
            beats_->value(), bars_->value(),
            like_->currentIndex() > 0 ? scores_.idAt(like_->currentIndex() - 1) : ScoreId{}};
  }

 private:
  void showLength() {
    const SilentScoreWish now = wish();
    length_->setText(
        tr("That lasts %1.").arg(timeText(silentLength(now.beatsPerMinute, now.beatsPerBar, now.bars))));
  }

  SilentScoreWish wish_;
  NamedItems<Score> scores_;
  QLineEdit* name_ = new QLineEdit;
  QDoubleSpinBox* tempo_ = new QDoubleSpinBox;
  QSpinBox* beats_ = new QSpinBox;
  QSpinBox* bars_ = new QSpinBox;
  QComboBox* like_ = new QComboBox(this);
  QLabel* length_ = new QLabel;
};

}  // namespace

std::optional<SilentScoreWish> askSilentScore(const Show& show, QWidget* parent) {
  SilentScoreDialog dialog(show, parent);
  if (dialog.exec() != QDialog::Accepted) return std::nullopt;
  return dialog.wish();
}

}  // namespace chispa::desk
