// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QListWidget>

#include "desk/session/session.h"

namespace chispa::desk {

/// The effects with moving previews on the zone that is chosen; each can be dragged onto a stave.
class EffectShelf : public QListWidget {
  Q_OBJECT
 public:
  explicit EffectShelf(const Session& session, QWidget* parent = nullptr);

  void setZone(ZoneId zone);
  void setPalette(PaletteId palette);
  QString chosen() const;
  /// Draws every preview anew, a little later in time than before.
  void drawPreviews();

 signals:
  void effectChosen(const QString& key);

 protected:
  void startDrag(Qt::DropActions actions) override;

 private:
  Clip previewClip(const std::string& key) const;

  Session session_;
  ZoneId zone_;
  PaletteId palette_;
  double moved_s_ = 0;
};

}  // namespace chispa::desk
