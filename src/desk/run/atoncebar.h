// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QComboBox;
class QPushButton;

namespace chispa::desk {

/// Light at once: an effect and a palette on some zones, lit with the click. It is a look like any other,
/// which the next choice changes until it is kept. UI thread.
class AtOnceBar : public QWidget {
  Q_OBJECT
 public:
  explicit AtOnceBar(const Session& session, QWidget* parent = nullptr);

  /// The look stays as it is; the next choice makes another.
  void keep();
  /// Ends the light and takes the look away.
  void letGo();
  /// Makes a palette of the colours of a part of the screen, which the maker draws, and lights with it.
  void takeColours();

 signals:
  void failed(const QString& words);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void fillEffects();
  void refill();
  void apply();
  void choosePalette(int index);
  void light(Show& show, PaletteId palette);
  void showLook();
  void take(const QImage& seen);
  std::vector<ZoneId> zones() const;
  void updateButtons();

  Session session_;
  LookId look_;
  QComboBox* zone_;
  QComboBox* effect_;
  QComboBox* palette_;
  /// What it is set to, beside the way to the screen.
  int chosenPalette_ = 0;
  QPushButton* keep_;
  QPushButton* off_;
};

}  // namespace chispa::desk
