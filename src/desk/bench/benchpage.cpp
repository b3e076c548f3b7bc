// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/benchpage.h"

#include <QCheckBox>
#include <QColorDialog>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QShortcut>
#include <QStackedWidget>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "core/colour/rgb.h"
#include "core/wire/patch.h"
#include "desk/bench/chainview.h"
#include "desk/bench/universefield.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kSideWidth = 230;

/// A port's chain: which places are skipped pixels.
std::vector<bool> skippedPlaces(const Show& show, const PortChoice& port) {
  std::vector<bool> skipped;
  const Controller* controller = chispa::find(show.controllers, port.controller);
  if (!controller || port.port >= std::ssize(controller->ports)) return skipped;
  for (const Bead& bead : controller->ports[static_cast<std::size_t>(port.port)].run) {
    skipped.insert(skipped.end(), static_cast<std::size_t>(bead.skippedBefore), true);
    skipped.insert(skipped.end(), static_cast<std::size_t>(bead.count), false);
  }
  return skipped;
}

/// What a place of a port's chain is: the fixture, its pixel, and the address.
struct LitPixel {
  QString name;
  int universe = 0;
  int channel = 0;
  std::size_t universeIndex = 0;
  int controllerIndex = -1;
};

std::optional<LitPixel> pixelAt(const Show& show, const Patch& patch, const PortChoice& port, int place) {
  int passed = 0;
  const Controller* controller = chispa::find(show.controllers, port.controller);
  if (!controller || port.port >= std::ssize(controller->ports)) return std::nullopt;
  const auto& run = controller->ports[static_cast<std::size_t>(port.port)].run;
  for (const PatchSpan& span : patch.spans) {
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id != port.controller || span.port != port.port) continue;
    const Bead& bead = run[static_cast<std::size_t>(span.bead)];
    const bool opensBead = span.firstPixel == (bead.reversed ? bead.first + bead.count - 1 : bead.first);
    // The second half of a value that is split tells nothing new.
    if (span.firstByte > 0) continue;
    if (opensBead) passed += bead.skippedBefore;
    if (place >= passed && place < passed + span.pixels) {
      const int i = (place - passed) / span.pixelsPerValue;
      const Fixture* fixture = chispa::find(show.fixtures, span.fixture);
      LitPixel lit{QStringLiteral("%1, pixel %2").arg(fixture ? text(fixture->name) : QString()).arg(span.pixelOf(i) + 1), span.universe, span.channelOf(i), 0, span.controller};
      for (std::size_t u = 0; u < patch.universes.size(); ++u)
        if (patch.universes[u].controller == span.controller && patch.universes[u].universe == span.universe) lit.universeIndex = u;
      return lit;
    }
    passed += span.pixels;
  }
  return std::nullopt;
}

}  // namespace

BenchPage::BenchPage(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setFocusPolicy(Qt::StrongFocus);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  auto* side = new QWidget;
  side->setObjectName(QStringLiteral("sidePanel"));
  side->setFixedWidth(kSideWidth);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(8, 10, 8, 8);
  const auto heading = [](const QString& words, QVBoxLayout* into) {
    auto* label = new QLabel(words);
    label->setObjectName(QStringLiteral("heading"));
    into->addWidget(label);
  };
  heading(tr("Drive"), column);
  ports_ = new QTreeWidget;
  ports_->setObjectName(QStringLiteral("benchPorts"));
  ports_->setAccessibleName(tr("Ports"));
  ports_->setToolTip(tr("The port that the signal goes to; all else is dark"));
  ports_->setHeaderHidden(true);
  ports_->setIndentation(12);
  connect(ports_, &QTreeWidget::currentItemChanged, this, &BenchPage::takeChoice);
  column->addWidget(ports_, 3);
  heading(tr("Signal"), column);
  makeSignals(column);
  row->addWidget(side);

  auto* middle = new QVBoxLayout;
  middle->setContentsMargins(20, 18, 20, 14);
  stack_ = new QStackedWidget;
  auto* signalFace = new QWidget;
  auto* signalColumn = new QVBoxLayout(signalFace);
  signalColumn->setContentsMargins(0, 0, 0, 0);
  headline_ = new QLabel;
  headline_->setFont(numberFont(1.7));
  headline_->setWordWrap(true);
  address_ = new QLabel;
  address_->setObjectName(QStringLiteral("quiet"));
  address_->setWordWrap(true);
  chain_ = new ChainView;
  signalColumn->addWidget(headline_);
  signalColumn->addWidget(address_);
  signalColumn->addSpacing(8);
  signalColumn->addWidget(chain_, 1);
  finderView_ = new FinderView(session_);
  stack_->addWidget(signalFace);
  stack_->addWidget(finderView_);
  connect(finderView_, &FinderView::left, this, [this] {
    stack_->setCurrentIndex(0);
    finders_->setCurrentRow(-1);
    sendSignal();
  });
  middle->addWidget(stack_, 2);
  middle->addSpacing(12);
  fieldTitle_ = new QLabel;
  middle->addWidget(fieldTitle_);
  field_ = new UniverseField;
  middle->addWidget(field_, 3);
  row->addLayout(middle, 1);
  row->addWidget(makeFinders());

  for (const auto& [key, by] : {std::pair{QKeySequence(Qt::Key_Left), -1}, std::pair{QKeySequence(Qt::Key_Right), 1},
                                std::pair{QKeySequence(Qt::SHIFT | Qt::Key_Left), -10}, std::pair{QKeySequence(Qt::SHIFT | Qt::Key_Right), 10}}) {
    auto* shortcut = new QShortcut(key, this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, this, [this, by = by] { step(by); });
  }
  connect(&session_.document, &Document::showChanged, this, &BenchPage::fillPorts);
  connect(&session_.document, &Document::opened, this, [this] {
    setSending(false);
    port_ = {};
    fillPorts();
  });
  connect(&session_.stage, &Stage::ticked, this, &BenchPage::showNow);
  fillPorts();
}

