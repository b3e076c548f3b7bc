// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/monitor.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>

#include "core/wire/wiresettings.h"
#include "desk/bench/chainview.h"
#include "desk/bench/historyplot.h"
#include "desk/bench/universefield.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"

namespace chispa::desk {
namespace {

QString universeWords(Protocol protocol, int universe) {
  return isRow(protocol) ? Monitor::tr("bytes from %1").arg(universe * 512 + 1)
                         : Monitor::tr("universe %1").arg(universe);
}

QPushButton* toggle(const char* name, const QString& words, const QString& tip) {
  auto* button = new QPushButton(words);
  button->setObjectName(QLatin1String(name));
  button->setToolTip(tip);
  button->setCheckable(true);
  return button;
}

/// The light of a pixel from its channels, coarse bytes first.
QColor colourOf(const std::uint8_t* bytes, const ResolvedWire& wire) {
  ChipLight light{};
  for (std::size_t c = 0; c < wire.order.size(); ++c) {
    const auto chip = kChipLetters.find(wire.order[c]);
    light[std::min(chip, kChips - 1)] =
        static_cast<float>(bytes[c * static_cast<std::size_t>(wire.bits / 8)]) / 255.f;
  }
  const float both = light[3] + light[4];
  return ledColour(light[0] + both, light[1] + both, light[2] + both);
}

}  // namespace

Monitor::Monitor(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addLayout(makeTop());
  facts_ = new QLabel;
  facts_->setObjectName(QStringLiteral("monitorFacts"));
  facts_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  channel_ = new QLabel;
  channel_->setObjectName(QStringLiteral("quiet"));
  auto* words = new QHBoxLayout;
  words->addWidget(facts_, 1);
  words->addWidget(channel_);
  column->addLayout(words);
  faces_ = new QStackedWidget;
  field_ = new UniverseField;
  chain_ = new ChainView;
  faces_->addWidget(field_);
  faces_->addWidget(chain_);
  connect(leds_, &QPushButton::toggled, faces_, [this](bool on) { faces_->setCurrentIndex(on ? 1 : 0); });
  connect(field_, &UniverseField::channelChosen, this, [this] { history_->clear(); });
  column->addWidget(faces_, 1);
  history_ = new HistoryPlot;
  column->addWidget(history_);
  connect(&session_.stage, &Stage::ticked, this, &Monitor::showNow);
  showNow();
}

QHBoxLayout* Monitor::makeTop() {
  auto* top = new QHBoxLayout;
  leaving_ = toggle("monitorLeaving", tr("Leaving"), tr("What this machine sends"));
  arriving_ = toggle("monitorArriving", tr("Arriving"), tr("What others send to this machine"));
  auto* sides = new QButtonGroup(this);
  sides->addButton(leaving_);
  sides->addButton(arriving_);
  leaving_->setChecked(true);
  universes_ = new QComboBox;
  named(universes_, "monitorUniverse", tr("Universe"), tr("The universe that is shown"));
  universes_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  universes_->setMinimumContentsLength(8);
  universes_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  universes_->setMaximumWidth(260);
  connect(universes_, &QComboBox::activated, this, [this](int row) {
    if (row >= 0 && row < std::ssize(entries_)) wanted_ = entries_[static_cast<std::size_t>(row)];
    history_->clear();
  });
  leds_ = toggle("monitorLeds", tr("As LEDs"), tr("The same values as the LEDs that they light"));
  makeListening();
  connect(sides, &QButtonGroup::buttonClicked, this, [this] {
    trouble_.clear();
    history_->clear();
    showNow();
  });
  for (QWidget* one : std::initializer_list<QWidget*>{leaving_, arriving_, universes_}) top->addWidget(one);
  top->addStretch();
  for (QWidget* one : std::initializer_list<QWidget*>{address_, listen_, record_, play_, leds_})
    top->addWidget(one);
  for (QWidget* one : std::initializer_list<QWidget*>{address_, listen_, record_}) one->hide();
  return top;
}

void Monitor::makeListening() {
  address_ = new QLineEdit(QStringLiteral("127.0.0.1"));
  named(address_, "listenAddress", tr("Address to listen on"),
        tr("IPv4 address of the interface to listen on; 0.0.0.0 is all of them"));
  address_->setMaximumWidth(110);
  listen_ = toggle("monitorListen", tr("Listen"),
                   tr("Opens the ports of E1.31, Art-Net, DDP and Open Pixel Control on that address"));
  connect(listen_, &QPushButton::toggled, this, &Monitor::listen);
  record_ = toggle("monitorRecord", tr("Record…"), tr("Writes what arrives to a file; once more ends it"));
  connect(record_, &QPushButton::clicked, this, [this](bool on) {
    record(on ? QFileDialog::getSaveFileName(this, tr("Record what arrives"),
                                             QStringLiteral("arrived.chirec"), tr("Recordings (*.chirec)"))
              : QString());
  });
  play_ = toggle("monitorPlay", tr("Play back…"),
                 tr("Sends a recording to the show's controllers; once more ends it"));
  connect(play_, &QPushButton::clicked, this, [this](bool on) {
    playBack(on ? QFileDialog::getOpenFileName(this, tr("Play a recording"), {}, tr("Recordings (*.chirec)"))
                : QString());
  });
}

Monitor::~Monitor() = default;

bool Monitor::isArriving() const {
  return arriving_->isChecked();
}

void Monitor::follow(ControllerId controller, int universe) {
  if (isArriving() || followed_ == std::pair(controller, universe)) return;
  followed_ = {controller, universe};
  wanted_.controller = controller;
  wanted_.universe = universe;
  const Controller* own = chispa::find(session_.stage.played().controllers, controller);
  if (own) wanted_.protocol = own->protocol;
}

void Monitor::record(const QString& path) {
  if (recorder_) {
    const Outcome ended = recorder_->end();
    trouble_ = ended ? QString() : said(ended.failure());
    recorder_.reset();
  } else if (receiver_ && !path.isEmpty()) {
    auto begun = link::StreamRecorder::begin(*receiver_, path.toStdString());
    trouble_ = begun ? QString() : said(begun.failure());
    if (begun) recorder_ = *std::move(begun);
  }
  showNow();
}

void Monitor::playBack(const QString& path) {
  const bool wasPlaying = playback_ != nullptr;
  playback_.reset();
  const auto compiled = session_.stage.compiled();
  if (!wasPlaying && compiled && !path.isEmpty()) {
    auto opened = RecordingReader::open(path.toStdString());
    trouble_ = opened ? QString() : said(opened.failure());
    if (opened) {
      auto routes = engine::Playback::routesIn(session_.stage.played(), compiled->patch, *opened);
      if (std::none_of(routes.begin(), routes.end(), [](const auto& route) { return route.has_value(); }))
        trouble_ = tr("The show sends none of the universes of this recording.");
      else
        playback_ = std::make_unique<engine::Playback>(session_.stage.player().output(),
                                                       session_.stage.player().clock(), *std::move(opened),
                                                       std::move(routes));
    }
  }
  showNow();
}

void Monitor::listen(bool on) {
  if (recorder_) record({});
  receiver_.reset();
  trouble_.clear();
  if (on) {
    link::Receiver::Options options;
    options.address = address_->text().trimmed().toStdString();
    for (int universe = 1; universe <= 64; ++universe) options.groups.push_back(universe);
    if (options.address.starts_with("127.")) options.groups.clear();
    auto opened = link::Receiver::open(options);
    if (opened)
      receiver_ = *std::move(opened);
    else
      trouble_ = said(opened.failure());
    arriving_->setChecked(true);
  }
  const QSignalBlocker quiet(listen_);
  listen_->setChecked(receiver_ != nullptr);
  showNow();
}

std::vector<Monitor::Entry> Monitor::leaving() const {
  std::vector<Entry> all;
  const auto compiled = session_.stage.compiled();
  const Show& show = session_.stage.played();
  if (!compiled) return all;
  const auto& universes = compiled->patch.universes;
  for (std::size_t i = 0; i < universes.size(); ++i) {
    if (static_cast<std::size_t>(universes[i].controller) >= show.controllers.size()) continue;
    const Controller& controller = *show.controllers[static_cast<std::size_t>(universes[i].controller)];
    Entry& entry = all.emplace_back();
    entry.protocol = controller.protocol;
    entry.controller = controller.id;
    entry.universe = universes[i].universe;
    entry.used = universes[i].channels;
    entry.index = i;
    entry.label = QStringLiteral("%1 · %2").arg(universeWords(controller.protocol, entry.universe),
                                                text(controller.name));
  }
  return all;
}

void Monitor::readLeaving(Entry& entry) const {
  const Controller* controller = chispa::find(session_.stage.played().controllers, entry.controller);
  if (!controller) return;
  entry.facts = QStringLiteral("%1 → %2").arg(QLatin1String(protocolTitle(controller->protocol)),
                                              text(controller->host));
  for (const auto& line : session_.stage.player().lines())
    if (line.controller == entry.controller)
      entry.facts += tr(" · %1 packets sent").arg(line.packets) +
                     (line.reached ? QString() : QStringLiteral(" · ") + text(line.trouble));
  const auto& values = session_.stage.player().latestValues();
  if (values.size() >= (entry.index + 1) * kUniverseChannels && session_.stage.isLit())
    std::copy_n(values.begin() + static_cast<std::ptrdiff_t>(entry.index * kUniverseChannels),
                kUniverseChannels, entry.values.begin());
}

std::vector<Monitor::Entry> Monitor::arriving() const {
  std::vector<Entry> all;
  if (!receiver_) return all;
  for (const link::ReceivedUniverse& heard : receiver_->heard()) {
    Entry entry;
    entry.protocol = heard.protocol;
    entry.universe = heard.universe;
    entry.values = heard.values;
    entry.label = QStringLiteral("%1 %2").arg(QLatin1String(protocolTitle(heard.protocol)),
                                              universeWords(heard.protocol, heard.universe));
    QStringList sources;
    for (const auto& source : heard.sources) {
      const double seconds = std::chrono::duration<double>(source.heardAt - source.firstAt).count();
      const double rate = seconds > 0 ? static_cast<double>(source.packets - 1) / seconds : 0;
      QString words = tr("%1 · %2 packets/s · sequence %3 · %4 gaps")
                          .arg(source.name.empty() ? text(source.id) : text(source.name))
                          .arg(rate, 0, 'f', 1)
                          .arg(source.sequence)
                          .arg(source.lost);
      if (heard.protocol == Protocol::E131) words += tr(" · priority %1").arg(source.priority);
      sources << words;
    }
    entry.facts = sources.join(QStringLiteral("   +   "));
    all.push_back(std::move(entry));
  }
  return all;
}

void Monitor::fill(const std::vector<Entry>& entries) {
  std::vector<QString> labels;
  for (const Entry& entry : entries) labels.push_back(entry.label);
  if (labels == labels_) return;
  labels_ = labels;
  const QSignalBlocker quiet(universes_);
  universes_->clear();
  for (const QString& label : labels) universes_->addItem(label);
}

void Monitor::showNow() {
  if (!isVisible()) return;
  for (QWidget* one : std::initializer_list<QWidget*>{address_, listen_, record_})
    one->setVisible(isArriving());
  play_->setVisible(!isArriving());
  record_->setEnabled(receiver_ != nullptr);
  // A disk that is full is told of now, not when the night is over.
  if (recorder_ && recorder_->isFailing()) record({});
  record_->setChecked(recorder_ != nullptr);
  record_->setText(recorder_ ? tr("Recording %1").arg(timeText(recorder_->length())) : tr("Record…"));
  if (playback_ && playback_->isDone()) {
    if (playback_->failure()) trouble_ = text(playback_->failure()->text());
    playback_.reset();
  }
  play_->setChecked(playback_ != nullptr);
  play_->setText(playback_ ? tr("Playing %1").arg(timeText(playback_->position())) : tr("Play back…"));
  entries_ = isArriving() ? arriving() : leaving();
  fill(entries_);
  const auto found = std::find_if(entries_.begin(), entries_.end(),
                                  [this](const Entry& entry) { return entry.isSamePlace(wanted_); });
  const bool isThere = found != entries_.end() || !entries_.empty();
  Entry shown = found != entries_.end() ? *found : isThere ? entries_.front() : Entry{};
  if (!isArriving()) readLeaving(shown);
  {
    const QSignalBlocker quiet(universes_);
    universes_->setCurrentIndex(found != entries_.end() ? static_cast<int>(found - entries_.begin())
                                : isThere               ? 0
                                                        : -1);
  }
  facts_->setText(!trouble_.isEmpty() ? trouble_
                  : isThere           ? shown.facts
                  : !isArriving()     ? tr("Nothing is wired yet: nothing leaves.")
                  : receiver_         ? tr("Listening; nothing has arrived yet.")
                                      : tr("Press Listen to see what arrives."));
  field_->showValues(shown.values, isThere ? shown.used : 0);
  const auto value = shown.values[static_cast<std::size_t>(field_->chosen())];
  channel_->setText(tr("channel %1: %2").arg(field_->chosen() + 1).arg(value));
  history_->add(value);
  if (leds_->isChecked()) showLeds(shown);
}

void Monitor::showLeds(const Entry& entry) {
  const auto compiled = session_.stage.compiled();
  const Show& show = session_.stage.played();
  std::vector<QColor> colours;
  for (const PatchSpan& span : compiled ? compiled->patch.spans : std::vector<PatchSpan>()) {
    if (static_cast<std::size_t>(span.controller) >= show.controllers.size() ||
        span.universe != entry.universe || !span.isWhole())
      continue;
    const Controller& controller = *show.controllers[static_cast<std::size_t>(span.controller)];
    if (controller.protocol != entry.protocol || (entry.controller && controller.id != entry.controller))
      continue;
    const Fixture* fixture = chispa::find(show.fixtures, span.fixture);
    if (!fixture || static_cast<std::size_t>(span.port) >= controller.ports.size()) continue;
    const Port& port = controller.ports[static_cast<std::size_t>(span.port)];
    if (static_cast<std::size_t>(span.bead) >= port.run.size()) continue;
    const ResolvedWire wire = resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings,
                                          port.run[static_cast<std::size_t>(span.bead)].settings);
    for (int i = 0; i < span.count && span.channelOf(i) + span.channelsPerPixel - 1 <= 512; ++i) {
      const QColor colour = colourOf(entry.values.data() + span.channelOf(i) - 1, wire);
      for (int k = 0; k < span.pixelsPerValue; ++k) colours.push_back(colour);
    }
  }
  chain_->showColours(std::move(colours), tr("The show has no LEDs in this universe."));
}

}  // namespace chispa::desk
