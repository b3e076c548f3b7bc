// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/inspector.h"

#include <QTimer>

#include "core/base/overloaded.h"
#include "core/edit/wireedits.h"
#include "desk/plan/forms/planforms.h"
#include "desk/score/palette/paletteform.h"
#include "desk/score/scoreforms.h"
#include "desk/wire/powerforms.h"
#include "desk/wire/wireforms.h"

namespace chispa::desk {
namespace {

constexpr int kWidth = 284;

}  // namespace

Inspector::Inspector(const Session& session, PlanView& plan, QWidget* parent) : QScrollArea(parent), session_(session), plan_(plan) {
  setObjectName(QStringLiteral("inspector"));
  setAccessibleName(tr("Inspector"));
  setFixedWidth(kWidth);
  setWidgetResizable(true);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(&session_.selection, &Selection::changed, this, &Inspector::update);
  // Queued: a field of the form may be the cause, and must not be deleted while it speaks.
  connect(&session_.document, &Document::showChanged, this, &Inspector::update, Qt::QueuedConnection);
  connect(&session_.document, &Document::opened, this, &Inspector::rebuild, Qt::QueuedConnection);
  connect(&session_.stage, &Stage::scoreChanged, this, &Inspector::update, Qt::QueuedConnection);
  connect(&session_.stage, &Stage::lightChanged, this, &Inspector::update, Qt::QueuedConnection);
  // Amps, packets and answers are of the moment.
  constexpr int kRefresh_ms = 1'000;
  auto* refresh = new QTimer(this);
  connect(refresh, &QTimer::timeout, this, [this] {
    if (session_.stage.isLit() && isVisible()) form_->refresh();
  });
  refresh->start(kRefresh_ms);
  rebuild();
}

QString Inspector::formKey() const {
  const Show& show = session_.show();
  return std::visit(Overloaded{[&](const ClipIds& ids) { return clipFormKey(session_, ids); },
                          [&](ZoneId id) { return zoneFormKey(session_, id); },
                          [&](ScoreId id) { return scoreFormKey(session_, id); },
                          [&](const FixtureIds& ids) { return fixtureFormKey(session_, ids); },
                          [&](const BeadPlace& place) {
                            const Bead* bead = beadAt(show, {place.controller, place.port, place.bead});
                            if (!bead) return QString();
                            return QStringLiteral("%1/%2/%3/").arg(bead->count).arg(bead->fixture.value).arg(bead->injections.size()) + suppliesKey(show);
                          },
                          [&](const PortChoice&) {
                            QString key;
                            for (const LoosePiece& piece : loosePieces(show)) key += QStringLiteral("%1:%2:%3 ").arg(piece.fixture.value).arg(piece.first).arg(piece.count);
                            return key;
                          },
                          [&](ControllerId id) { return controllerFormKey(session_, id); },
                          [&](std::monostate) { return suppliesKey(show); },
                          [](const auto&) { return QString(); }},
                    session_.selection.now());
}

void Inspector::update() {
  session_.selection.prune(session_.show(), session_.stage.score());
  if (shown_ == session_.selection.now() && shownKey_ == formKey())
    form_->refresh();
  else
    rebuild();
}

void Inspector::rebuild() {
  session_.selection.prune(session_.show(), session_.stage.score());
  shown_ = session_.selection.now();
  shownKey_ = formKey();
  auto form = std::visit(Overloaded{[&](std::monostate) { return makeShowForm(session_); },
                               [&](const FixtureIds& ids) { return makeFixtureForm(session_, ids, plan_); },
                               [&](const ClipIds& ids) { return makeClipForm(session_, ids); },
                               [&](ZoneId id) { return makeZoneForm(session_, id, plan_); },
                               [&](PaletteId id) { return makePaletteForm(session_, id); },
                               [&](UnderlayId id) { return makeUnderlayForm(session_, id, plan_); },
                               [&](StripTypeId id) { return makeStripTypeForm(session_, id); },
                               [&](ScoreId id) { return makeScoreForm(session_, id); },
                               [&](MarkId id) { return makeMarkForm(session_, id); },
                               [&](ControllerId id) { return makeControllerForm(session_, id); },
                               [&](PortChoice port) { return makePortForm(session_, port); },
                               [&](BeadPlace place) { return makeBeadForm(session_, place); }},
                         shown_);
  form->setObjectName(QStringLiteral("panel"));
  // takeWidget keeps the old rows alive until their own signals have ended.
  if (QWidget* old = takeWidget()) old->deleteLater();
  form_ = form.release();
  setWidget(form_);
  form_->show();
}

}  // namespace chispa::desk