QWidget* BenchPage::makeFinders() {
  auto* side = new QWidget;
  side->setObjectName(QStringLiteral("sidePanel"));
  side->setFixedWidth(kSideWidth);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(8, 10, 8, 8);
  auto* title = new QLabel(tr("Finders"));
  title->setObjectName(QStringLiteral("heading"));
  column->addWidget(title);
  auto* hint = new QLabel(tr("One question at a time; answers by single keys."));
  hint->setObjectName(QStringLiteral("quiet"));
  hint->setWordWrap(true);
  column->addWidget(hint);
  finders_ = new QListWidget;
  finders_->setObjectName(QStringLiteral("benchFinders"));
  finders_->setAccessibleName(tr("Finders"));
  finders_->setToolTip(tr("Return, or a click, begins, or goes on where it was left"));
  for (int i = 0; i < kFinderKinds; ++i) finders_->addItem(QStringLiteral("%1\n%2").arg(finderTitle(static_cast<FinderKind>(i)), finderEffort(static_cast<FinderKind>(i))));
  connect(finders_, &QListWidget::itemClicked, this, [this] { beginFinder(static_cast<FinderKind>(finders_->currentRow())); });
  connect(finders_, &QListWidget::itemActivated, this, [this] { beginFinder(static_cast<FinderKind>(finders_->currentRow())); });
  column->addWidget(finders_, 1);
  return side;
}

void BenchPage::beginFinder(FinderKind kind) {
  send_->setChecked(false);
  // One that was left before it knew goes on, as long as the show is the same.
  auto& open = openFinders_[{kind, port_.controller, port_.port}];
  const bool isDone = open && !open->question() && !open->isContradicted();
  if (!open || isDone || finderShow_ != session_.show()) open = makeFinder(kind, session_.show(), port_);
  finderShow_ = session_.show();
  const Controller* controller = chispa::find(session_.show().controllers, port_.controller);
  stack_->setCurrentWidget(finderView_);
  finderView_->begin(open, tr("%1, port %2").arg(controller ? text(controller->name) : QString()).arg(port_.port + 1));
}

void BenchPage::fillPorts() {
  const QSignalBlocker quiet(ports_);
  ports_->clear();
  for (const auto& controller : session_.show().controllers) {
    auto* group = new QTreeWidgetItem({text(controller->name)});
    group->setFlags(Qt::ItemIsEnabled);
    ports_->addTopLevelItem(group);
    group->setExpanded(true);
    for (int p = 0; p < std::ssize(controller->ports); ++p) {
      const PortChoice port{controller->id, p};
      auto* item = new QTreeWidgetItem({tr("port %1 · %2 px").arg(p + 1).arg(skippedPlaces(session_.show(), port).size())});
      item->setData(0, Qt::UserRole, controller->id.value);
      item->setData(0, Qt::UserRole + 1, p);
      group->addChild(item);
      if (port == port_ || !port_.controller) {
        port_ = port;
        ports_->setCurrentItem(item);
      }
    }
  }
}

void BenchPage::choosePort(PortChoice port) {
  port_ = port;
  fillPorts();
  sendSignal();
}

void BenchPage::setSending(bool on) { send_->setChecked(on); }

