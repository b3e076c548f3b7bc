// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QHash>
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
  /// The chosen effect begins from its next setting, behind the last one as it is by itself.
  void nextSetting();
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
  void addEffect(const Effect& effect, const QString& name);
  /// The item says which setting its effect begins from.
  void showSetting(QListWidgetItem& item, const Effect& effect);
  /// The effect of Chispa that is chosen, or null.
  const Effect* chosenEffect() const;
  /// What `effect` begins from when it is taken from here; -1 for itself.
  void setSetting(const Effect& effect, int setting);
  void addThing(const QString& name, const QString& words, const QString& tip, bool isOwn);
  void rename(QListWidgetItem* item);
  void removeChosen();

  Session session_;
  ZoneId zone_;
  PaletteId palette_;
  /// By effect's key; what is not here is as the effect is by itself.
  QHash<QString, int> settings_;
  double moved_s_ = 0;
  bool filling_ = false;
  bool renaming_ = false;
};

}  // namespace chispa::desk
