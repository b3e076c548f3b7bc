// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/surfacewindow.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr std::uint8_t kNoteOn = 0x90;
constexpr std::uint8_t kNoteOff = 0x80;
constexpr std::uint8_t kControl = 0xb0;
constexpr std::uint8_t kPressed = 100;

}  // namespace

SurfaceWindow::SurfaceWindow(link::SimulatedMidi& device, QWidget* parent)
    : QDialog(parent), device_(device) {
  setObjectName(QStringLiteral("surface"));
  setWindowTitle(tr("Pads and faders"));
  auto* column = new QVBoxLayout(this);
  auto* words =
      new QLabel(tr("A MIDI device that ships with Chispa. Learn its pads and faders like any other."));
  words->setObjectName(QStringLiteral("quiet"));
  words->setWordWrap(true);
  column->addWidget(words);
  column->addWidget(makePads());
  column->addWidget(makeFaders());
  device_.lamps = [this](std::span<const std::uint8_t> message) {
    if (message.size() == 3 && (message[0] & 0xf0) == kNoteOn) showLamp(message[1], message[2]);
  };
}

SurfaceWindow::~SurfaceWindow() {
  device_.lamps = nullptr;
}

QWidget* SurfaceWindow::makePads() {
  auto* box = new QWidget;
  auto* grid = new QGridLayout(box);
  grid->setContentsMargins(0, 0, 0, 0);
  constexpr int kPerRow = 8;
  for (int i = 0; i < kPads; ++i) {
    auto* pad = named(new QPushButton(QString::number(i + 1)), "", tr("Pad %1").arg(i + 1),
                      tr("Plays note %1").arg(kFirstNote + i));
    pad->setObjectName(QStringLiteral("surfacePad%1").arg(i + 1));
    pad->setFixedSize(52, 44);
    pad->setAutoDefault(false);
    const auto send = [this, i](std::uint8_t status, std::uint8_t velocity) {
      const std::uint8_t message[] = {status, static_cast<std::uint8_t>(kFirstNote + i), velocity};
      device_.send(message);
    };
    connect(pad, &QPushButton::pressed, this, [send] { send(kNoteOn, kPressed); });
    connect(pad, &QPushButton::released, this, [send] { send(kNoteOff, 0); });
    grid->addWidget(pad, i / kPerRow, i % kPerRow);
    pads_.push_back(pad);
  }
  return box;
}

QWidget* SurfaceWindow::makeFaders() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  for (int i = 0; i < kFaders; ++i) {
    auto* fader = named(new QSlider(Qt::Vertical), "", tr("Fader %1").arg(i + 1),
                        tr("Moves control %1").arg(kFirstControl + i));
    fader->setObjectName(QStringLiteral("surfaceFader%1").arg(i + 1));
    fader->setRange(0, 127);
    fader->setMinimumHeight(120);
    connect(fader, &QSlider::valueChanged, this, [this, i](int value) {
      const std::uint8_t message[] = {kControl, static_cast<std::uint8_t>(kFirstControl + i),
                                      static_cast<std::uint8_t>(value)};
      device_.send(message);
    });
    row->addWidget(fader);
  }
  return box;
}

void SurfaceWindow::showLamp(int note, int value) {
  const int pad = note - kFirstNote;
  if (pad < 0 || pad >= kPads) return;
  // As brightly as it is told.
  setSheet(*pads_[static_cast<std::size_t>(pad)],
           value > 0 ? QStringLiteral("background: rgba(240, 128, 60, %1)").arg(40 + value) : QString());
}

}  // namespace chispa::desk
