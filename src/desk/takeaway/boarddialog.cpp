// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/boarddialog.h"

#include <algorithm>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QTreeWidget>

#include "core/board/player.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/parts/workbar.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "desk/takeaway/dialogparts.h"
#include "desk/takeaway/memorybar.h"
#include "desk/takeaway/pairglow.h"

namespace chispa::desk {
namespace {

/// After the last change, so that a number that is typed is worked out once.
constexpr int kSettle_ms = 250;
/// Which score or look a row is, and which fixture or zone.
constexpr int kIsScore = Qt::UserRole, kId = Qt::UserRole + 1, kIsZone = Qt::UserRole + 2;

/// A scene as it was composed, and as a board plays it.
class BoardPair {
 public:
  BoardPair(std::shared_ptr<const Show> show, std::shared_ptr<const CompiledShow> compiled,
            std::shared_ptr<const board::BoardLight> light, board::BoardStrip strip, SceneId id,
            std::size_t number)
      : show_(std::move(show)),
        compiled_(std::move(compiled)),
        light_(std::move(light)),
        strip_(std::move(strip)),
        scene_(*show_, *compiled_, id),
        player_(light_->data),
        number_(static_cast<int>(number)) {
    player_.begin(number_);
  }

  void fill(std::int64_t n, PixelFrame& composed, PixelFrame& shown) {
    const int rate = light_->options.framesPerSecond;
    auto frame = (n - began_) * rate / PairGlow::kPicturesPerSecond;
    auto bytes = player_.frame(static_cast<std::uint32_t>(frame));
    if (bytes.empty()) {
      // It is over, and begins again.
      began_ = n;
      frame = 0;
      player_.begin(number_);
      bytes = player_.frame(0);
    }
    scene_.render(Micros(frame * 1'000'000 / rate), full_);
    const auto& pixels = strip_.pixels();
    const auto channels = static_cast<std::size_t>(strip_.channels());
    for (std::size_t i = 0; i < pixels.size(); ++i) {
      setLight(composed, i, lightOfPixel(full_, pixels[i]));
      setLight(shown, i,
               strip_.lightOf(&bytes[i / static_cast<std::size_t>(strip_.pixelsPerValue()) * channels]));
    }
  }

