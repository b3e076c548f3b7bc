// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "core/files/svgfile.h"
#include "desk/session/session.h"

namespace chispa::desk {

class GlowView;
class PlanLists;
class PlanView;
class ToolRow;

/// How the lines or holes of a drawing become LEDs.
struct SvgImport {
  bool takesHoles = true;
  HoleOrder order = HoleOrder::Nearest;
  /// Length of the drawing's own unit; 0 as the drawing says.
  double metresPerUnit = 0;
};

/// The outline of words as strip.
struct LetteringWish {
  QString words;
  QString font;
  double height_m = 0.5;
};

/// The Plan workspace: lists, tools, the plan and the glow, and what goes into and out of them as files.
class PlanPage : public QWidget {
  Q_OBJECT
 public:
  explicit PlanPage(const Session& session, QWidget* parent = nullptr);

  PlanView& view() { return *view_; }
  GlowView& glow() { return *glow_; }

  // Each asks for what is not given.
  /// Makes a fixture of the points in a file.
  void importPoints(QString path = {}, double metresPerUnit = 1);
  /// Makes a fixture of the holes or lines of an SVG drawing.
  void importSvg(QString path = {}, std::optional<SvgImport> how = {});
  /// Makes a fixture along the outline of words.
  void addLettering(std::optional<LetteringWish> wish = {});
  /// Lays a photo or drawing beneath the plan, on the face that is looked at.
  void addUnderlay(QString path = {});
  /// Writes the places of the selected fixtures' pixels, as a table or a JSON list by the file's ending.
  void exportPoints(QString path = {});
  /// Writes the plan as it is looked at, with lengths, cut list and pixel numbers, as SVG or PDF by the
  /// file's ending.
  void exportPlan(QString path = {});

  /// F2: edits the name of what is selected, in the list.
  void renameSelected();
  /// Draws lists and icons in the colours of the theme.
  void refreshTheme();
  /// Remembers the selected fixture's zones, and gives them to the selected fixtures.
  void copyZones();
  void pasteZones();

 signals:
  /// Something could not be read or written.
  void failed(const QString& words);

 protected:
  void resizeEvent(QResizeEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void placeGlow();
  /// Adds a fixture by `add`, selects and shows it.
  void addAndShow(const QString& name, const std::function<FixtureId(Show&)>& add);
  /// A frame in which drawings stand as they are looked at.
  Placement facing() const;

  Session session_;
  PlanView* view_;
  GlowView* glow_;
  PlanLists* lists_;
  ToolRow* tools_;
  FixtureId copied_;
};

}  // namespace chispa::desk
