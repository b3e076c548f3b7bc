// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <unordered_map>

#include <QAbstractScrollArea>

#include "desk/parts/pieces.h"
#include "desk/score/curvehand.h"
#include "desk/session/session.h"

namespace chispa::desk {

class ClipPictures;

/// Bars, waveform, mark lanes, and a stave a zone with clips drawn as what they will look like. Clips are
/// dragged and resized with snap to marks; the ruler scrubs; M places a mark; Enter adds a clip of the chosen
/// effect.
class TimelineView : public QAbstractScrollArea, public PieceTeller {
  Q_OBJECT
 public:
  TimelineView(const Session& session, ClipPictures& pictures, QWidget* parent = nullptr);

  /// What Enter, double click and dropping add: an effect's key, or the words of chosenThing().
  void setChosenEffect(const QString& key) { chosenEffect_ = key; }
  QString chosenEffect() const { return chosenEffect_; }
  void setChosenPalette(PaletteId id) { chosenPalette_ = id; }
  /// The chosen palette, or the show's first where none is.
  PaletteId paletteForNew() const;
  ZoneId chosenZone() const { return chosenZone_; }
  void zoomBy(double factor);
  void zoomToAll();
  void placeMark();
  /// Adds a clip of `effect` on `zone` that begins at the beat nearest to `at` and lasts to the next bar but
  /// one; `params` are said of it besides.
  ClipId addClipAt(const QString& effect, ZoneId zone, Micros at, const ParamValues& params = {});
  /// Where the clip or the instant is drawn, in the viewport's coordinates.
  QRectF clipBox(ClipId id) const;
  double xOf(Micros t) const;
  QRectF staveBox(ZoneId zone) const;
  /// Brings a clip, or an instant, into view.
  void reveal(ClipId id);
  void reveal(Micros at);
  /// The stretch of time that is seen.
  TimeSpan seen() const { return {timeAt(headWidth()), timeAt(viewport()->width()) - timeAt(headWidth())}; }
  /// The spectrum in place of the waveform.
  void showSpectrum(bool on);
  bool showsSpectrum() const { return showsSpectrum_; }
  /// Opens a field for the name of a folder of staves, at its head.
  void editFolderName(const QString& name);
  /// What is told of the clip or mark there, in the viewport's coordinates; empty where nothing is.
  QString tipAt(QPointF at) const;

  int toldCount() const override;
  ToldPiece told(int i) const override;
  void selectTold(int i) override;
  int selectedTold() const override;

 signals:
  void zoneChosen(chispa::ZoneId zone);
  /// Another stretch of time is seen.
  void seenChanged();
  /// A piece of music was dropped.
  void musicDropped(const QString& file);
  /// The head of the chosen stave was clicked with the right button, there on the screen.
  void staveMenuAsked(QPoint at);

 protected:
  bool viewportEvent(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dragMoveEvent(QDragMoveEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void scrollContentsBy(int dx, int dy) override;

 private:
  /// A stave, or the head of a folder of staves, which has no zone.
  struct StaveRow {
    ZoneId zone;
    double top = 0;
    double height = 0;
    int layers = 1;
    QString folder;
    /// The layer that has room for curves, and how much more it has than the others.
    int tallLayer = -1;
    double extra = 0;
  };
  enum class Drag { None, Scrub, Loop, Move, ResizeStart, ResizeEnd, Mark, Band, Curve, Stave };

  void relayout();
  void updateScrollBars();
  void follow();
  Micros timeAt(double x) const;
  double headWidth() const;
  double rulerHeight() const;
  double waveHeight() const;
  double laneHeight() const;
  double stavesTop() const;
  QRectF boxOf(const Clip& clip, const StaveRow& row) const;
  /// The one clip that is selected, if its curves can be drawn; null else.
  const Clip* curvedClip() const;
  const StaveRow* rowOf(ZoneId zone) const;
  const StaveRow* rowAt(double y) const;
  std::shared_ptr<const Clip> clipAt(QPointF at) const;
  std::optional<MarkId> markAt(QPointF at) const;
  /// Marks of the lanes that a frame reaches over.
  MarkIds marksIn(const QRectF& band) const;
  void pressMark(MarkId mark, Qt::KeyboardModifiers held);
  void dragMarks(QPointF to);
  /// The mark that is selected; null if none is.
  const Mark* chosenMark() const;
  /// Where a stave that is dropped at `y` comes to stand: above that of this zone, or last.
  ZoneId staveBelow(double y) const;
  bool isDragFar() const { return (pointer_ - pressed_).manhattanLength() > 4; }
  void paintRuler(QPainter& painter) const;
  void paintWave(QPainter& painter) const;
  void paintSpectrum(QPainter& painter, const Spectrogram& spectrum, QRectF area) const;
  void paintBands(QPainter& painter, const AnalysedAudio& audio, QRectF area) const;
  void paintLanes(QPainter& painter) const;
  /// How loud each bar is, as a ground, and how much is struck in it, as a line.
  void paintBarCurves(QPainter& painter, const AnalysedAudio& audio, double top) const;
  void paintLane(QPainter& painter, const MarkLane& lane, double top) const;
  void paintStaves(QPainter& painter);
  void paintStaveNames(QPainter& painter);
  void paintBand(QPainter& painter) const;
  void paintDraggedStave(QPainter& painter) const;
  void selectBand();
  void selectWithin(const QRectF& frame);
  void extendTo(const Clip& clip);
  /// Alt is held: what is dragged goes where the pointer is.
  static bool isUnsnapped();
  void cancelDrag();
  /// The stretch between press and pointer, from beat to beat, is the part that plays.
  void dragLoop();
  void zoomAbout(double factor, double x);
  void showMenu(QPoint at, QPoint global);
  void toggleFolder(const QString& name);
  void paintEffectName(QPainter& painter, const Clip& clip, QRectF box) const;
  void paintClip(QPainter& painter, const std::shared_ptr<const Clip>& clip, QRectF box, bool selected);
  void paintPlayhead(QPainter& painter) const;
  void paintEmpty(QPainter& painter) const;
  void dragClips(QPointF to);
  void dragEdge(QPointF to);
  Micros snap(Micros at, const ClipIds& without) const;
  /// Where a mark that is dragged to `at` comes to stand: on an onset that is near, unless Alt is held.
  Micros snapMark(Micros at) const;
  void dropFile(const QString& file, QPointF at);
  void givePalette(PaletteId palette, QPointF at);
  void nudge(int beats);
  void nudgeMarks(int steps);
  void chooseZone(ZoneId zone);

  Session session_;
  ClipPictures& pictures_;
  std::vector<StaveRow> rows_;
  /// Clips by their stave, in order of time, so that thousands are looked up quickly.
  std::unordered_map<ZoneId, std::vector<std::shared_ptr<const Clip>>> clipsOf_;
  double pxPerSecond_ = 24;
  bool isFitted_ = true;
  bool showsSpectrum_ = false;
  QString chosenEffect_ = QStringLiteral("ribbon");
  PaletteId chosenPalette_;
  ZoneId chosenZone_;

  CurveHand curves_;
  /// The stave that has room for the curves of the selected clip.
  ZoneId tall_;

  Drag drag_ = Drag::None;
  std::size_t stepAtPress_ = 0;
  QPointF pressed_;
  QPointF pointer_;
  /// The clips as they were when the drag began, so that it follows the pointer and not its own rounding.
  std::vector<Clip> dragged_;
  ClipId grabbed_;
  MarkId grabbedMark_;
};

}  // namespace chispa::desk
