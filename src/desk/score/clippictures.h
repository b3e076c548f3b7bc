// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>
#include <QObject>
#include <QThreadPool>
#include <deque>
#include <map>
#include <memory>

#include "desk/session/session.h"

namespace chispa::desk {

/// Pictures of clips, drawn on a worker and kept: what is asked for and not there yet comes a moment later, and until
/// then the last picture of the same clip serves. UI thread.
class ClipPictures : public QObject {
  Q_OBJECT
 public:
  explicit ClipPictures(const Session& session, QObject* parent = nullptr);
  ~ClipPictures() override;

  /// The newest picture of `clip`; null if none was ever drawn.
  QImage picture(const std::shared_ptr<const Clip>& clip, int width, int height);
  /// True if nothing is being drawn.
  bool isIdle() const { return drawing_ == 0; }

 signals:
  void drawn();

 private:
  struct Entry {
    std::shared_ptr<const Clip> clip;
    std::shared_ptr<const Palette> palette;
    std::shared_ptr<const CompiledShow> compiled;
    QSize size;
    QImage image;
    bool wanted = false;
  };

  void request(Entry& entry);

  Session session_;
  std::map<ClipId, Entry> entries_;
  QThreadPool pool_;
  int drawing_ = 0;
};

}  // namespace chispa::desk
