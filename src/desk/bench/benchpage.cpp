// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/benchpage.h"

#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QTreeWidget>
#include <QVBoxLayout>

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
  column->addWidget(ports_, 1);
  heading(tr("Signal: walk"), column);
  auto* form = new QFormLayout;
  const auto number = [&](const QString& name, const QString& label, const QString& unit, double low, double high, double step, double value, int decimals) {
    auto* field = new QDoubleSpinBox;
    field->setObjectName(name);
    field->setAccessibleName(label);
    field->setToolTip(label);
    field->setDecimals(decimals);
    field->setRange(low, high);
    field->setSingleStep(step);
    field->setSuffix(QLatin1Char(' ') + unit);
    field->setValue(value);
    connect(field, &QDoubleSpinBox::valueChanged, this, &BenchPage::sendSignal);
    form->addRow(label, field);
    return field;
  };
  speed_ = number("walkSpeed", tr("Time a pixel"), "s", 0, 5, 0.05, 0.2, 2);
  level_ = number("walkLevel", tr("Level"), "%", 1, 100, 5, 30, 0);
  column->addLayout(form);
  auto* hint = new QLabel(tr("0 s stands still: ← and → step by one, with Shift by ten."));
  hint->setObjectName(QStringLiteral("quiet"));
  hint->setWordWrap(true);
  column->addWidget(hint);
  walk_ = new QPushButton(tr("Walk"));
  walk_->setObjectName(QStringLiteral("walkButton"));
  walk_->setCheckable(true);
  walk_->setToolTip(tr("Lights one pixel after another on the chosen port"));
  connect(walk_, &QPushButton::toggled, this, &BenchPage::sendSignal);
  column->addWidget(walk_);
  row->addWidget(side);

  auto* middle = new QVBoxLayout;
  middle->setContentsMargins(20, 18, 20, 14);
  headline_ = new QLabel;
  headline_->setFont(numberFont(1.7));
  headline_->setWordWrap(true);
  address_ = new QLabel;
  address_->setObjectName(QStringLiteral("quiet"));
  address_->setWordWrap(true);
  chain_ = new ChainView;
  middle->addWidget(headline_);
  middle->addWidget(address_);
  middle->addSpacing(8);
  middle->addWidget(chain_, 2);
  middle->addSpacing(12);
  fieldTitle_ = new QLabel;
  middle->addWidget(fieldTitle_);
  field_ = new UniverseField;
  middle->addWidget(field_, 3);
  row->addLayout(middle, 1);

  for (const auto& [key, by] : {std::pair{QKeySequence(Qt::Key_Left), -1}, std::pair{QKeySequence(Qt::Key_Right), 1},
                                std::pair{QKeySequence(Qt::SHIFT | Qt::Key_Left), -10}, std::pair{QKeySequence(Qt::SHIFT | Qt::Key_Right), 10}}) {
    auto* shortcut = new QShortcut(key, this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, this, [this, by = by] { step(by); });
  }
  connect(&session_.document, &Document::showChanged, this, &BenchPage::fillPorts);
  connect(&session_.document, &Document::opened, this, [this] {
    setWalking(false);
    port_ = {};
    fillPorts();
  });
  connect(&session_.stage, &Stage::ticked, this, &BenchPage::showNow);
  fillPorts();
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

void BenchPage::setWalking(bool on) { walk_->setChecked(on); }

void BenchPage::takeChoice() {
  const QTreeWidgetItem* item = ports_->currentItem();
  if (!item || !item->parent()) return;
  port_ = {ControllerId{item->data(0, Qt::UserRole).toUInt()}, item->data(0, Qt::UserRole + 1).toInt()};
  place_ = 0;
  sendSignal();
}

void BenchPage::sendSignal() {
  if (!walk_->isChecked()) return session_.stage.setSignal(std::nullopt);
  engine::WalkSignal signal;
  signal.controller = port_.controller;
  signal.port = port_.port;
  signal.secondsPerPixel = speed_->value();
  signal.first = place_;
  const auto level = static_cast<float>(level_->value() / 100);
  signal.colour = {level, level, level};
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
  if (signal && !skipped.empty()) {
    const engine::PortChain chain{port_.controller, port_.port, std::vector<std::int32_t>(skipped.size(), 0)};
    lit = engine::walkPlace(*signal, chain, engine::SteadyClock().now());
  }
  chain_->showChain(skipped, lit);
  const auto compiled = session_.stage.compiled();
  const Controller* controller = chispa::find(session_.show().controllers, port_.controller);
  if (!compiled || !controller) return headline_->setText(tr("Add a controller in Wire first."));
  const auto pixel = pixelAt(session_.show(), compiled->patch, port_, std::max(0, lit));
  const QString place = tr("%1, port %2").arg(text(controller->name)).arg(port_.port + 1);
  if (!signal)
    headline_->setText(tr("Walk one lit pixel along %1.").arg(place));
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
