// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QRect>
#include <QString>

class QWidget;

namespace chispa::desk {

/// One of the pieces that a view draws itself, in words.
struct ToldPiece {
  /// What it is called, and what else the eye sees of it.
  QString name;
  QString detail;
  /// On the view.
  QRect place;
  bool isSelected = false;
};

/// A view that tells its pieces to those who cannot see them: a screen reader meets a list of them, of which
/// each can be selected. The view is a QWidget. UI thread.
class PieceTeller {
 public:
  PieceTeller();
  virtual ~PieceTeller() = default;
  virtual int toldCount() const = 0;
  /// The `i`th piece, below toldCount().
  virtual ToldPiece told(int i) const = 0;
  virtual void selectTold(int i) = 0;
  /// The first that is selected, or −1.
  virtual int selectedTold() const = 0;
};

/// After the selection of `view`, a PieceTeller, has changed: the reader says what is selected now.
void sayWhatIsSelected(QWidget* view);

}  // namespace chispa::desk
