// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/liveinputs.h"

#include <QSettings>

#include "desk/parts/format.h"
#include "desk/parts/language.h"

namespace chispa::desk {
namespace {

constexpr int kRefresh_ms = 1'500;
constexpr const char* kAddressKey = "live/address";

}  // namespace

LiveInputs::LiveInputs(const Session& session, QObject* parent) : QObject(parent), session_(session) {
  address_ = QSettings().value(QLatin1String(kAddressKey), QStringLiteral("127.0.0.1")).toString();
  connect(&timer_, &QTimer::timeout, this, &LiveInputs::refresh);
  connect(&soundTimer_, &QTimer::timeout, this, &LiveInputs::watchSound);
  connect(&session_.stage, &Stage::ticked, this, [this] {
    if (midi_) midi_->light(session_.show(), session_.stage.live().state);
  });
}

LiveInputs::~LiveInputs() {
  sound_.reset();
  // Their threads speak to this.
  midi_.reset();
  osc_.reset();
}

void LiveInputs::tell(const link::ControlHeard& control) {
  // From the device's thread to the window's.
  QMetaObject::invokeMethod(
      this, [this, control] { emit heard(control.source, control.value); }, Qt::QueuedConnection);
}

void LiveInputs::setMidi(bool on) {
  if (on == hearsMidi()) return;
  if (!on) {
    timer_.stop();
    midi_.reset();
    return emit changed();
  }
  if (!system_)
    system_ = std::make_shared<link::JoinedMidi>(
        std::vector<std::shared_ptr<link::MidiSystem>>{link::systemMidi(), surface_});
  engine::Player& player = session_.stage.player();
  midi_ = std::make_unique<engine::MidiHub>(
      system_, [&player](const LiveEvent& event) { player.live(engine::LiveSource::Midi, event); },
      [this](const link::ControlHeard& control) { tell(control); });
  timer_.start(kRefresh_ms);
  refresh();
}

void LiveInputs::refresh() {
  if (!midi_) return;
  const auto before = midi_->devices();
  midi_->refresh();
  if (midi_->devices() != before) emit changed();
}

QString LiveInputs::missingDevices() const {
  QStringList words;
  if (midi_)
    for (const std::string& name : midi_->missing(session_.show()))
      words << tr("“%1” is not plugged in").arg(text(name));
  if (!lostSound_.isEmpty())
    words << tr("“%1” can no longer be heard: choose it again under Sound").arg(lostSound_);
  return words.join(QStringLiteral("; "));
}

QString LiveInputs::midiState() const {
  if (!midi_) return tr("off");
  const auto devices = midi_->devices();
  QStringList words{devices.empty()       ? tr("no device is plugged in")
                    : devices.size() == 1 ? tr("one device")
                                          : tr("%1 devices").arg(devices.size())};
  if (const QString missing = missingDevices(); !missing.isEmpty()) words << missing;
  for (const std::string& trouble : midi_->troubles()) words << text(trouble);
  return words.join(QStringLiteral("; "));
}

QString LiveInputs::setOsc(bool on) {
  osc_.reset();
  QString trouble;
  if (on) {
    engine::Player& player = session_.stage.player();
    auto server = link::OscServer::open(
        address_.toStdString(), link::OscServer::kPort, [this, &player](const link::OscHeard& osc) {
          const BindingSource source{.kind = SourceKind::Osc, .address = osc.address};
          player.live(engine::LiveSource::Osc, controlEvent(source, osc.value));
          tell({source, osc.value});
        });
    if (server)
      osc_ = *std::move(server);
    else
      trouble = said(server.failure());
  }
  emit changed();
  return trouble;
}

QString LiveInputs::setDesks(bool on) {
  engine::DeskListener::Options options;
  options.address = address_.toStdString();
  const QString trouble = session_.stage.listenToDesks(on ? std::optional(std::move(options)) : std::nullopt);
  emit changed();
  return trouble;
}

QString LiveInputs::listenAt(const QString& address) {
  if (address == address_) return {};
  const auto reopen = [this, hadOsc = hearsOsc(), hadDesks = hearsDesks()] {
    QString trouble = hadOsc ? setOsc(true) : QString();
    if (trouble.isEmpty() && hadDesks) trouble = setDesks(true);
    return trouble;
  };
  const QString before = std::exchange(address_, address);
  const QString trouble = reopen();
  if (trouble.isEmpty()) {
    QSettings().setValue(QLatin1String(kAddressKey), address_);
  } else {
    address_ = before;
    reopen();
  }
  emit changed();
  return trouble;
}

QString LiveInputs::listenTo(const engine::SoundSource& source) {
  stopSound();
  engine::Player& player = session_.stage.player();
  auto listener =
      std::make_shared<engine::SoundListener>(player.output().live().heardBox(), player.sharedClock());
  auto input =
      engine::openSoundInput(source.name, [listener](std::span<const float> mono) { listener->take(mono); });
  if (!input) return said(input.failure());
  listener_ = std::move(listener);
  sound_ = *std::move(input);
  soundName_ = text(source.name);
  soundTitle_ = text(source.title);
  soundTimer_.start(kRefresh_ms);
  emit changed();
  return {};
}

void LiveInputs::stopSound() {
  if (!std::exchange(lostSound_, {}).isEmpty()) emit changed();
  if (!sound_) return;
  soundTimer_.stop();
  // The input speaks to the listener, which speaks to the output.
  sound_.reset();
  listener_.reset();
  soundName_.clear();
  emit changed();
}

void LiveInputs::watchSound() {
  if (!sound_ || !sound_->isLost()) return;
  const QString title = soundTitle_;
  stopSound();
  lostSound_ = title;
  emit changed();
}

engine::SoundListener::Meter LiveInputs::soundMeter() const {
  return listener_ ? listener_->meter() : engine::SoundListener::Meter{};
}

void LiveInputs::playKey(const QString& key, bool isDown) {
  const BindingSource source{.kind = SourceKind::Key, .address = key.toStdString()};
  session_.stage.play(controlEvent(source, isDown ? 1 : 0));
  if (isDown) emit heard(source, 1);
}

}  // namespace chispa::desk
