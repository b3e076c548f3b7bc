// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/score/palette/paletteaccess.h"

namespace chispa::desk {

/// A palette as each strip type of the show can really show it, a row a type. UI thread.
class StripLooks : public QWidget {
  Q_OBJECT
 public:
  explicit StripLooks(PaletteAccess palette, QWidget* parent = nullptr);

  /// Takes over how many strip types there are now.
  void refresh();
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  int rowHeight() const;

  PaletteAccess palette_;
};

}  // namespace chispa::desk
