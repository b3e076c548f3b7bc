// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>

#include "core/colour/palette.h"

namespace chispa::desk {

/// Which stop of a palette is at hand; shared by the parts of its editor. UI thread.
class ChosenStop : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

  /// Its number, held within the palette's stops.
  std::size_t of(const Palette& palette) const;
  /// The stop itself; black if the palette has none.
  ColourStop in(const Palette& palette) const;
  void choose(std::size_t index);

 signals:
  /// Another one is at hand, or it has changed.
  void changed();

 private:
  std::size_t index_ = 0;
};

}  // namespace chispa::desk
