// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/benchpage.h"

#include <QDoubleSpinBox>
#include <QKeyEvent>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "core/wire/patch.h"
#include "desk/bench/addressrow.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/bench/chainview.h"
#include "desk/bench/faders.h"
#include "desk/bench/monitor.h"
#include "desk/bench/signalform.h"
#include "desk/bench/targetlist.h"
#include "desk/parts/columngrip.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kSideWidth = 220;

QWidget* sidePanel(QVBoxLayout*& column) {
  auto* side = new QWidget;
  side->setObjectName(QStringLiteral("sidePanel"));
  side->setFixedWidth(kSideWidth);
  column = new QVBoxLayout(side);
  column->setContentsMargins(8, 10, 8, 8);
  return side;
}

}  // namespace

BenchPage::BenchPage(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setAccessibleName(tr("Bench"));
  setFocusPolicy(Qt::StrongFocus);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(makeLeft());
  auto* middle = new QVBoxLayout;
  middle->setContentsMargins(18, 14, 18, 10);
  stack_ = new QStackedWidget;
  signalFace_ = makeSignalFace();
  finderView_ = new FinderView(session_, ground());
  stack_->addWidget(signalFace_);
  finderFace_ = new QScrollArea;
  finderFace_->setWidget(finderView_);
  finderFace_->setWidgetResizable(true);
  finderFace_->setFocusPolicy(Qt::NoFocus);
  stack_->addWidget(finderFace_);
  camera_ = new CameraPage(session_, ground());
  stack_->addWidget(camera_);
  middle->addWidget(stack_, 5);
  middle->addSpacing(8);
  monitor_ = new Monitor(session_);
  middle->addWidget(monitor_, 4);
  row->addLayout(middle, 1);
  row->addWidget(makeFinders());
  const auto goBack = [this] {
    stack_->setCurrentWidget(signalFace_);
    monitor_->show();
    finders_->setCurrentRow(-1);
    takeTarget();
  };
  const auto noteChange = [this](const QString& title, const QString& difference) {
    changed_->setText(QStringLiteral("%1: %2\n").arg(title, difference) + changed_->text());
  };
  connect(finderView_, &FinderView::left, this, goBack);
  connect(finderView_, &FinderView::accepted, this, noteChange);
  connect(camera_, &CameraPage::left, this, goBack);
  connect(camera_, &CameraPage::accepted, this, noteChange);
  connect(&session_.document, &Document::showChanged, this, [this] {
    targets_->fill(session_.show(), rig_.controller.id);
    if (stack_->currentWidget() == signalFace_) takeTarget();
  });
  connect(&session_.document, &Document::opened, this, [this] {
    setSending(false);
    openFinders_.clear();
    if (stack_->currentWidget() != signalFace_) {
      camera_->leave();
      finderView_->leave();
    }
    targets_->forget();
    targets_->fill(session_.show(), rig_.controller.id);
    takeTarget();
  });
  connect(&session_.stage, &Stage::ticked, this, &BenchPage::follow);
  connect(&session_.stage, &Stage::lightChanged, this, &BenchPage::showNow);
  targets_->fill(session_.show(), rig_.controller.id);
  address_->show(rig_);
  takeTarget();
}

QWidget* BenchPage::makeLeft() {
  QVBoxLayout* column = nullptr;
  QWidget* side = sidePanel(column);
  new ColumnGrip(side, QStringLiteral("bench"));
  column->addWidget(heading(tr("Drive")));
  targets_ = new TargetList;
  connect(targets_, &TargetList::chosen, this, [this] {
    place_ = 0;
    // A finder, or the camera, is about what was chosen before.
    if (stack_->currentWidget() == finderFace_) finderView_->leave();
    if (stack_->currentWidget() == camera_) camera_->end();
    takeTarget();
  });
  column->addWidget(targets_, 4);
  column->addWidget(heading(tr("Signal")));
  signal_ = new SignalForm;
  connect(signal_, &SignalForm::changed, this, &BenchPage::sendSignal);
  column->addWidget(signal_, 7);
  return side;
}

