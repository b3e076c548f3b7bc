// SPDX-License-Identifier: GPL-3.0-or-later
// What MemoryDialog makes, reads and writes in the background.
#include <chrono>

#include "core/almanac/calendar.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/workbar.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "desk/takeaway/dialogparts.h"
#include "desk/takeaway/memorybar.h"
#include "desk/takeaway/memorydialog.h"
#include "desk/takeaway/memorypair.h"
#include "link/memorystore.h"

namespace chispa::desk {

Progress MemoryDialog::beginWork(const QString& words) {
  ++serial_;
  say(words, true);
  return progress_->begin();
}

void MemoryDialog::begin() {
  progress_->end();
  fill_.reset();
  const Controller* own = controller();
  if (!own || own->memory.scenes.empty()) {
    showFill();
    return say(own ? tr("Add scores and looks: they become steps that it plays on its own.")
                   : tr("There is no controller on the network: make one in Wire."),
               own != nullptr);
  }
  if (!session_.stage.isUpToDate()) return soon_.start();
  show_ = std::make_shared<const Show>(session_.show());
  compiled_ = session_.stage.compiled();
  const Progress progress = beginWork(tr("Turning light into steps …"));
  const MemoryLimits limits = there_ ? there_->limits : unknownLimits();
  runThen(
      pools::exporting(), this,
      [show = show_, compiled = compiled_, id = own->id, limits, progress, memory = own->memory] {
        return std::make_shared<Result<MemoryFill>>(
            fillMemory(*show, *compiled, id, memory, limits, progress));
      },
      [this, serial = serial_](const std::shared_ptr<Result<MemoryFill>>& made) {
        if (serial != serial_ || !progress_->isAtWork()) return;
        progress_->end();
        if (*made)
          fill_ = std::make_shared<const MemoryFill>(*std::move(*made));
        else
          say(said(made->failure()), false);
        showFill();
        showScene();
      });
}

void MemoryDialog::fit() {
  const Controller* own = controller();
  if (!own || !there_) return say(tr("The controller has not said yet what it holds."), false);
  if (!session_.stage.isUpToDate() || !show_) return;
  const Progress progress = beginWork(tr("Looking for the nearest light that fits …"));
  runThen(
      pools::exporting(), this,
      [show = show_, compiled = compiled_, id = own->id, progress, limits = there_->limits,
       memory = own->memory] {
        return std::make_shared<Result<FittingFill>>(
            fitMemory(*show, *compiled, id, memory, limits, progress));
      },
      [this, serial = serial_](const std::shared_ptr<Result<FittingFill>>& made) {
        if (serial != serial_ || !progress_->isAtWork()) return;
        progress_->end();
        if (!*made) return say(said(made->failure()), false);
        editMemory(tr("how far steps may differ"),
                   [&](ControllerMemory& memory) { memory.tolerance = (*made)->tolerance; });
      });
}

void MemoryDialog::showState() {
  if (!there_) {
    told_->setText(tr("It has not answered yet."));
    return;
  }
  const MemoryLimits& limits = there_->limits;
  QString words = tr("Holds %1 scenes, %2 steps, %3 channels a scene, %4 starts, %5 contacts.")
                      .arg(limits.scenes)
                      .arg(limits.steps)
                      .arg(limits.channels)
                      .arg(limits.starts)
                      .arg(limits.contacts);
  words += QLatin1Char(' ') + (there_->isClockSet
                                   ? tr("Its clock shows %1.").arg(text(there_->clock))
                                   : tr("Its clock was never set: nothing begins by time until it is."));
  if (!there_->isWhole) words += QLatin1Char(' ') + tr("It holds nothing whole: writing broke off.");
  if (there_->playing > 0) words += QLatin1Char(' ') + tr("It plays scene %1.").arg(there_->playing);
  told_->setText(words);
}

void MemoryDialog::readController() {
  const Controller* own = controller();
  if (!own) return;
  wasWritten_ = false;
  told_->setText(tr("Asking …"));
  runThen(
      pools::network(), this,
      [asked = *own] { return std::make_shared<Result<MemoryState>>(link::readMemory(asked)); },
      [this, id = own->id](const std::shared_ptr<Result<MemoryState>>& answer) {
        const Controller* now = controller();
        if (!now || now->id != id) return;
        if (*answer) {
          there_ = *std::move(*answer);
          showState();
          // Its limits decide how light becomes steps.
          progress_->leave();
          return soon_.start();
        }
        there_.reset();
        told_->setText(said(answer->failure()).replace(QLatin1Char('\n'), QLatin1Char(' ')));
        showFill();
      });
}

void MemoryDialog::write(const MemoryContent& content, bool isShows) {
  const Controller* own = controller();
  if (!own) return;
  beginWork(tr("Writing …"));
  write_->setEnabled(false);
  runThen(
      pools::network(), this,
      [to = *own, content] {
        const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
        if (const Outcome set = link::setClock(to, now); !set)
          return std::make_shared<Result<link::MemoryReport>>(set.failure());
        return std::make_shared<Result<link::MemoryReport>>(link::writeMemory(
            to, content,
            [&](const MemoryContent& before) { return link::MemoryStore::ofUser().keep(to, before); }));
      },
      [this, id = own->id, isShows](const std::shared_ptr<Result<link::MemoryReport>>& done) {
        progress_->end();
        const Controller* now = controller();
        if (!now || now->id != id) return;
        if (!*done) {
          showFill();
          return say(said(done->failure()), false);
        }
        const link::MemoryReport& report = **done;
        there_ = report.now;
        wasWritten_ = report.isVerified();
        showState();
        showFill();
        if (!report.isVerified()) {
          const QString why = report.trouble.empty()
                                  ? tr("What was read back differs: %1.").arg(text(report.left.front().what))
                                  : text(report.trouble);
          return say(tr("%1 Write it again, or put back what it held.").arg(why), false);
        }
        // What was put back is not what the show wants.
        if (!isShows) return say(writtenWords(), true);
        const auto when = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
        const std::string stamp = rfc3339(when, TimeZone::utc()).substr(0, 19) + "Z";
        session_.document.complete(tr("write a controller's memory"), [id, stamp](Show& show) {
          changeMemory(show, id, [&](ControllerMemory& memory) { memory.written = stamp; });
        });
      });
}

void MemoryDialog::play() {
  const Controller* own = controller();
  if (!own || !there_) return;
  const int scene = currentScene() + 1;
  runThen(
      pools::network(), this,
      [to = *own, scene] { return std::make_shared<Outcome>(link::playFromMemory(to, scene)); },
      [this, scene](const std::shared_ptr<Outcome>& done) {
        if (!*done) return say(said(done->failure()), false);
        say(tr("✓ scene %1 plays from its memory; while light is on here, it shows that instead").arg(scene),
            true);
        readController();
      });
}

}  // namespace chispa::desk
