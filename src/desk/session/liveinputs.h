// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QObject>
#include <QTimer>

#include "desk/session/session.h"
#include "engine/midihub.h"
#include "engine/soundinput.h"
#include "engine/soundlistener.h"
#include "link/osc.h"

namespace chispa::desk {

/// What the window is played by from outside: MIDI, OSC, desks, and sound that looks follow. All are off
/// until they are asked for. UI thread.
class LiveInputs : public QObject {
  Q_OBJECT
 public:
  explicit LiveInputs(const Session& session, QObject* parent = nullptr);
  ~LiveInputs() override;

  bool hearsMidi() const { return midi_ != nullptr; }
  bool hearsOsc() const { return osc_ != nullptr; }
  bool hearsDesks() const { return session_.stage.player().listensToDesks(); }
  void setMidi(bool on);
  /// At address(); says why not if it cannot.
  QString setOsc(bool on);
  QString setDesks(bool on);
  /// Where OSC and desks are heard: the address of one of this computer's interfaces; loopback until one is
  /// chosen, and kept for all shows.
  const QString& address() const { return address_; }
  /// From now on there; says why not if it cannot, and stays where it was.
  QString listenAt(const QString& address);
  /// Looks without a score follow this source from now on; says why not if it cannot be heard.
  QString listenTo(const engine::SoundSource& source);
  void stopSound();
  bool hearsSound() const { return sound_ != nullptr; }
  /// What the sound server calls the source, and what people do.
  const QString& soundName() const { return soundName_; }
  const QString& soundTitle() const { return soundTitle_; }
  engine::SoundListener::Meter soundMeter() const;
  int oscPort() const { return osc_ ? osc_->port() : 0; }

  /// What is heard, in words, and what is missing: "2 devices; “Pads” is not plugged in".
  QString midiState() const;
  /// The devices that bindings name and that are not there, and a sound source that went, in words; empty if
  /// there are none.
  QString missingDevices() const;
  /// The surface that ships with Chispa.
  link::SimulatedMidi& surface() { return *surface_; }
  /// A key of the computer, as a control.
  void playKey(const QString& key, bool isDown);

 signals:
  /// A control was moved; also told while nothing is bound to it.
  void heard(const chispa::BindingSource& source, float value);
  /// Something is heard that was not, or the other way round.
  void changed();

 private:
  void refresh();
  void watchSound();
  void tell(const link::ControlHeard& heard);

  Session session_;
  QString address_;
  std::shared_ptr<link::SimulatedMidi> surface_ = std::make_shared<link::SimulatedMidi>();
  std::shared_ptr<link::MidiSystem> system_;
  std::unique_ptr<engine::MidiHub> midi_;
  std::unique_ptr<link::OscServer> osc_;
  std::shared_ptr<engine::SoundListener> listener_;
  std::unique_ptr<engine::SoundInput> sound_;
  QString soundName_;
  QString soundTitle_;
  /// The source that went while it was listened to; empty once another choice is made.
  QString lostSound_;
  QTimer timer_;
  QTimer soundTimer_;
};

}  // namespace chispa::desk