void BenchPage::takeChoice() {
  const QTreeWidgetItem* item = ports_->currentItem();
  if (!item || !item->parent()) return;
  port_ = {ControllerId{item->data(0, Qt::UserRole).toUInt()}, item->data(0, Qt::UserRole + 1).toInt()};
  place_ = 0;
  sendSignal();
}

QDoubleSpinBox* BenchPage::addNumber(QFormLayout* form, const QString& name, const QString& label, const QString& unit, double low, double high, double step, double value, int decimals) {
  auto* field = new QDoubleSpinBox;
  field->setObjectName(name);
  field->setAccessibleName(label);
  field->setToolTip(label);
  field->setDecimals(decimals);
  field->setRange(low, high);
  field->setSingleStep(step);
  if (!unit.isEmpty()) field->setSuffix(QLatin1Char(' ') + unit);
  field->setValue(value);
  connect(field, &QDoubleSpinBox::valueChanged, this, &BenchPage::sendSignal);
  form->addRow(label, field);
  return field;
}

void BenchPage::makeSignals(QVBoxLayout* column) {
  signals_ = new QListWidget;
  signals_->setObjectName(QStringLiteral("benchSignals"));
  signals_->setAccessibleName(tr("Signals"));
  signals_->setToolTip(tr("What is sent"));
  signals_->addItems({tr("Walk"), tr("Solid"), tr("Colour cycle"), tr("Every n-th"), tr("Gradient along"), tr("Alternating"), tr("First and last"), tr("Each port its colour")});
  signals_->setCurrentRow(0);
  connect(signals_, &QListWidget::currentRowChanged, this, [this] {
    showRows();
    sendSignal();
  });
  column->addWidget(signals_, 2);
  form_ = new QFormLayout;
  speed_ = addNumber(form_, QStringLiteral("walkSpeed"), tr("Time a step"), tr("s"), 0, 5, 0.05, 0.2, 2);
  lit_ = addNumber(form_, QStringLiteral("walkLit"), tr("Pixels lit"), {}, 1, 1000, 1, 1, 0);
  nth_ = addNumber(form_, QStringLiteral("signalNth"), tr("One of"), {}, 1, 1000, 1, 10, 0);
  level_ = addNumber(form_, QStringLiteral("walkLevel"), tr("Level"), QStringLiteral("%"), 1, 100, 5, 30, 0);
  most_ = addNumber(form_, QStringLiteral("signalMost"), tr("Never above"), QStringLiteral("%"), 1, 100, 5, 100, 0);
  colourButton_ = new QPushButton;
  colourButton_->setObjectName(QStringLiteral("signalColour"));
  colourButton_->setAccessibleName(tr("Colour"));
  colourButton_->setToolTip(tr("Any colour"));
  connect(colourButton_, &QPushButton::clicked, this, [this] {
    auto* dialog = new QColorDialog(colour_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &QColorDialog::currentColorChanged, this, &BenchPage::setColour);
    dialog->open();
  });
  form_->addRow(tr("Colour"), colourButton_);
  column->addLayout(form_);
  const auto toggle = [&](const QString& name, const QString& label, const QString& tip) {
    auto* box = new QCheckBox(label);
    box->setObjectName(name);
    box->setToolTip(tip);
    connect(box, &QCheckBox::toggled, this, &BenchPage::sendSignal);
    column->addWidget(box);
    return box;
  };
  bounces_ = toggle(QStringLiteral("walkBounces"), tr("Turns back"), tr("The walk turns back at the end, instead of starting over"));
  wholeController_ = toggle(QStringLiteral("wholeController"), tr("All ports of it"), tr("The signal goes to every port of the controller"));
  restPlays_ = toggle(QStringLiteral("restPlays"), tr("All else plays on"), tr("What is not driven plays the score; else it is dark"));
  send_ = new QPushButton(tr("Send"));
  send_->setObjectName(QStringLiteral("walkButton"));
  send_->setCheckable(true);
  send_->setToolTip(tr("Sends the signal to what is chosen above. ← and → step a walk by one, with Shift by ten."));
  connect(send_, &QPushButton::toggled, this, &BenchPage::sendSignal);
  column->addWidget(send_);
  setColour(Qt::white);
  showRows();
}

engine::TestSignal::Kind BenchPage::kind() const { return static_cast<engine::TestSignal::Kind>(std::max(0, signals_->currentRow())); }

void BenchPage::setColour(const QColor& colour) {
  if (!colour.isValid()) return;
  colour_ = colour;
  colourButton_->setText(colour.name());
  QPixmap patch(14, 14);
  patch.fill(colour);
  colourButton_->setIcon(QIcon(patch));
  if (send_) sendSignal();
}