QWidget* BenchPage::makeSignalFace() {
  auto* face = new QWidget;
  auto* column = new QVBoxLayout(face);
  column->setContentsMargins(0, 0, 0, 0);
  headline_ = new QLabel;
  headline_->setObjectName(QStringLiteral("benchHeadline"));
  headline_->setFont(numberFont(1.6));
  headline_->setWordWrap(true);
  where_ = new QLabel;
  where_->setObjectName(QStringLiteral("quiet"));
  where_->setWordWrap(true);
  address_ = new AddressRow;
  connect(address_, &AddressRow::changed, this, &BenchPage::takeAddress);
  connect(address_, &AddressRow::keepAsked, this, &BenchPage::keepAddress);
  chain_ = new ChainView;
  faders_ = new Faders;
  connect(faders_, &Faders::changed, this, &BenchPage::sendSignal);
  connect(faders_, &Faders::paletteAsked, this, &BenchPage::copyPalette);
  power_ = makePowerTest();
  column->addWidget(headline_);
  auto* beside = new QHBoxLayout;
  beside->addWidget(where_, 1);
  lightHere_ = named(new QPushButton(tr("Switch light on")), "benchLight", tr("Switch light on"),
                     tr("What is sent is not seen before light is on (F9)"));
  connect(lightHere_, &QPushButton::clicked, this, [this] { session_.stage.switchLight(true); });
  lightHere_->hide();
  beside->addWidget(lightHere_);
  column->addLayout(beside);
  column->addWidget(address_);
  column->addWidget(power_);
  column->addSpacing(6);
  column->addWidget(chain_, 1);
  column->addWidget(faders_, 1);
  return face;
}

QWidget* BenchPage::makePowerTest() {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  computed_ = new QLabel;
  computed_->setObjectName(QStringLiteral("computedAmps"));
  measured_ = new QDoubleSpinBox;
  measured_->setObjectName(QStringLiteral("measuredAmps"));
  measured_->setAccessibleName(tr("Measured current"));
  measured_->setToolTip(tr("What your ammeter shows with this signal on"));
  measured_->setRange(0, 1000);
  measured_->setDecimals(2);
  measured_->setSuffix(QStringLiteral(" A"));
  measured_->setSpecialValueText(tr("not measured"));
  connect(measured_, &QDoubleSpinBox::valueChanged, this, &BenchPage::showPower);
  takeMeasured_ = new QPushButton(tr("Apply to the strip type"));
  takeMeasured_->setObjectName(QStringLiteral("takeMeasured"));
  takeMeasured_->setToolTip(
      tr("Scales the current of the strip type's channels, so that computed and measured agree"));
  connect(takeMeasured_, &QPushButton::clicked, this, &BenchPage::scaleCurrent);
  line->addWidget(computed_);
  line->addWidget(new QLabel(tr("measured")));
  line->addWidget(measured_);
  line->addWidget(takeMeasured_);
  line->addStretch();
  return row;
}

QWidget* BenchPage::makeFinders() {
  QVBoxLayout* column = nullptr;
  QWidget* side = sidePanel(column);
  column->addWidget(heading(tr("Finders")));
  auto* hint = new QLabel(tr("One question at a time; answers by single keys."));
  hint->setObjectName(QStringLiteral("quiet"));
  hint->setWordWrap(true);
  column->addWidget(hint);
  finders_ = new QListWidget;
  finders_->setObjectName(QStringLiteral("benchFinders"));
  finders_->setAccessibleName(tr("Finders"));
  finders_->setSpacing(2);
  finders_->setToolTip(tr("Return, or a click, begins, or goes on where it was left"));
  for (int i = 0; i < kFinderKinds; ++i)
    finders_->addItem(QStringLiteral("%1\n%2").arg(finderTitle(static_cast<FinderKind>(i)),
                                                   finderEffort(static_cast<FinderKind>(i))));
  finders_->addItem(tr("Positions by camera\nabout 30 s"));
  for (int i = 0; i < finders_->count(); ++i)
    finders_->item(i)->setSizeHint(QSize(0, 2 * fontMetrics().lineSpacing() + 8));
  const auto beginChosen = [this] {
    if (finders_->currentRow() == kFinderKinds) return beginCamera();
    beginFinder(static_cast<FinderKind>(finders_->currentRow()));
  };
  connect(finders_, &QListWidget::itemClicked, this, beginChosen);
  connect(finders_, &QListWidget::itemActivated, this, beginChosen);
  column->addWidget(finders_, 1);
  column->addWidget(heading(tr("What they changed")));
  changed_ = new QLabel(tr("Nothing yet."));
  changed_->setObjectName(QStringLiteral("quiet"));
  changed_->setWordWrap(true);
  column->addWidget(changed_);
  return side;
}

