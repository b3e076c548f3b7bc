// SPDX-License-Identifier: GPL-3.0-or-later
// What BoardDialog makes in the background, and writes.
#include <QLabel>

#include "core/board/files.h"
#include "core/board/player.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/parts/workbar.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "desk/takeaway/boarddialog.h"
#include "desk/takeaway/dialogparts.h"
#include "desk/takeaway/memorybar.h"
#include "desk/takeaway/pairglow.h"

namespace chispa::desk {
namespace {

QString bytesText(std::size_t bytes) {
  return bytes < 10'000 ? QObject::tr("%L1 bytes").arg(bytes)
                        : QObject::tr("%1 KB").arg(static_cast<double>(bytes) / 1024, 0, 'f', 1);
}

}  // namespace

void BoardDialog::begin() {
  progress_->leave();
  made_ = plan();
  show_ = std::make_shared<const Show>(session_.show());
  compiled_ = session_.stage.compiled();
  if (!session_.stage.isUpToDate()) return soon_.start();
  say(tr("Working it out …"), true);
  const Progress progress = progress_->begin();
  const std::uint64_t serial = ++serial_;
  // First what it takes; then, which takes longer, what would make it smaller.
  runThen(
      pools::exporting(), this,
      [show = show_, compiled = compiled_, plan = made_, progress] {
        return std::make_shared<Made>(Made{board::writeBoard(*show, *compiled, plan, progress), {}});
      },
      [this, serial, progress](const std::shared_ptr<Made>& made) {
        end(*made, serial);
        if (serial != serial_ || !made->light) return;
        runThen(
            pools::exporting(), this,
            [show = show_, compiled = compiled_, plan = made_, light = light_, progress] {
              return board::savingsOf(*show, *compiled, plan, *light, progress);
            },
            [this, serial](const std::vector<board::BoardSaving>& savings) {
              if (serial != serial_) return;
              progress_->end();
              showSavings(savings);
            });
      });
}

void BoardDialog::end(const Made& made, std::uint64_t serial) {
  if (serial != serial_ || !progress_->isAtWork()) return;
  savings_->clear();
  if (!made.light) {
    progress_->end();
    light_.reset();
    say(said(made.light.failure()), false);
    glow_->clear();
    return showLight();
  }
  light_ = std::make_shared<const board::BoardLight>(*made.light);
  showLight();
  showScene();
}

void BoardDialog::showLight() {
  write_->setEnabled(false);
  isFilling_ = true;
  std::size_t number = 0;
  for (int i = 0; i < scenes_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* row = scenes_->topLevelItem(i);
    const bool isIn = light_ && row->checkState(SceneName) == Qt::Checked && number < light_->scenes.size();
    row->setText(KeptAs, {});
    row->setText(SceneBytes, {});
    if (!isIn) continue;
    const board::BoardSceneReport& scene = light_->scenes[number++];
    row->setText(KeptAs, scene.isProgram ? tr("program") : tr("frames"));
    row->setText(SceneBytes, QLocale().toString(static_cast<qulonglong>(scene.bytes)));
    QStringList parts;
    for (const auto& part : scene.parts)
      parts += tr("%1 on %2: %3, %4")
                   .arg(text(part.effects), text(part.zone),
                        part.isProgram ? tr("program") : tr("frames, as %1").arg(text(part.reason)),
                        bytesText(part.bytes));
    row->setToolTip(KeptAs, parts.join('\n'));
  }
  isFilling_ = false;
  if (!light_) {
    for (QLabel* label : {flashWords_, flashParts_, ramWords_, speed_}) label->clear();
    flashBar_->show({}, 1);
    ramBar_->show({}, 1);
    return;
  }
  const board::BoardKind board = kind();
  const board::BoardUse use = board::useOf(*light_, board);
  flashWords_->setText(tr("%1 of %2").arg(bytesText(use.flash()), bytesText(board.flash)));
  flashBar_->show({{tr("player"), theme().quiet, static_cast<double>(use.player)},
                   {tr("programs"), theme().fine, static_cast<double>(use.programs)},
                   {tr("frames"), theme().ember, static_cast<double>(use.frames)},
                   {tr("lists"), theme().line, static_cast<double>(use.rest)}},
                  static_cast<double>(board.flash));
  flashParts_->setText(tr("player %1 · programs %2 · frames %3")
                           .arg(bytesText(use.player), bytesText(use.programs), bytesText(use.frames)));
  ramWords_->setText(tr("%1 of %2").arg(bytesText(use.ram), bytesText(board.ram)));
  ramBar_->show({{tr("taken"), theme().quiet, static_cast<double>(use.ram)}}, static_cast<double>(board.ram));
  speed_->setText(tr("about %1 frames per second, %2 needed")
                      .arg(static_cast<int>(use.fastest))
                      .arg(light_->options.framesPerSecond));
  const auto lacks = board::lacksOf(*light_, board);
  QStringList words;
  for (const std::string& lack : lacks) words += text(lack);
  if (lacks.empty())
    say(tr("✓ fits, with %1 to spare").arg(bytesText(board.flash - use.flash())), true);
  else
    say(tr("It does not fit. %1").arg(words.join(' ')), false);
  write_->setEnabled(lacks.empty() && !soon_.isActive());
}

void BoardDialog::showSavings(const std::vector<board::BoardSaving>& savings) {
  savings_->clear();
  for (const board::BoardSaving& saving : savings) {
    auto* row = new QTreeWidgetItem(savings_, {text(saving.what), tr("− %1").arg(bytesText(saving.saved)),
                                               QString::number(saving.loss, 'f', 1)});
    if (saving.loss > board::kSeenLoss) {
      row->setText(SavingLoss, tr("%1, seen").arg(saving.loss, 0, 'f', 1));
      row->setForeground(SavingLoss, theme().watch);
    }
    row->setTextAlignment(Saves, Qt::AlignRight | Qt::AlignVCenter);
    row->setData(What, Qt::UserRole,
                 QVariantList{saving.options.framesPerSecond, saving.options.maxColours,
                              saving.options.pixelsPerValue, saving.options.lookSeconds});
  }
}

void BoardDialog::takeSaving() {
  const QTreeWidgetItem* row = savings_->currentItem();
  if (!row) return;
  const QVariantList options = row->data(What, Qt::UserRole).toList();
  rate_->setValue(options[0].toInt());
  colours_->setValue(options[1].toInt());
  group_->setValue(options[2].toInt());
  loop_->setValue(options[3].toDouble());
}

void BoardDialog::writeTo(const QString& folder) {
  if (!light_) return;
  const auto written =
      board::writeBoardFiles(board::boardFiles(*light_, kind(), session_.show().name), folder.toStdString());
  if (!written) return say(said(written.failure()), false);
  say(tr("✓ Written: light.h, player.h, player.c, an example and README.md in %1").arg(folder), true);
}

}  // namespace chispa::desk
