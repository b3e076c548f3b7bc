// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QListWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The effects, the show's own ones and its blocks, with moving previews on the zone that is chosen; each can
/// be dragged onto a stave. F2 renames own ones and blocks, Delete takes them off.
class EffectShelf : public QListWidget {
  Q_OBJECT
 public:
  explicit EffectShelf(const Session& session, QWidget* parent = nullptr);

  void setZone(ZoneId zone);
  void setPalette(PaletteId palette);
  /// The words of what is chosen; see ChosenThing.
  QString chosen() const;
  void choose(const QString& words);
  /// Lists what the show has of its own anew.
  void refill();
  /// The chosen effect comes first from now on, or no longer; own effects and blocks have their place.
  void toggleFavourite();
  /// Shows only what has these words in its name or summary.
  void search(const QString& words);
  /// Draws every preview anew, a little later in time than before.
  void drawPreviews();

 signals:
  void effectChosen(const QString& words);
  /// Something could not be done, in words that say what to do.
  void told(const QString& words);

 protected:
  void startDrag(Qt::DropActions actions) override;
  bool event(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;

 private:
  Clip previewClip(const QString& words) const;
  void addThing(const QString& name, const QString& words, const QString& tip, bool isOwn);
  void rename(QListWidgetItem* item);
  void removeChosen();

  Session session_;
  ZoneId zone_;
  PaletteId palette_;
  double moved_s_ = 0;
  bool filling_ = false;
  bool renaming_ = false;
};

}  // namespace chispa::desk
