// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/planpage.h"

#include <QEvent>
#include <QFileDialog>
#include <QFontMetricsF>
#include <QInputDialog>
#include <QPainterPath>
#include <QVBoxLayout>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/files/pointfile.h"
#include "core/files/showfile.h"
#include "desk/glow/glowview.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/plan/importdialogs.h"
#include "desk/plan/planlists.h"
#include "desk/plan/plansheet.h"
#include "desk/plan/planview.h"
#include "desk/plan/toolrow.h"
#include "desk/plan/underlaypictures.h"
#include "desk/session/patience.h"

namespace chispa::desk {
namespace {

/// What a drawing file holds; lengths as the file says them if `metresPerUnit` is 0. Any thread.
Result<SvgDrawing> svgIn(const std::string& file, double metresPerUnit) {
  const auto content = readFile(file);
  if (!content) return content.failure();
  return parseSvg(*content, file, metresPerUnit);
}

}  // namespace

PlanPage::PlanPage(const Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      view_(new PlanView(session)),
      glow_(new GlowView(session.stage, view_)),
      lists_(new PlanLists(session)) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(lists_);
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  tools_ = new ToolRow(*view_, this);
  column->addWidget(tools_);
  column->addWidget(view_, 1);
  row->addLayout(column, 1);
  view_->installEventFilter(this);
}

void PlanPage::addAndShow(const QString& name, const std::function<FixtureId(Show&)>& add) {
  FixtureId added;
  session_.edit(name, [&](Show& show) { added = add(show); });
  if (!added) return;
  session_.selection.select(FixtureIds{added});
  view_->frameAll();
}

Placement PlanPage::facing() const {
  const PlanProjection& p = view_->projection();
  return placementOf({}, {p.right(), p.up(), p.toEye()});
}

void PlanPage::importPoints(QString path, double metresPerUnit) {
  if (path.isEmpty()) {
    path = QFileDialog::getOpenFileName(this, tr("Points from a file"), {},
                                        tr("Points (*.csv *.txt *.json);;All files (*)"));
    if (path.isEmpty()) return;
    bool chosen = false;
    const QString unit = QInputDialog::getItem(this, tr("Points from a file"), tr("The numbers are in"),
                                               {tr("metres"), tr("millimetres")}, 0, false, &chosen);
    if (!chosen) return;
    metresPerUnit = unit == tr("metres") ? 1 : 0.001;
  }
  const auto content = readFile(path.toStdString());
  const auto points = content ? parsePoints(*content, path.toStdString(), metresPerUnit)
                              : Result<std::vector<Vec3>>(content.failure());
  if (!points) {
    emit failed(said(points.failure()));
    return;
  }
  addAndShow(tr("import points"), [&](Show& show) { return addFixture(show, PointsShape{*points}, {}); });
}

void PlanPage::importSvg(QString path, std::optional<SvgImport> how) {
  if (path.isEmpty())
    path = QFileDialog::getOpenFileName(this, tr("Holes or lines of a drawing"), {},
                                        tr("SVG drawings (*.svg);;All files (*)"));
  if (path.isEmpty()) return;
  const auto read = [&](double unit) {
    return makePatiently<Result<SvgDrawing>>(this, tr("Reading “%1” …").arg(path),
                                             [file = path.toStdString(), unit] { return svgIn(file, unit); });
  };
  auto drawn = read(how ? how->metresPerUnit : 0);
  if (!drawn) return;
  if (!*drawn) return emit failed(said(drawn->failure()));
  if (!how) {
    how = askSvgImport(this, **drawn);
    if (!how) return;
    if (how->metresPerUnit > 0) drawn = read(how->metresPerUnit);
    if (!drawn) return;
    if (!*drawn) return emit failed(said(drawn->failure()));
  }
  const Result<SvgDrawing>& drawing = *drawn;
  const std::string name = std::filesystem::path(path.toStdString()).stem().string();
  const Placement place = facing();
  if (how->takesHoles && drawing->circles.empty())
    return emit failed(tr("The drawing has no holes.\n%1\nTake its lines instead.").arg(path));
  if (!how->takesHoles && drawing->outlines.empty())
    return emit failed(tr("The drawing has no lines.\n%1\nTake its holes instead.").arg(path));
  addAndShow(tr("import a drawing"), [&](Show& show) {
    if (!how->takesHoles) return addOutlines(show, name, drawing->outlines, place);
    const FixtureId id = addFixture(show, PointsShape{holesInOrder(*drawing, how->order)}, place.position_m,
                                    place.rotation_deg);
    const std::string own = freeName(show.fixtures, name);
    changeItem(show.fixtures, id, [&](Fixture& f) { f.name = own; });
    // Its zone is the last that was made, and goes by the same name.
    const ZoneId zone = show.zones.back()->id;
    const std::string zoneName = freeName(show.zones, name);
    changeItem(show.zones, zone, [&](Zone& z) { z.name = zoneName; });
    return id;
  });
}

void PlanPage::addLettering(std::optional<LetteringWish> wish) {
  if (!wish) wish = askLettering(this);
  if (!wish || wish->words.trimmed().isEmpty()) return;
  constexpr double kUnits = 100;
  QFont font(wish->font);
  font.setPointSizeF(kUnits);
  QPainterPath path;
  path.addText(0, 0, font, wish->words);
  const double scale = wish->height_m / std::max(1.0, QFontMetricsF(font).capHeight());
  std::vector<Outline> outlines;
  for (const QPolygonF& polygon : path.toSubpathPolygons()) {
    Outline outline;
    for (const QPointF& p : polygon) outline.corners_m.push_back({p.x() * scale, -p.y() * scale, 0});
    if (outline.corners_m.size() >= 2) outlines.push_back(std::move(outline));
  }
  addAndShow(tr("add lettering"), [&](Show& show) {
    return addOutlines(show, wish->words.trimmed().toStdString(), outlines, facing());
  });
}

void PlanPage::addUnderlay(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getOpenFileName(
        this, tr("Lay a picture beneath the plan"), {},
        tr("Pictures (*.png *.jpg *.jpeg *.svg *.bmp *.gif *.webp);;All files (*)"));
  if (path.isEmpty()) return;
  const QString place = UnderlayPictures::pathOf(session_.document, path.toStdString());
  const auto read = makePatiently<QImage>(this, tr("Reading “%1” …").arg(path),
                                          [place] { return UnderlayPictures::read(place); });
  if (!read) return;
  const QImage& picture = *read;
  if (picture.isNull())
    return emit failed(
        tr("This is no picture that can be shown.\n%1\nChoose a PNG, JPEG or SVG file.").arg(path));
  // It fills what is in view; two clicks and a distance give it its true size.
  const double wide = view_->width() * 0.8 / view_->scale();
  Underlay underlay;
  const std::filesystem::path file = path.toStdString();
  const auto folder = session_.document.path().parent_path();
  const auto within = folder.empty() ? std::filesystem::path() : file.lexically_relative(folder);
  underlay.file = within.empty() || within.string().starts_with("..") ? file.string() : within.string();
  underlay.name = file.stem().string();
  underlay.face = view_->side() == PlanSide::Front  ? UnderlayFace::Front
                  : view_->side() == PlanSide::Side ? UnderlayFace::Side
                                                    : UnderlayFace::Floor;
  if (view_->side() == PlanSide::Free || view_->side() == PlanSide::Unrolled) view_->setSide(PlanSide::Top);
  underlay.scale_m = wide / picture.width();
  underlay.position_m =
      view_->projection().lifted(view_->toPlan(QPointF(view_->width() / 2.0, view_->height() / 2.0)));
  session_.edit(tr("add an underlay"), [&](Show& show) {
    underlay.id = show.newId<UnderlayId>();
    put(show.underlays, underlay);
  });
  view_->underlays().keep(UnderlayPictures::pathOf(session_.document, underlay.file), picture);
  session_.selection.select(underlay.id);
}

void PlanPage::exportPoints(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("Places of the selected pixels"), tr("points.csv"),
                                        tr("Table (*.csv);;JSON point list (*.json)"));
  if (path.isEmpty()) return;
  std::vector<Vec3> points;
  for (const FixtureId id : session_.selection.fixtures())
    for (const Vec3& point : positions(*chispa::find(session_.show().fixtures, id))) points.push_back(point);
  const Outcome written = writeFileAtomically(
      path.toStdString(), path.endsWith(QStringLiteral(".json")) ? pointsJson(points) : pointsCsv(points));
  if (!written) emit failed(said(written.failure()));
}

