// SPDX-License-Identifier: GPL-3.0-or-later
#include <QKeyEvent>
#include <QListWidget>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/show/limits.h"
#include "core/zone/cells.h"
#include "desk/parts/format.h"
#include "desk/parts/nameditems.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// The parts of a zone in playing order, to be dragged into another.
class PartList : public QListWidget {
 public:
  PartList(const Session& session, ZoneId id) : session_(session), id_(id) {
    setObjectName(QStringLiteral("zoneParts"));
    setAccessibleName(Form::tr("Parts of the zone, in playing order"));
    setToolTip(Form::tr("Drag parts to reorder them; Ctrl+Up and Ctrl+Down move one, Delete removes it."));
    setDragDropMode(QAbstractItemView::InternalMove);
    setDefaultDropAction(Qt::MoveAction);
    setMinimumHeight(96);
    setMaximumHeight(220);
    QObject::connect(model(), &QAbstractItemModel::rowsMoved, this,
                     [this](const QModelIndex&, int from, int, const QModelIndex&, int to) {
                       // Not within the list's own move: the edit fills it anew.
                       QMetaObject::invokeMethod(
                           this, [this, from, to] { move(from, to > from ? to - 1 : to); },
                           Qt::QueuedConnection);
                     });
  }

  void fill() {
    const Zone* zone = chispa::find(session_.show().zones, id_);
    QStringList lines;
    for (const ZonePart& part : zone ? zone->parts : std::vector<ZonePart>{}) lines << lineOf(part);
    if (lines == shown_) return;
    const int row = currentRow();
    clear();
    addItems(lines);
    setCurrentRow(row);
    shown_ = lines;
  }

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  /// Delete is the list's own while it has the focus.
  bool event(QEvent* event) override {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete)
      event->accept();
    return QListWidget::event(event);
  }

 private:
  QString lineOf(const ZonePart& part) const {
    const Fixture* fixture = chispa::find(session_.show().fixtures, part.fixture);
    if (!fixture) return Form::tr("gone");
    QString line = text(fixture->name);
    if (part.segment && *part.segment < std::ssize(fixture->segments))
      line += QStringLiteral(" · ") + text(fixture->segments[static_cast<std::size_t>(*part.segment)].name);
    if (!part.runs.empty()) {
      int count = 0;
      for (const PixelRun& run : part.runs) count += run.count;
      line += Form::tr(" · %1 of it").arg(counted(count, Form::tr("one pixel"), Form::tr("%1 pixels")));
    }
    return part.reversed ? line + Form::tr(", backwards") : line;
  }

  void takeAway(int row) {
    session_.edit(Form::tr("remove a part from a zone"), [&](Show& show) {
      changeItem(show.zones, id_, [row](Zone& zone) {
        if (row < std::ssize(zone.parts)) zone.parts.erase(zone.parts.begin() + row);
      });
    });
    fill();
  }

  void move(int from, int to) {
    shown_.clear();
    session_.edit(Form::tr("rearrange a zone"), [&](Show& show) {
      moveZonePart(show, id_, static_cast<std::size_t>(from), static_cast<std::size_t>(to));
    });
    fill();
    setCurrentRow(to);
  }

  Session session_;
  ZoneId id_;
  QStringList shown_;
};

void PartList::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete && currentRow() >= 0) return takeAway(currentRow());
  const int by = event->key() == Qt::Key_Up ? -1 : event->key() == Qt::Key_Down ? 1 : 0;
  const int to = currentRow() + by;
  if (by == 0 || !(event->modifiers() & Qt::ControlModifier) || currentRow() < 0 || to < 0 || to >= count())
    return QListWidget::keyPressEvent(event);
  move(currentRow(), to);
}

/// Builds the form of one zone.
class ZoneForm {
 public:
  ZoneForm(Form& form, const Session& session, ZoneId id, PlanView& plan)
      : form_(form), session_(session), id_(id), plan_(plan) {}

  void build() {
    addHead();
    addCells();
    addDivide();
    addOrder();
    addCombine();
    addCentre();
    form_.addStretch();
  }

 private:
  std::function<const Zone*()> zone() const {
    return [session = session_, id = id_] { return chispa::find(session.show().zones, id); };
  }

  template <class T>
  Form::Get<T> get(std::function<T(const Zone&)> value) const {
    return [zone = zone(), value]() -> std::optional<T> { return zone() ? value(*zone()) : T{}; };
  }
  template <class T>
  Form::Set<T> set(const QString& name, std::function<void(Zone&, T)> change) const {
    return [session = session_, id = id_, name, change](T value) {
      session.edit(
          name, [&](Show& show) { changeItem(show.zones, id, [&](Zone& z) { change(z, value); }); },
          name + QStringLiteral("-field"));
    };
  }

