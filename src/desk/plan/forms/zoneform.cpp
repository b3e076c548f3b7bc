// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/show/finditems.h"
#include "core/show/limits.h"
#include "core/zone/cells.h"
#include "desk/parts/format.h"
#include "desk/parts/nameditems.h"
#include "desk/parts/several.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/forms/zoneparts.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// Builds the form of one zone, or of what several have in common.
class ZoneForm {
 public:
  ZoneForm(Form& form, const Session& session, ZoneIds ids, PlanView& plan)
      : form_(form), session_(session), ids_(std::move(ids)), id_(ids_.front()), plan_(plan) {}

  void build() {
    isOne() ? addHead() : addHeadOfSeveral();
    addOwner();
    addLevel();
    addCells();
    if (isOne()) addDivide();
    addOrder();
    if (isOne()) {
      addParts();
      addCombine();
      addCentre();
    }
    form_.addStretch();
  }

 private:
  bool isOne() const { return ids_.size() == 1; }
  std::function<const Zone*()> zone() const {
    return [session = session_, id = id_] { return chispa::find(session.show().zones, id); };
  }
  std::function<std::vector<const Zone*>()> zones() const {
    return [session = session_, ids = ids_] { return findAll(session.show().zones, ids); };
  }

  template <class T>
  Form::Get<T> get(std::function<T(const Zone&)> value) const {
    return [zones = zones(), value]() -> std::optional<T> { return sameOf(zones(), value); };
  }
  template <class T>
  Form::Set<T> set(const QString& name, std::function<void(Zone&, T)> change) const {
    return [session = session_, ids = ids_, name, change](T value) {
      session.edit(
          name, [&](Show& show) { changeItems(show.zones, ids, [&](Zone& z) { change(z, value); }); },
          name + QStringLiteral("-field"));
    };
  }

  void addHeadOfSeveral() {
    form_.addTitle(Form::tr("%1 zones").arg(ids_.size()),
                   [session = session_, zones = zones()]() -> std::optional<QString> {
                     const PixelMap map = mapPixels(session.show());
                     int cells = 0;
                     for (const Zone* one : zones()) cells += cellsOf(session.show(), map, *one).count();
                     return counted(cells, Form::tr("one cell"), Form::tr("%1 cells"));
                   });
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
  }

  void addOwner() {
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
        [session = session_, ids = ids_, scores](int v) {
          session.edit(Form::tr("owner of a zone"), [&](Show& show) {
            for (const ZoneId id : ids) setZoneScore(show, id, scores.at(static_cast<std::size_t>(v)));
          });
        });
  }

  /// How bright they are by hand now; it is light, not part of the show, and so nothing to undo.
  void addLevel() {
    form_.addNumber(
        "zoneLevel", Form::tr("Level now"), {"%", 0, 100, 5, 0},
        [session = session_, ids = ids_]() -> std::optional<double> {
          const engine::LiveSnapshot& live = session.stage.live();
          const auto level = [&](ZoneId id) {
            return std::round(live.state.zoneLevel(id, live.now.t) * 100.0);
          };
          const double first = level(ids.front());
          const bool isSame =
              std::all_of(ids.begin(), ids.end(), [&](ZoneId id) { return level(id) == first; });
          return isSame ? std::optional(first) : std::nullopt;
        },
        [session = session_, ids = ids_](double v) {
          for (const ZoneId id : ids)
            session.stage.play({LiveEvent::Kind::ZoneLevel, id.value, static_cast<float>(v / 100)});
        });
    form_.addNote([]() -> std::optional<QString> {
      return Form::tr("By hand, over all that plays; it is not kept in the show.");
    });
  }

  void addCells() {
    form_.addChoice(
        "zoneLayout", Form::tr("Layout"),
        {Form::tr("in a line"), Form::tr("as strings"), Form::tr("as grids"), Form::tr("as one picture")},
        get<int>([](const Zone& z) { return static_cast<int>(z.layout); }),
        set<int>(Form::tr("zone layout"), [](Zone& z, int v) { z.layout = static_cast<ZoneLayout>(v); }));
    if (const Zone* own = zone()(); isOne() && own && own->layout == ZoneLayout::Panels) addPanels(*own);
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
    const Zone* own = zone()();
    auto request =
        std::make_shared<DivideRequest>(own ? usualDivision(session_.show(), *own) : DivideRequest{});
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
    if (!isOne())
      form_.addButton("reverseZone", Form::tr("Reverse"), Form::tr("Their last cells play first"),
                      [reverse = reverse()] { reverse(); });
  }

  std::function<void()> reverse() const {
    return [session = session_, ids = ids_] {
      session.edit(Form::tr("reverse a zone"), [&](Show& show) {
        for (const ZoneId id : ids) reverseZone(show, id);
      });
    };
  }

  void addParts() {
    auto* parts = new ZonePartList(session_, id_);
    form_.addWidget(parts);
    form_.addNote([parts]() -> std::optional<QString> {
      parts->fill();
      return std::nullopt;
    });
    form_.addButtons({{"reverseZone", Form::tr("Reverse"), Form::tr("Its last cell plays first"), reverse()},
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
  ZoneIds ids_;
  /// The first of them.
  ZoneId id_;
  PlanView& plan_;
};

}  // namespace

std::unique_ptr<Form> makeZoneForm(const Session& session, const ZoneIds& ids, PlanView& plan) {
  auto form = std::make_unique<Form>();
  ZoneForm(*form, session, ids, plan).build();
  return form;
}

QString zoneFormKey(const Session& session, const ZoneIds& ids) {
  const Zone* own = ids.size() == 1 ? chispa::find(session.show().zones, ids.front()) : nullptr;
  const bool isJoined = own && own->layout == ZoneLayout::Panels;
  return QStringLiteral("%1/%2/%3")
      .arg(session.show().zones.size())
      .arg(session.show().scores.size())
      .arg(!isJoined                ? 0
           : own->panelsAcross == 0 ? 1
                                    : 2);
}

}  // namespace chispa::desk