void PlanPage::exportPlan(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("The plan for the workshop wall"), tr("plan.pdf"),
                                        tr("PDF (*.pdf);;SVG (*.svg)"));
  if (path.isEmpty()) return;
  const PlanProjection projection =
      view_->side() == PlanSide::Unrolled ? PlanProjection() : view_->projection();
  if (!writePlanSheet(session_.show(), projection, path))
    emit failed(
        tr("The plan could not be written.\n%1\nCheck that the folder exists and has room.").arg(path));
}

void PlanPage::copyZones() {
  const FixtureIds ids = session_.selection.fixtures();
  if (ids.size() == 1)
    copied_ = ids.front();
  else
    emit failed(tr("Zones are copied from one fixture.\nSelect just one."));
}

void PlanPage::pasteZones() {
  const FixtureIds ids = session_.selection.fixtures();
  if (!copied_ || ids.empty())
    return emit failed(
        tr("There is nothing to paste.\nSelect a fixture and copy its zones, then select others of like "
           "shape."));
  Show after = session_.show();
  for (const FixtureId id : ids) {
    if (id == copied_) continue;
    const auto made = chispa::copyZones(after, copied_, id);
    if (!made) return emit failed(said(made.failure()));
  }
  session_.edit(tr("paste zones"), [&](Show& show) { show = after; });
}

void PlanPage::refreshTheme() {
  lists_->refill();
  tools_->refreshIcons();
}

void PlanPage::renameSelected() {
  lists_->renameSelected();
}

void PlanPage::placeGlow() {
  const int wide = std::clamp(view_->width() * 3 / 10, 160, 420);
  const int tall = wide * 2 / 3;
  glow_->setGeometry(view_->width() - wide - 12, view_->height() - tall - 12, wide, tall);
}

bool PlanPage::eventFilter(QObject* watched, QEvent* event) {
  if (watched == view_ && event->type() == QEvent::Resize) placeGlow();
  return QWidget::eventFilter(watched, event);
}

void PlanPage::resizeEvent(QResizeEvent*) {
  placeGlow();
}

}  // namespace chispa::desk