void BenchPage::showRows() {
  using Kind = engine::TestSignal::Kind;
  const auto show = [this](QWidget* field, bool on) {
    field->setVisible(on);
    if (QWidget* label = form_->labelForField(field)) label->setVisible(on);
  };
  const Kind now = kind();
  show(speed_, now == Kind::Walk || now == Kind::Cycle || now == Kind::Alternate);
  show(lit_, now == Kind::Walk);
  show(nth_, now == Kind::EveryNth);
  show(colourButton_, now != Kind::Cycle && now != Kind::Ends && now != Kind::PortColours);
  bounces_->setVisible(now == Kind::Walk);
}

void BenchPage::sendSignal() {
  if (!send_ || !send_->isChecked()) return session_.stage.setSignal(std::nullopt);
  engine::TestSignal signal;
  signal.kind = kind();
  signal.controller = port_.controller;
  if (!wholeController_->isChecked()) signal.port = port_.port;
  signal.seconds = speed_->value();
  signal.first = place_;
  signal.lit = static_cast<int>(lit_->value());
  signal.nth = static_cast<int>(nth_->value());
  signal.bounces = bounces_->isChecked();
  signal.restPlays = restPlays_->isChecked();
  const auto level = static_cast<float>(std::min(level_->value(), most_->value()) / 100);
  const auto light = [level](int value) { return linearFromSrgb(static_cast<float>(value) / 255.f) * level; };
  signal.colour = {light(colour_.red()), light(colour_.green()), light(colour_.blue())};
  signal.since = engine::SteadyClock().now();
  session_.stage.setSignal(signal);
}

void BenchPage::step(int by) {
  const int count = static_cast<int>(skippedPlaces(session_.show(), port_).size());
  if (count == 0) return;
  place_ = ((place_ + by) % count + count) % count;
  speed_->setValue(0);
  sendSignal();
}

void BenchPage::showNow() {
  if (!isVisible()) return;
  const auto skipped = skippedPlaces(session_.show(), port_);
  const auto& signal = session_.stage.signal();
  int lit = -1;
  if (signal && signal->kind == engine::TestSignal::Kind::Walk && !skipped.empty()) lit = engine::walkPlace(*signal, static_cast<int>(skipped.size()), engine::SteadyClock().now());
  chain_->showChain(skipped, lit);
  const auto compiled = session_.stage.compiled();
  const Controller* controller = chispa::find(session_.show().controllers, port_.controller);
  if (!compiled || !controller) return headline_->setText(tr("Add a controller in Wire first."));
  const auto pixel = pixelAt(session_.show(), compiled->patch, port_, std::max(0, lit));
  const QString place = tr("%1, port %2").arg(text(controller->name)).arg(port_.port + 1);
  if (!signal)
    headline_->setText(tr("Choose a signal, and send it to %1.").arg(place));
  else if (signal->kind != engine::TestSignal::Kind::Walk)
    headline_->setText(tr("%1 on %2").arg(signals_->currentItem()->text(), signal->port ? place : text(controller->name)));
  else if (!pixel)
    headline_->setText(tr("Pixel %1 of the chain is skipped.").arg(lit + 1));
  else
    headline_->setText(tr("Lit now: %1").arg(pixel->name));
  if (!session_.stage.isLit())
    address_->setText(tr("Light is OFF: switch it on below (F9) to see it on the LEDs."));
  else
    address_->setText(pixel ? tr("%1 · chain pixel %2 of %3 · universe %4, channel %5").arg(place).arg(std::max(0, lit) + 1).arg(skipped.size()).arg(pixel->universe).arg(pixel->channel) : place);
  if (!pixel || session_.stage.frame().size() != static_cast<std::size_t>(compiled->map.count())) return;
  std::vector<std::uint8_t> all(compiled->packer->bufferSize());
  if (session_.stage.isLit()) compiled->packer->pack(session_.stage.frame(), session_.stage.position(), session_.stage.player().master(), all);
  std::array<std::uint8_t, 512> values{};
  std::copy_n(all.begin() + static_cast<std::ptrdiff_t>(pixel->universeIndex * kUniverseChannels), kUniverseChannels, values.begin());
  field_->showValues(values, compiled->packer->channelsOf(pixel->universeIndex));
  fieldTitle_->setText(tr("<b>Leaving</b> &nbsp; universe %1 → %2").arg(pixel->universe).arg(text(controller->host)));
}

}  // namespace chispa::desk
