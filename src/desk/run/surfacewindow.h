// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QDialog>

#include "link/midi.h"

class QPushButton;

namespace chispa::desk {

/// A surface of 16 pads and 9 faders that plays like a MIDI device: notes 36–51 and controls 1–9 on channel
/// 1. Lamps that are sent to it shine on its pads. UI thread.
class SurfaceWindow : public QDialog {
  Q_OBJECT
 public:
  static constexpr int kPads = 16;
  static constexpr int kFaders = 9;
  static constexpr int kFirstNote = 36;
  static constexpr int kFirstControl = 1;

  explicit SurfaceWindow(link::SimulatedMidi& device, QWidget* parent = nullptr);
  ~SurfaceWindow() override;

 private:
  QWidget* makePads();
  QWidget* makeFaders();
  void showLamp(int note, int value);

  link::SimulatedMidi& device_;
  std::vector<QPushButton*> pads_;
};

}  // namespace chispa::desk