  void addHead() {
    form_.addTitle(Form::tr("Zone"), [session = session_, zone = zone()]() -> std::optional<QString> {
      if (!zone()) return std::nullopt;
      const ZoneCells cells = cellsOf(session.show(), mapPixels(session.show()), *zone());
      return cells.rows > 1
                 ? Form::tr("%1 cells, %2 × %3").arg(cells.count()).arg(cells.columns).arg(cells.rows)
                 : counted(cells.count(), Form::tr("one cell"), Form::tr("%1 cells in a line"));
    });
    form_.addText("zoneName", Form::tr("Name"), get<QString>([](const Zone& z) { return text(z.name); }),
                  set<QString>(Form::tr("rename"), [](Zone& z, QString v) {
                    if (!v.trimmed().isEmpty()) z.name = v.trimmed().toStdString();
                  }));
    QStringList owners{Form::tr("every score")};
    std::vector<ScoreId> scores{ScoreId{}};
    for (const auto& score : session_.show().scores) {
      owners << Form::tr("only %1").arg(text(score->name));
      scores.push_back(score->id);
    }
    form_.addChoice(
        "zoneScore", Form::tr("Belongs to"), owners, get<int>([scores](const Zone& z) {
          return static_cast<int>(std::find(scores.begin(), scores.end(), z.score) - scores.begin());
        }),
        [session = session_, id = id_, scores](int v) {
          session.edit(Form::tr("owner of a zone"),
                       [&](Show& show) { setZoneScore(show, id, scores.at(static_cast<std::size_t>(v))); });
        });
  }

  void addCells() {
    form_.addChoice(
        "zoneLayout", Form::tr("Layout"),
        {Form::tr("in a line"), Form::tr("as strings"), Form::tr("as grids"), Form::tr("as one picture")},
        get<int>([](const Zone& z) { return static_cast<int>(z.layout); }),
        set<int>(Form::tr("zone layout"), [](Zone& z, int v) { z.layout = static_cast<ZoneLayout>(v); }));
    if (const Zone* own = chispa::find(session_.show().zones, id_); own && own->layout == ZoneLayout::Panels)
      addPanels(*own);
    form_.addNumber("pixelsPerCell", Form::tr("Pixels per cell"), {{}, 0, limits::kMaxPixelsOfSegment, 1, 0},
                    get<double>([](const Zone& z) { return z.pixelsPerCell; }),
                    set<double>(Form::tr("pixels per cell"),
                                [](Zone& z, double v) { z.pixelsPerCell = static_cast<int>(v); }));
    form_.addNote([]() -> std::optional<QString> {
      return Form::tr("0: each part is one cell. In a grid, cells are this many pixels each way.");
    });
    form_.addSwitch("playsAsOne", Form::tr("Parts in parallel"),
                    get<bool>([](const Zone& z) { return z.playsAsOne; }),
                    set<bool>(Form::tr("parts in parallel"), [](Zone& z, bool v) { z.playsAsOne = v; }));
  }

