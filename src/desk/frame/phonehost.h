// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QElapsedTimer>
#include <QObject>

#include "core/preview/glow.h"
#include "desk/session/session.h"
#include "phone/phoneserver.h"

class QTemporaryDir;

namespace chispa::desk {

class BenchPage;
class NightDesk;

/// Tells phones what the window shows, and does what they ask for. Off until it is switched on. UI thread.
class PhoneHost : public QObject {
  Q_OBJECT
 public:
  PhoneHost(const Session& session, BenchPage& bench, NightDesk& night, QObject* parent = nullptr);
  ~PhoneHost() override;

  bool isOn() const { return server_ != nullptr; }
  /// Says why not if it cannot; empty if it can.
  QString switchOn(const QString& address, int port = phone::PhoneServer::kPort);
  void switchOff();
  /// Null while it is off.
  phone::PhoneServer* server() { return server_.get(); }

 signals:
  /// A phone works on the Bench: it is to be seen.
  void benchAsked();
  void blackoutAsked(bool on);
  void changed();

 private:
  void follow();
  void obey(const phone::Command& command);
  void obeyBench(const phone::Command& command);
  std::string stateText() const;
  QString nowWords() const;
  void drawLight();
  void drawPads();
  void setPalette(PaletteId palette);
  void takeVideo(const QString& file);

  Session session_;
  BenchPage& bench_;
  NightDesk& night_;
  /// Videos of phones, from the first time the page is on until this ends.
  std::unique_ptr<QTemporaryDir> videos_;
  std::unique_ptr<phone::PhoneServer> server_;
  GlowPainter painter_;
  QElapsedTimer sinceLight_;
  QElapsedTimer sincePads_;
  /// What the pads' pictures were drawn of, and how many times they were.
  std::shared_ptr<const CompiledShow> drawnOf_;
  int pictures_ = 0;
};

}  // namespace chispa::desk
