// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/memorydialog.h"

#include <algorithm>
#include <chrono>

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QScrollArea>
#include <QToolButton>
#include <QTreeWidget>

#include "core/almanac/calendar.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/parts/workbar.h"
#include "desk/run/nightwords.h"
#include "desk/session/background.h"
#include "desk/takeaway/dialogparts.h"
#include "desk/takeaway/memorybar.h"
#include "desk/takeaway/memoryforms.h"
#include "desk/takeaway/memorypair.h"
#include "link/memorystore.h"

namespace chispa::desk {
namespace {

/// After the last change, so that a number that is typed is worked out once.
constexpr int kSoon_ms = 300;
/// Above this a loss is seen side by side.
constexpr double kSeenLoss = 2;
/// Of a start in the list: its scene and its place there.
constexpr int kScene = Qt::UserRole, kStart = Qt::UserRole + 1;

enum SceneColumn { Name, Length, Steps, Bytes, Loss };

}  // namespace

MemoryLimits MemoryDialog::unknownLimits() {
  constexpr int kMax = 1'000'000;
  return {200, kMax, kMax, kMax, kMax, 64, std::int64_t{1} << 30, 0, 0, 0, true};
}

QString MemoryDialog::writtenWords() {
  return tr("✓ Written and checked. Turn the light off here and it plays on its own.");
}

MemoryDialog::MemoryDialog(const Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      controllers_(new QComboBox),
      told_(new QLabel),
      scenes_(new QTreeWidget),
      add_(new QToolButton),
      starts_(new QListWidget),
      forms_(new QScrollArea),
      bytesWords_(new QLabel),
      bytesBar_(new MemoryBar),
      stepsWords_(new QLabel),
      stepsBar_(new MemoryBar),
      differences_(new QTreeWidget),
      glow_(new PairGlow(tr("from its memory"))),
      state_(new QLabel),
      progress_(new WorkBar),
      fit_(namedButton("memoryFit", tr("As near as it fits"),
                       tr("The least difference with which everything fits into the controller"))),
      play_(namedButton(
          "memoryPlay", tr("Play it there"),
          tr("Starts the selected scene from the controller's memory; turn the light off here to see it"))),
      putBack_(new QToolButton),
      write_(namedButton("memoryWrite", tr("Write"),
                         tr("Keeps what is there, sets its clock, writes, reads back and compares"))) {
  setObjectName(QStringLiteral("memoryDialog"));
  setWindowTitle(tr("Take away: into a controller"));
  auto* rows = new QVBoxLayout(this);
  auto* columns = new QHBoxLayout;
  columns->addLayout(makeScenes(), 6);
  columns->addSpacing(8);
  columns->addLayout(makeMiddle(), 5);
  columns->addSpacing(8);
  columns->addLayout(makeSizes(), 6);
  rows->addLayout(columns, 1);
  rows->addLayout(makeEnd());
  resize(1220, 700);
  soon_.setSingleShot(true);
  soon_.setInterval(kSoon_ms);
  connect(&soon_, &QTimer::timeout, this, &MemoryDialog::begin);
  connect(&session_.document, &Document::showChanged, this, &MemoryDialog::refresh);
  fillControllers();
  refresh();
  readController();
}

void MemoryDialog::fillControllers() {
  for (const auto& one : session_.show().controllers)
    if (isNetworked(one->protocol)) controllers_->addItem(text(one->name), one->id.value);
  connect(add_->menu(), &QMenu::aboutToShow, this, &MemoryDialog::fillAddMenu);
}

void MemoryDialog::fillAddMenu() {
  QMenu* menu = add_->menu();
  menu->clear();
  const auto add = [&](const QString& name, SceneId source) {
    menu->addAction(name, this, [this, source] {
      const Controller* own = controller();
      if (!own) return;
      const ControllerId id = own->id;
      session_.edit(tr("add a scene to a memory"), [&](Show& show) { addMemoryScene(show, id, source); });
      scenes_->setCurrentItem(scenes_->topLevelItem(scenes_->topLevelItemCount() - 1));
    });
  };
  for (const auto& score : session_.show().scores)
    add(tr("%1, %2").arg(text(score->name), timeText(score->length)), score->id);
  menu->addSeparator();
  for (const auto& look : session_.show().looks) add(text(look->name), look->id);
}

void MemoryDialog::fillPutBack() {
  QMenu* menu = putBack_->menu();
  menu->clear();
  const Controller* own = controller();
  if (!own) return;
  constexpr std::size_t kMaxShown = 12;
  const auto kept = link::MemoryStore::ofUser().keptOf(*own);
  for (std::size_t i = 0; i < std::min(kept.size(), kMaxShown); ++i)
    menu->addAction(
        tr("what it held on %1: %2 scenes").arg(text(kept[i].when)).arg(kept[i].content.scenes.size()), this,
        [this, content = kept[i].content] { write(content, false); });
  if (kept.empty()) menu->addAction(tr("Nothing was kept of it yet"))->setEnabled(false);
}

const Controller* MemoryDialog::controller() const {
  return chispa::find(session_.show().controllers, ControllerId{controllers_->currentData().toUInt()});
}

int MemoryDialog::currentScene() const {
  return scenes_->indexOfTopLevelItem(scenes_->currentItem());
}

std::optional<StartPlace> MemoryDialog::currentStart() const {
  const QListWidgetItem* row = starts_->currentItem();
  if (!row) return std::nullopt;
  return StartPlace{row->data(kScene).toInt(), row->data(kStart).toULongLong()};
}

void MemoryDialog::editMemory(const QString& name, const std::function<void(ControllerMemory&)>& change) {
  const Controller* own = controller();
  if (!own) return;
  const ControllerId id = own->id;
  session_.edit(name, [&](Show& show) { changeMemory(show, id, change); });
}

void MemoryDialog::addStart(int scene) {
  editMemory(scene < 0 ? tr("add a time for dark") : tr("add a time for a scene"),
             [&](ControllerMemory& memory) {
               auto* starts = startsOf(memory, scene);
               if (!starts) return;
               constexpr int kTen_min = 22 * 60;
               MemoryStart start;
               if (scene < 0) start.at = {NightTimeKind::Clock, kTen_min};
               starts->push_back(start);
             });
  // The new one is the last of its scene.
  int last = -1;
  for (int i = 0; i < starts_->count(); ++i)
    if (starts_->item(i)->data(kScene).toInt() == scene) last = i;
  starts_->setCurrentRow(last);
}

void MemoryDialog::removeScene() {
  const int scene = currentScene();
  const Controller* own = controller();
  if (scene < 0 || !own) return;
  const ControllerId id = own->id;
  session_.edit(tr("remove a scene from a memory"),
                [&](Show& show) { removeMemoryScene(show, id, static_cast<std::size_t>(scene)); });
}

void MemoryDialog::moveScene(int by) {
  const int scene = currentScene(), to = scene + by;
  const Controller* own = controller();
  if (scene < 0 || to < 0 || to >= scenes_->topLevelItemCount() || !own) return;
  const ControllerId id = own->id;
  session_.edit(tr("move a scene"), [&](Show& show) {
    moveMemoryScene(show, id, static_cast<std::size_t>(scene), static_cast<std::size_t>(to));
  });
  scenes_->setCurrentItem(scenes_->topLevelItem(to));
}

void MemoryDialog::removeStart() {
  const auto place = currentStart();
  if (!place) return;
  editMemory(tr("remove a time"), [&](ControllerMemory& memory) {
    auto* starts = startsOf(memory, place->scene);
    if (starts && place->start < starts->size())
      starts->erase(starts->begin() + static_cast<std::ptrdiff_t>(place->start));
  });
}

void MemoryDialog::takeAlmanac() {
  if (session_.show().rules.empty()) return say(tr("The almanac has no rules yet: make them in Run."), false);
  editMemory(tr("copy the almanac into a memory"),
             [this](ControllerMemory& memory) { memory = memoryOfAlmanac(session_.show(), memory); });
}

void MemoryDialog::refresh() {
  refreshLists();
  refreshForms();
  showState();
  progress_->leave();
  write_->setEnabled(false);
  soon_.start();
}

void MemoryDialog::refreshLists() {
  isFilling_ = true;
  const int scene = currentScene();
  const auto start = currentStart();
  scenes_->clear();
  starts_->clear();
  if (const Controller* own = controller()) {
    const ControllerMemory& memory = own->memory;
    for (std::size_t i = 0; i < memory.scenes.size(); ++i) {
      auto* row = new QTreeWidgetItem(scenes_, {memorySceneName(session_.show(), memory, i)});
      for (const int column : {Length, Steps, Bytes, Loss})
        row->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
    }
    for (int i = -1; i < static_cast<int>(memory.scenes.size()); ++i) {
      const auto& starts = *startsOf(memory, i);
      for (std::size_t k = 0; k < starts.size(); ++k) {
        const QString name =
            i < 0 ? tr("dark") : memorySceneName(session_.show(), memory, static_cast<std::size_t>(i));
        auto* row = new QListWidgetItem(tr("%1: %2").arg(name, startWords(starts[k])), starts_);
        row->setData(kScene, i);
        row->setData(kStart, static_cast<qulonglong>(k));
        if (start == StartPlace{i, k}) starts_->setCurrentItem(row);
      }
    }
    const int last = scenes_->topLevelItemCount() - 1;
    if (last >= 0) scenes_->setCurrentItem(scenes_->topLevelItem(std::clamp(scene, 0, last)));
  }
  isFilling_ = false;
}

void MemoryDialog::refreshForms() {
  const Controller* own = controller();
  const int scene = currentScene();
  const auto start = currentStart();
  // Made anew only if other rows are needed: who types into one goes on typing.
  QString key = QString::number(own ? own->id.value : 0);
  if (own && scene >= 0) {
    const MemoryScene& shown = own->memory.scenes[static_cast<std::size_t>(scene)];
    key += QStringLiteral("/s%1/%2/%3")
               .arg(scene)
               .arg(static_cast<int>(shown.kind))
               .arg(static_cast<int>(shown.then));
  }
  if (own && start) {
    const MemoryStart& shown = (*startsOf(own->memory, start->scene))[start->start];
    key += QStringLiteral("/t%1/%2/%3/%4")
               .arg(start->scene)
               .arg(start->start)
               .arg(shown.contact > 0)
               .arg(shown.at.kind == NightTimeKind::Clock);
  }
  for (int i = 0; own && i < scenes_->topLevelItemCount(); ++i) key += scenes_->topLevelItem(i)->text(Name);
  if (key == formsKey_) {
    for (Form* form : shownForms_) form->refresh();
    return;
  }
  formsKey_ = key;
  shownForms_.clear();
  auto* box = new QWidget;
  auto* rows = new QVBoxLayout(box);
  rows->setContentsMargins(0, 0, 6, 0);
  const auto add = [&](std::unique_ptr<Form> form) {
    form->refresh();
    shownForms_.push_back(form.get());
    rows->addWidget(form.release());
  };
  if (own) {
    add(makeMemoryForm(session_, own->id));
    if (scene >= 0) add(makeMemorySceneForm(session_, own->id, static_cast<std::size_t>(scene)));
    if (start) add(makeMemoryStartForm(session_, own->id, *start));
  }
  rows->addStretch();
  // The field that was just edited is still at work.
  if (QWidget* old = forms_->takeWidget()) old->deleteLater();
  forms_->setWidget(box);
}

void MemoryDialog::showFill() {
  write_->setEnabled(false);
  fit_->setEnabled(there_.has_value() && fill_);
  play_->setEnabled(there_.has_value());
  differences_->clear();
  const MemoryLimits limits = there_ ? there_->limits : unknownLimits();
  std::vector<MemoryBar::Stretch> bytes, steps;
  const QColor colours[] = {theme().fine, theme().ember, theme().quiet};
  std::int64_t stepCount = 0;
  for (std::size_t i = 0; fill_ && i < fill_->scenes.size(); ++i) {
    const SceneContent& scene = fill_->content.scenes[i];
    const FilledScene& filled = fill_->scenes[i];
    const QColor colour = colours[i % std::size(colours)];
    bytes.push_back({text(scene.name), colour, static_cast<double>(bytesOf(scene, limits))});
    steps.push_back({text(scene.name), colour, static_cast<double>(scene.steps.size())});
    stepCount += std::ssize(scene.steps);
    QTreeWidgetItem* row = scenes_->topLevelItem(static_cast<int>(i));
    if (!row) continue;
    row->setText(Length, tr("%1 s").arg(static_cast<double>(scene.length_ms()) / 1000, 0, 'f', 1));
    row->setText(Steps, QLocale().toString(static_cast<qulonglong>(scene.steps.size())));
    row->setText(Bytes, QLocale().toString(static_cast<qlonglong>(bytesOf(scene, limits))));
    row->setText(Loss, QString::number(filled.error.mean, 'f', 2));
    row->setToolTip(Loss, tr("%1 on the mean, %2 at the worst pixel and instant; below 1 it is hardly seen")
                              .arg(filled.error.mean, 0, 'f', 2)
                              .arg(filled.error.most, 0, 'f', 1));
    if (filled.error.mean > kSeenLoss) row->setForeground(Loss, theme().watch);
  }
  bytesBar_->show(bytes, there_ ? static_cast<double>(limits.bytes) : 1e9);
  stepsBar_->show(steps, there_ ? limits.steps : 1e9);
  const QLocale locale;
  bytesWords_->setText(
      !there_ || !fill_ ? QString()
                        : tr("%1 of %2 bytes")
                              .arg(locale.toString(static_cast<qlonglong>(bytesOf(fill_->content, limits))),
                                   locale.toString(static_cast<qlonglong>(limits.bytes))));
  stepsWords_->setText(!there_ || !fill_ ? QString()
                                         : tr("%1 of %2")
                                               .arg(locale.toString(static_cast<qlonglong>(stepCount)),
                                                    locale.toString(limits.steps)));
  if (!fill_ || !there_) return;
  const auto differences = differencesOf(there_->content, fill_->content);
  for (const MemoryDifference& one : differences) {
    auto* row = new QTreeWidgetItem(differences_, {text(one.what), text(one.there), text(one.wanted)});
    row->setToolTip(1, text(one.there));
    row->setToolTip(2, text(one.wanted));
  }
  const auto excesses = excessesOf(fill_->content, there_->limits);
  if (!excesses.empty()) {
    QStringList words;
    for (const std::string& excess : excesses) words += text(excess);
    return say(tr("It does not fit: %1.").arg(words.join(QStringLiteral("; "))), false);
  }
  write_->setEnabled(true);
  if (there_->isWhole && differences.empty() && there_->content == fill_->content)
    return say(wasWritten_ ? writtenWords() : tr("✓ the controller holds exactly this"), true);
  wasWritten_ = false;
  say(tr("✓ fits; not written yet"), true);
}

void MemoryDialog::showScene() {
  const int scene = currentScene();
  const Controller* own = controller();
  if (!fill_ || !own || scene < 0 || scene >= std::ssize(fill_->scenes)) return glow_->clear();
  const auto& all = show_->controllers;
  const auto at = std::find_if(all.begin(), all.end(), [&](const auto& c) { return c->id == own->id; });
  if (at == all.end()) return glow_->clear();
  const auto pair = std::make_shared<MemoryPair>(show_, compiled_, fill_, static_cast<std::size_t>(scene),
                                                 static_cast<int>(at - all.begin()));
  auto pixels = pair->pixels();
  PixelMap map = partOfMap(*compiled_->map, pixels);
  glow_->show(std::move(map), [pair, pixels](std::int64_t n, PixelFrame& composed, PixelFrame& shown) {
    pair->fill(n, pixels, composed, shown);
  });
}

void MemoryDialog::say(const QString& words, bool isFine) {
  sayState(state_, words, isFine);
}

}  // namespace chispa::desk
