// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <deque>
#include <map>
#include <memory>

#include <QImage>
#include <QObject>
#include <QThreadPool>

#include "desk/session/session.h"

namespace chispa::desk {

/// Pictures of clips, drawn on a worker and kept: what is asked for and not there yet comes a moment later,
/// and until then the last picture of the same clip serves. UI thread.
class ClipPictures : public QObject {
  Q_OBJECT
 public:
  explicit ClipPictures(const Session& session, QObject* parent = nullptr);
  ~ClipPictures() override;

  /// The newest picture of `clip`, of about so many dots; null if none was ever drawn.
  QImage picture(const std::shared_ptr<const Clip>& clip, int width, int height);
  /// True if nothing is being drawn.
  bool isIdle() const { return drawing_ == 0; }

 signals:
  void drawn();

 private:
  struct Entry {
    std::shared_ptr<const Clip> clip;
    std::shared_ptr<const Palette> palette;
    QSize size;
    /// What it was drawn from besides; see groundOf().
    int ground = -1;
    QImage image;
    bool wanted = false;
  };

  void request(Entry& entry);
  void noteChange(const Show& before);
  void noteCompiled();
  /// A number that changes with all that the clip's picture shows besides the clip and its palette.
  int groundOf(const Clip& clip) const;
  std::shared_ptr<const PaletteTable> tableFor(PaletteId id);

  Session session_;
  std::map<ClipId, Entry> entries_;
  /// Tables of the palettes as they are now.
  std::map<PaletteId, std::pair<std::shared_ptr<const Palette>, std::shared_ptr<const PaletteTable>>> tables_;
  /// Compilations so far, and how many of them brought other cells or other music.
  int compilations_ = 0;
  int grounds_ = 0;
  /// Compilations that may still bring them.
  int awaited_ = 0;
  QThreadPool pool_;
  int drawing_ = 0;
};

}  // namespace chispa::desk