  /// Grids that are joined to one picture.
  void addPanels(const Zone& own) {
    form_.addNumber("panelsAcross", Form::tr("Panels in a row"), {{}, 0, 10'000, 1, 0},
                    get<double>([](const Zone& z) { return z.panelsAcross; }),
                    set<double>(Form::tr("panels in a row"),
                                [](Zone& z, double v) { z.panelsAcross = static_cast<int>(v); }));
    form_.addNote([]() -> std::optional<QString> {
      return Form::tr(
          "The first stands on the upper left. 0: every pixel where it hangs, turned panels too.");
    });
    if (own.panelsAcross == 0)
      form_.addSwitch("countsGaps", Form::tr("Include gaps"),
                      get<bool>([](const Zone& z) { return z.countsGaps; }),
                      set<bool>(Form::tr("gaps between panels"), [](Zone& z, bool v) { z.countsGaps = v; }));
  }

  void addDivide() {
    auto request = std::make_shared<DivideRequest>();
    request->by = Division::Parts;
    form_.addHeading(Form::tr("Divide"));
    form_.addChoice(
        "divideBy", Form::tr("Into"),
        {Form::tr("rows"), Form::tr("columns"), Form::tr("equal parts"), Form::tr("parts across"),
         Form::tr("parts upward"), Form::tr("segments"), Form::tr("fixtures"), Form::tr("every n-th")},
        [request]() -> std::optional<int> { return static_cast<int>(request->by); },
        [this_ = &form_, request](int v) {
          request->by = static_cast<Division>(v);
          this_->refresh();
        });
    form_.addNumber(
        "divideCount", Form::tr("How many (n)"), {{}, 2, 10'000, 1, 0},
        [request]() -> std::optional<double> { return request->n; },
        [this_ = &form_, request](double v) {
          request->n = static_cast<int>(v);
          this_->refresh();
        });
    form_.addText(
        "divideName", Form::tr("Named"),
        [request, zone = zone()]() -> std::optional<QString> {
          return text(request->base.empty() && zone() ? zone()->name : request->base);
        },
        [request](QString v) { request->base = v.trimmed().toStdString(); });
    form_.addChoice(
        "divideNumbers", Form::tr("Numbered"),
        {Form::tr("1, 2 … 12"), Form::tr("01, 02 … 12"), Form::tr("A, B, C …")},
        [request]() -> std::optional<int> { return static_cast<int>(request->numbering); },
        [request](int v) { request->numbering = static_cast<Numbering>(v); });
    form_.addSwitch(
        "divideAsCells", Form::tr("As cells of one zone"),
        [request]() -> std::optional<bool> { return request->asCells; },
        [request](bool v) { request->asCells = v; });
    form_.addButton(
        "divideZone", Form::tr("Divide"), Form::tr("Makes zones of the pieces; this one stays as it is"),
        [session = session_, id = id_, request] {
          session.edit(Form::tr("divide a zone"), [&](Show& show) { divideZone(show, id, *request); });
        });
    form_.addNote([session = session_, zone = zone(), request]() -> std::optional<QString> {
      if (!zone()) return std::nullopt;
      return counted(piecesOf(session.show(), *zone(), *request), Form::tr("That makes one piece."),
                     Form::tr("That makes %1 pieces."));
    });
  }

  void addOrder() {
    form_.addHeading(Form::tr("Playing order"));
    form_.addChoice(
        "zoneOrder", Form::tr("Order"),
        {Form::tr("as listed"), Form::tr("left to right"), Form::tr("front to back"), Form::tr("upward"),
         Form::tr("around"), Form::tr("outward")},
        get<int>([](const Zone& z) { return static_cast<int>(z.order); }),
        set<int>(Form::tr("playing order"), [](Zone& z, int v) { z.order = static_cast<ZoneOrder>(v); }));
    auto* parts = new PartList(session_, id_);
    form_.addWidget(parts);
    form_.addNote([parts]() -> std::optional<QString> {
      parts->fill();
      return std::nullopt;
    });
    form_.addButtons({{"reverseZone", Form::tr("Reverse"), Form::tr("Its last cell plays first"),
                       [session = session_, id = id_] {
                         session.edit(Form::tr("reverse a zone"), [&](Show& show) { reverseZone(show, id); });
                       }},
                      {"mirrorZone", Form::tr("Mirror halves"),
                       Form::tr("A zone of two halves that play as one"), [session = session_, id = id_] {
                         ZoneId made;
                         session.edit(Form::tr("mirror a zone"),
                                      [&](Show& show) { made = mirrorZone(show, id); });
                         session.selection.select(made);
                       }}});
  }

  void addCombine() {
    Items<Zone> all = session_.show().zones;
    remove(all, id_);
    const NamedItems<Zone> others(all);
    form_.addChoice(
        "combineZone", Form::tr("Combine with"), others.names,
        []() -> std::optional<int> { return std::nullopt; },
        [session = session_, id = id_, others](int v) {
          ZoneId made;
          session.edit(Form::tr("combine zones"),
                       [&](Show& show) { made = combineZones(show, id, others.idAt(v)); });
          session.selection.select(made);
        });
  }

  void addCentre() {
    form_.addHeading(Form::tr("Centre of angle and radius"));
    const std::pair<QString, double Vec3::*> axes[] = {{"X", &Vec3::x}, {"Y", &Vec3::y}, {"Z", &Vec3::z}};
    for (const auto& [name, axis] : axes)
      form_.addNumber(
          "zoneCentre" + name, name.toLower(), {"m", -limits::kLargest_m, limits::kLargest_m, 0.05, 3},
          [session = session_, zone = zone(), axis = axis]() -> std::optional<double> {
            return zone() ? cellsOf(session.show(), mapPixels(session.show()), *zone()).frame.centre_m.*axis
                          : 0;
          },
          [session = session_, id = id_, axis = axis](double v) {
            session.edit(
                Form::tr("move a zone's centre"),
                [&](Show& show) {
                  const Zone* now = chispa::find(show.zones, id);
                  Vec3 centre = now ? cellsOf(show, mapPixels(show), *now).frame.centre_m : Vec3{};
                  centre.*axis = v;
                  changeItem(show.zones, id, [&](Zone& z) { z.centre_m = centre; });
                },
                QStringLiteral("zone-centre"));
          });
    form_.addButtons({{"pickCentre", Form::tr("On the plan…"), Form::tr("Click the centre on the plan"),
                       [&plan = plan_] { plan.setTool(PlanTool::Centre); }},
                      {"middleCentre", Form::tr("The middle"),
                       Form::tr("Measure from the middle of the zone again"), [session = session_, id = id_] {
                         session.edit(Form::tr("move a zone's centre"), [&](Show& show) {
                           changeItem(show.zones, id, [](Zone& z) { z.centre_m.reset(); });
                         });
                       }}});
  }

  Form& form_;
  Session session_;
  ZoneId id_;
  PlanView& plan_;
};

}  // namespace

std::unique_ptr<Form> makeZoneForm(const Session& session, ZoneId id, PlanView& plan) {
  auto form = std::make_unique<Form>();
  ZoneForm(*form, session, id, plan).build();
  return form;
}

QString zoneFormKey(const Session& session, ZoneId id) {
  const Zone* own = chispa::find(session.show().zones, id);
  const bool isJoined = own && own->layout == ZoneLayout::Panels;
  return QStringLiteral("%1/%2/%3")
      .arg(session.show().zones.size())
      .arg(session.show().scores.size())
      .arg(!isJoined                ? 0
           : own->panelsAcross == 0 ? 1
                                    : 2);
}

}  // namespace chispa::desk