FinderView::Ground BenchPage::ground() {
  return {[this] { return workingShow(); },
          [this](const QString& name, const std::function<void(Show&)>& change) {
            if (!isByHand()) return session_.edit(name, change);
            Show show = workingShow();
            change(show);
            takeRig(rig_, show);
            address_->show(rig_);
          }};
}

const BenchTarget& BenchPage::target() const {
  return targets_->target();
}

bool BenchPage::isByHand() const {
  return target().kind == BenchTarget::Kind::Address;
}

Show BenchPage::workingShow() const {
  return isByHand() ? withRig(session_.show(), rig_) : session_.show();
}

void BenchPage::beginFinder(FinderKind kind) {
  setSending(false);
  if (stack_->currentWidget() == camera_) {
    camera_->leave();
    monitor_->show();
  }
  session_.stage.setTrial(isByHand() ? std::optional(workingShow()) : std::nullopt);
  const Show show = workingShow();
  // One that was left before it knew goes on, as long as the show is the same.
  auto& open = openFinders_[{kind, target().controller, target().port, target().bead}];
  const bool isDone = open && !open->question() && !open->isContradicted();
  QString why;
  if (!open || isDone || finderShow_ != show) open = makeFinder(kind, show, target(), why);
  finderShow_ = show;
  // What the finder sends is seen below.
  if (const auto pixel = pixelAt(show, derivePatch(show), target().portChoice(), 0))
    monitor_->follow(target().controller, pixel->universe);
  finders_->setCurrentRow(static_cast<int>(kind));
  stack_->setCurrentWidget(finderFace_);
  finderView_->begin(open, targetName(show, target()), why);
}

void BenchPage::beginCamera() {
  setSending(false);
  if (stack_->currentWidget() == finderFace_) finderView_->leave();
  session_.stage.setTrial(isByHand() ? std::optional(workingShow()) : std::nullopt);
  finders_->setCurrentRow(kFinderKinds);
  stack_->setCurrentWidget(camera_);
  // The picture takes the room of the values.
  monitor_->hide();
  camera_->begin(target());
}

void BenchPage::choose(const BenchTarget& target) {
  targets_->choose(target);
}

void BenchPage::chooseAddress(const BenchRig& rig) {
  rig_ = rig;
  address_->show(rig_);
  targets_->choose({BenchTarget::Kind::Address, rig_.controller.id, 0, 0});
}

void BenchPage::setSending(bool on) {
  signal_->setSending(on);
}

void BenchPage::takeTarget() {
  const bool isChannels = target().kind == BenchTarget::Kind::Channels;
  address_->setVisible(isByHand() || isChannels);
  address_->setWhole(isByHand());
  // Nobody speaks to an address by hand unless the maker is here, or has left a signal on.
  const bool plays = isByHand() && (isVisible() || signal_->isSending());
  session_.stage.setTrial(plays ? std::optional(workingShow()) : std::nullopt);
  sendSignal();
}

void BenchPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  takeTarget();
}

void BenchPage::hideEvent(QHideEvent* event) {
  QWidget::hideEvent(event);
  if (stack_->currentWidget() == finderFace_) finderView_->leave();
  if (stack_->currentWidget() == camera_) camera_->leave();
  takeTarget();
}

void BenchPage::takeAddress() {
  address_->read(rig_);
  takeTarget();
}

void BenchPage::keepAddress() {
  ControllerId kept;
  session_.edit(tr("keep an address"), [&](Show& show) { kept = keepRig(show, rig_); });
  choose({BenchTarget::Kind::Port, kept, 0, 0});
}

void BenchPage::keyPressEvent(QKeyEvent* event) {
  const int far = event->modifiers() & Qt::ShiftModifier ? 10 : 1;
  if (event->key() == Qt::Key_Left) return step(-far);
  if (event->key() == Qt::Key_Right) return step(far);
  QWidget::keyPressEvent(event);
}

}  // namespace chispa::desk