 private:
  std::shared_ptr<const Show> show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<const board::BoardLight> light_;
  board::BoardStrip strip_;
  board::BoardScene scene_;
  board::BoardPlayer player_;
  int number_;
  std::int64_t began_ = 0;
  PixelFrame full_;
};

}  // namespace

BoardDialog::BoardDialog(const Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      scenes_(new QTreeWidget),
      runs_(new QListWidget),
      board_(new QComboBox),
      flash_(new QSpinBox),
      ram_(new QSpinBox),
      rate_(new QSpinBox),
      colours_(new QSpinBox),
      group_(new QSpinBox),
      loop_(new QDoubleSpinBox),
      each_(new QDoubleSpinBox),
      flashWords_(new QLabel),
      flashBar_(new MemoryBar),
      flashParts_(new QLabel),
      ramWords_(new QLabel),
      ramBar_(new MemoryBar),
      speed_(new QLabel),
      savings_(new QTreeWidget),
      take_(new QPushButton(tr("Apply"))),
      glow_(new PairGlow(tr("on the board"))),
      state_(new QLabel),
      progress_(new WorkBar),
      write_(new QPushButton(tr("Write…"))) {
  setObjectName(QStringLiteral("boardDialog"));
  setWindowTitle(tr("Take away: for a board"));
  makeColumns();
  fillScenes();
  fillRuns();
  soon_.setSingleShot(true);
  soon_.setInterval(kSettle_ms);
  connect(&soon_, &QTimer::timeout, this, &BoardDialog::begin);
  connect(scenes_, &QTreeWidget::itemChanged, this, &BoardDialog::changed);
  connect(scenes_, &QTreeWidget::currentItemChanged, this, &BoardDialog::showScene);
  connect(runs_, &QListWidget::itemChanged, this, &BoardDialog::changed);
  connect(runs_->model(), &QAbstractItemModel::rowsMoved, this, &BoardDialog::changed);
  for (QSpinBox* box : {rate_, colours_, group_})
    connect(box, &QSpinBox::valueChanged, this, &BoardDialog::changed);
  for (QDoubleSpinBox* box : {loop_, each_})
    connect(box, &QDoubleSpinBox::valueChanged, this, &BoardDialog::changed);
  connect(board_, &QComboBox::currentIndexChanged, this, [this](int row) {
    const bool isOwn = row >= static_cast<int>(board::boardKinds().size());
    flash_->setEnabled(isOwn);
    ram_->setEnabled(isOwn);
    if (!isOwn) {
      const auto& chosen = board::boardKinds()[static_cast<std::size_t>(row)];
      flash_->setValue(static_cast<int>(chosen.flash));
      ram_->setValue(static_cast<int>(chosen.ram));
    }
    showLight();
  });
  for (QSpinBox* box : {flash_, ram_}) connect(box, &QSpinBox::valueChanged, this, &BoardDialog::showLight);
  // What is edited meanwhile counts; rows of what is gone are left out when it is worked out.
  connect(&session_.document, &Document::showChanged, this, &BoardDialog::changed);
  board_->setCurrentIndex(1);
  changed();
}

void BoardDialog::makeColumns() {
  auto* rows = new QVBoxLayout(this);
  auto* columns = new QHBoxLayout;
  columns->addLayout(makeScenes(), 2);
  columns->addSpacing(8);
  columns->addLayout(makeSizes(), 3);
  rows->addLayout(columns, 1);
  auto* last = new QHBoxLayout;
  state_->setObjectName(QStringLiteral("boardState"));
  state_->setWordWrap(true);
  last->addWidget(state_, 1);
  progress_->setMaximumWidth(textWidth(18));
  named(progress_, "boardProgress", tr("Progress"), tr("How much is worked out"));
  last->addWidget(progress_);
  auto* close = new QPushButton(tr("Close"));
  named(close, "boardClose", tr("Close"), tr("Closes this; nothing is written"));
  connect(close, &QPushButton::clicked, this, &QDialog::close);
  last->addWidget(close);
  named(write_, "boardWrite", tr("Write"),
        tr("Writes light.h, player.h, player.c, an example and README.md into a folder"));
  write_->setDefault(true);
  connect(write_, &QPushButton::clicked, this, [this] {
    const QString folder = QFileDialog::getExistingDirectory(this, tr("Folder for the board's files"));
    if (!folder.isEmpty()) writeTo(folder);
  });
  last->addWidget(write_);
  rows->addLayout(last);
  resize(1040, 680);
}

QVBoxLayout* BoardDialog::makeScenes() {
  auto* rows = new QVBoxLayout;
  named(scenes_, "boardScenes", tr("Scenes"),
        tr("What the board plays: tick scores and looks; the button steps through them in this order"));
  asTable(scenes_, {tr("Scene"), tr("Kept as"), tr("Bytes")});
  rows->addWidget(scenes_, 3);
  rows->addWidget(quietHeading(tr("On its data line, in this order (nothing ticked: all that is lit)")));
  named(runs_, "boardRuns", tr("On the data line"),
        tr("The zones and fixtures that hang on the board; drag them into the order of the data line"));
  runs_->setDragDropMode(QAbstractItemView::InternalMove);
  rows->addWidget(runs_, 2);
  rows->addWidget(quietHeading(tr("Board")));
  for (const auto& kind : board::boardKinds()) board_->addItem(text(kind.name));
  board_->addItem(tr("another, with sizes of its own"));
  named(board_, "boardKind", tr("Board"), tr("What it is written for: its memory and its speed"));
  rows->addWidget(board_);
  auto* own = new QHBoxLayout;
  const auto size = [&](QSpinBox* box, const char* name, const QString& words, int low,
                        const QString& suffix) {
    box->setRange(low, 1 << 30);
    box->setSingleStep(1024);
    box->setSuffix(suffix);
    box->setGroupSeparatorShown(true);
    box->setEnabled(false);
    named(box, name, words, words);
    own->addWidget(box);
  };
  size(flash_, "boardFlash", tr("Bytes of flash"), 1024, tr(" bytes of flash"));
  size(ram_, "boardRam", tr("Bytes of RAM"), 64, tr(" of RAM"));
  rows->addLayout(own);
  const QString taken = tr("How much of it is taken");
  addBar(rows, tr("Flash"), flashWords_, flashBar_, "boardFlashBar", taken);
  flashParts_->setObjectName(QStringLiteral("quiet"));
  rows->addWidget(flashParts_);
  addBar(rows, tr("RAM"), ramWords_, ramBar_, "boardRamBar", taken);
  auto* line = new QHBoxLayout;
  line->addWidget(new QLabel(tr("Speed")));
  line->addStretch();
  line->addWidget(speed_);
  rows->addLayout(line);
  return rows;
}

QVBoxLayout* BoardDialog::makeSizes() {
  auto* rows = new QVBoxLayout;
  auto* form = new QFormLayout;
  const auto number = [&](QSpinBox* box, const char* name, const QString& label, const QString& tip, int low,
                          int high, int value) {
    box->setRange(low, high);
    box->setValue(value);
    named(box, name, label, tip);
    form->addRow(label, box);
  };
  number(rate_, "boardRate", tr("Frames per second"), tr("How often the light changes"), 1, 120, 40);
  number(colours_, "boardColours", tr("Colours"), tr("Most colours of what is kept as frames; 0 for all"), 0,
         256, 0);
  colours_->setSpecialValueText(tr("all"));
  number(group_, "boardGroup", tr("Pixels per value"), tr("Neighbours that show the same"), 1, 64, 1);
  loop_->setRange(1, 600);
  loop_->setValue(20);
  loop_->setDecimals(0);
  loop_->setSuffix(tr(" s"));
  named(loop_, "boardLoop", tr("Looks repeat after"), tr("Only of looks that have to be kept as frames"));
  form->addRow(tr("Looks repeat after"), loop_);
  each_->setRange(0, 86'400);
  each_->setDecimals(0);
  each_->setSuffix(tr(" s"));
  each_->setSpecialValueText(tr("until the button is pressed"));
  named(each_, "boardEach", tr("Scene length"),
        tr("Then the next one begins; 0: the button steps through them"));
  form->addRow(tr("Scene length"), each_);
  rows->addLayout(form);
  rows->addWidget(quietHeading(tr("What makes it smaller, and what it costs")));
  named(savings_, "boardSavings", tr("What makes it smaller"),
        tr("Each change, what it saves, and how far the light is from the full light then; ΔE below 1 is "
           "hardly seen"));
  asTable(savings_, {tr("Change"), tr("Saves"), tr("ΔE")});
  connect(savings_, &QTreeWidget::itemActivated, this, &BoardDialog::takeSaving);
  connect(savings_, &QTreeWidget::currentItemChanged, this,
          [this] { take_->setEnabled(savings_->currentItem() != nullptr); });
  rows->addWidget(savings_, 2);
  named(take_, "boardTake", tr("Apply"), tr("Takes the change that is selected"));
  take_->setEnabled(false);
  connect(take_, &QPushButton::clicked, this, &BoardDialog::takeSaving);
  auto* line = new QHBoxLayout;
  line->addStretch();
  line->addWidget(take_);
  rows->addLayout(line);
  named(glow_, "boardGlow", tr("The light, composed and on the board"),
        tr("The selected scene, side by side and in step"));
  rows->addWidget(glow_, 3);
  return rows;
}

void BoardDialog::fillScenes() {
  const auto add = [this](const QString& name, bool isScore, std::uint32_t id, bool isOn) {
    auto* row = new QTreeWidgetItem(scenes_, {name});
    row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    row->setCheckState(SceneName, isOn ? Qt::Checked : Qt::Unchecked);
    row->setData(SceneName, kIsScore, isScore);
    row->setData(SceneName, kId, id);
    row->setTextAlignment(SceneBytes, Qt::AlignRight | Qt::AlignVCenter);
  };
  const Score* open = session_.stage.score();
  for (const auto& score : session_.show().scores)
    add(tr("%1, %2").arg(text(score->name), timeText(score->length)), true, score->id.value,
        open && open->id == score->id);
  for (const auto& look : session_.show().looks) add(text(look->name), false, look->id.value, false);
  if (scenes_->topLevelItemCount() > 0) scenes_->setCurrentItem(scenes_->topLevelItem(0));
}

void BoardDialog::fillRuns() {
  const auto add = [this](const QString& name, bool isZone, std::uint32_t id, bool isOn) {
    auto* row = new QListWidgetItem(name, runs_);
    row->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable | Qt::ItemIsDragEnabled);
    row->setCheckState(isOn ? Qt::Checked : Qt::Unchecked);
    row->setData(kIsZone, isZone);
    row->setData(kId, id);
  };
  // Not all of a show hangs on one data line: it begins with the first zone that can.
  const PixelMap map = mapPixels(session_.show());
  const auto& zones = session_.show().zones;
  const auto first = std::find_if(zones.begin(), zones.end(), [&](const auto& zone) {
    return static_cast<bool>(board::BoardStrip::of(session_.show(), map, {board::BoardRun(zone->id)}, 1));
  });
  for (const auto& zone : session_.show().zones)
    add(tr("%1 (zone)").arg(text(zone->name)), true, zone->id.value, first != zones.end() && zone == *first);
  for (const auto& fixture : session_.show().fixtures)
    add(text(fixture->name), false, fixture->id.value, false);
}

board::BoardPlan BoardDialog::plan() const {
  board::BoardPlan plan;
  for (int i = 0; i < scenes_->topLevelItemCount(); ++i) {
    const QTreeWidgetItem* row = scenes_->topLevelItem(i);
    if (row->checkState(SceneName) != Qt::Checked) continue;
    const std::uint32_t id = row->data(SceneName, kId).toUInt();
    plan.scenes.push_back(
        {row->data(SceneName, kIsScore).toBool() ? SceneId(ScoreId{id}) : SceneId(LookId{id}),
         each_->value()});
  }
  for (int i = 0; i < runs_->count(); ++i) {
    const QListWidgetItem* row = runs_->item(i);
    if (row->checkState() != Qt::Checked) continue;
    const std::uint32_t id = row->data(kId).toUInt();
    plan.runs.push_back(row->data(kIsZone).toBool() ? board::BoardRun(ZoneId{id})
                                                    : board::BoardRun(FixtureId{id}));
  }
  if (plan.runs.empty()) plan.runs = board::litRuns(session_.show(), plan.scenes);
  plan.options = {rate_->value(), colours_->value(), group_->value(), loop_->value()};
  return plan;
}

board::BoardKind BoardDialog::kind() const {
  const auto row = static_cast<std::size_t>(board_->currentIndex());
  if (row < board::boardKinds().size()) return board::boardKinds()[row];
  return board::boardOf(static_cast<std::size_t>(flash_->value()), static_cast<std::size_t>(ram_->value()));
}

void BoardDialog::changed() {
  if (isFilling_) return;
  progress_->leave();
  write_->setEnabled(false);
  soon_.start();
}

void BoardDialog::showScene() {
  if (!light_) return;
  int number = -1;
  for (int i = 0; i <= scenes_->indexOfTopLevelItem(scenes_->currentItem()); ++i)
    if (scenes_->topLevelItem(i)->checkState(SceneName) == Qt::Checked) ++number;
  const bool isIn = scenes_->currentItem() && scenes_->currentItem()->checkState(SceneName) == Qt::Checked;
  const std::size_t scene = isIn && number >= 0 ? static_cast<std::size_t>(number) : 0;
  const auto strip =
      board::BoardStrip::of(*show_, *compiled_->map, made_.runs, light_->options.pixelsPerValue);
  if (!strip || scene >= light_->scenes.size()) return glow_->clear();
  const auto pair =
      std::make_shared<BoardPair>(show_, compiled_, light_, *strip, made_.scenes[scene].scene, scene);
  glow_->show(
      partOfMap(*compiled_->map, strip->pixels()),
      [pair](std::int64_t n, PixelFrame& composed, PixelFrame& shown) { pair->fill(n, composed, shown); });
}

void BoardDialog::say(const QString& words, bool isFine) {
  sayState(state_, words, isFine);
}

}  // namespace chispa::desk
