// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/inspector.h"

#include <QApplication>
#include <QLineEdit>
#include <QScrollBar>
#include <QTimer>

#include "core/base/overloaded.h"
#include "core/edit/wireedits.h"
#include "desk/plan/forms/planforms.h"
#include "desk/run/nightforms.h"
#include "desk/run/runforms.h"
#include "desk/score/palette/paletteform.h"
#include "desk/score/scoreforms.h"
#include "desk/wire/powerforms.h"
#include "desk/wire/wireforms.h"

namespace chispa::desk {
namespace {

constexpr int kWidth = 284;

}  // namespace

Inspector::Inspector(const Session& session, PlanView& plan, QWidget* parent)
    : QScrollArea(parent), session_(session), plan_(plan) {
  setObjectName(QStringLiteral("inspector"));
  setAccessibleName(tr("Inspector"));
  setMinimumWidth(kWidth);
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
  return std::visit(
      Overloaded{
          [&](const ClipIds& ids) { return clipFormKey(session_, ids); },
          [&](ZoneId id) { return zoneFormKey(session_, {id}); },
          [&](const ZoneIds& ids) { return zoneFormKey(session_, ids); },
          [&](const ControllerIds& ids) { return controllerFormKey(session_, ids); },
          [&](ScoreId id) { return scoreFormKey(session_, id); },
          [&](const FixtureIds& ids) { return fixtureFormKey(session_, ids); },
          [&](const BeadPlace& place) {
            const Bead* bead = beadAt(show, {place.controller, place.port, place.bead});
            if (!bead) return QString();
            return QStringLiteral("%1/%2/%3/")
                       .arg(bead->count)
                       .arg(bead->fixture.value)
                       .arg(bead->injections.size()) +
                   suppliesKey(show);
          },
          [&](const PortChoice&) {
            QString key;
            for (const UnwiredPiece& piece : unwiredPieces(show))
              key += QStringLiteral("%1:%2:%3 ").arg(piece.fixture.value).arg(piece.first).arg(piece.count);
            return key;
          },
          [&](LookId id) { return lookFormKey(session_, id); },
          [&](LayerChoice layer) { return layerFormKey(session_, layer.look, layer.layer); },
          [&](BindingId id) { return bindingFormKey(session_, id); },
          [&](LineChoice choice) { return setListLineFormKey(session_, choice); },
          [&](RuleId id) { return ruleFormKey(session_, id); },
          [&](AlmanacChoice) { return almanacFormKey(session_); },
          [&](ControllerId id) { return controllerFormKey(session_, {id}); },
          [&](std::monostate) { return suppliesKey(show); }, [](const auto&) { return QString(); }},
      session_.selection.now());
}

void Inspector::update() {
  session_.selection.prune(session_.show(), session_.stage.score());
  if (shown_ == session_.selection.now() && shownKey_ == formKey())
    form_->refresh();
  else
    rebuild();
}

/// What the maker has in hand in a form: where the keyboard is, what is half typed there, and how far it is
/// scrolled.
struct Inspector::InHand {
  QString field;
  QString typed;
  int cursor = 0;
  int selectedFrom = -1;
  int selectedLength = 0;
  bool isModified = false;
  int scrolled = 0;
};

namespace {

QLineEdit* lineOf(QWidget* field) {
  if (auto* line = qobject_cast<QLineEdit*>(field)) return line;
  return field ? field->findChild<QLineEdit*>() : nullptr;
}

}  // namespace

Inspector::InHand Inspector::inHand() const {
  InHand hand;
  hand.scrolled = verticalScrollBar()->value();
  QWidget* focus = QApplication::focusWidget();
  if (!form_ || !focus || !form_->isAncestorOf(focus)) return hand;
  // A number's text field has no name of its own.
  while (focus->objectName().isEmpty() || focus->objectName().startsWith(QStringLiteral("qt_")))
    focus = focus->parentWidget();
  hand.field = focus->objectName();
  if (const QLineEdit* line = lineOf(focus)) {
    hand.typed = line->text();
    hand.cursor = line->cursorPosition();
    hand.selectedFrom = line->selectionStart();
    hand.selectedLength = line->selectionLength();
    hand.isModified = line->isModified();
  }
  return hand;
}

void Inspector::giveBack(const InHand& hand) {
  QWidget* field = hand.field.isEmpty() ? nullptr : form_->findChild<QWidget*>(hand.field);
  if (field && field->isEnabled()) {
    field->setFocus();
    if (QLineEdit* line = lineOf(field)) {
      if (hand.isModified) {
        line->setText(hand.typed);
        line->setModified(true);
      }
      line->setCursorPosition(hand.cursor);
      if (hand.selectedFrom >= 0) line->setSelection(hand.selectedFrom, hand.selectedLength);
    }
  }
  // The form takes its height with the next layout.
  QTimer::singleShot(0, this, [this, scrolled = hand.scrolled] { verticalScrollBar()->setValue(scrolled); });
}

void Inspector::rebuild() {
  session_.selection.prune(session_.show(), session_.stage.score());
  const bool isSame = shown_ == session_.selection.now();
  const InHand hand = isSame ? inHand() : InHand{};
  shown_ = session_.selection.now();
  shownKey_ = formKey();
  auto form = std::visit(
      Overloaded{[&](std::monostate) { return makeShowForm(session_); },
                 [&](const FixtureIds& ids) { return makeFixtureForm(session_, ids, plan_); },
                 [&](const ClipIds& ids) { return makeClipForm(session_, ids); },
                 [&](ZoneId id) { return makeZoneForm(session_, {id}, plan_); },
                 [&](const ZoneIds& ids) { return makeZoneForm(session_, ids, plan_); },
                 [&](PaletteId id) { return makePaletteForm(session_, id); },
                 [&](UnderlayId id) { return makeUnderlayForm(session_, id, plan_); },
                 [&](StripTypeId id) { return makeStripTypeForm(session_, id); },
                 [&](ScoreId id) { return makeScoreForm(session_, id); },
                 [&](const MarkIds& ids) {
                   return ids.size() == 1 ? makeMarkForm(session_, ids.front()) : makeMarksForm(session_);
                 },
                 [&](LookId id) { return makeLookForm(session_, id); },
                 [&](LayerChoice layer) { return makeLayerForm(session_, layer.look, layer.layer); },
                 [&](BindingId id) { return makeBindingForm(session_, id); },
                 [&](DeskInputId id) { return makeDeskInputForm(session_, id); },
                 [&](SetListId id) { return makeSetListForm(session_, id); },
                 [&](LineChoice choice) { return makeSetListLineForm(session_, choice); },
                 [&](RuleId id) { return makeRuleForm(session_, id); },
                 [&](AlmanacChoice) { return makeAlmanacForm(session_); },
                 [&](ControllerId id) { return makeControllerForm(session_, {id}); },
                 [&](const ControllerIds& ids) { return makeControllerForm(session_, ids); },
                 [&](PortChoice port) { return makePortForm(session_, {port}); },
                 [&](const PortChoices& ports) { return makePortForm(session_, ports); },
                 [&](const BeadPlace& place) { return makeBeadForm(session_, {place}); },
                 [&](const BeadPlaces& places) { return makeBeadForm(session_, places); }},
      shown_);
  form->setObjectName(QStringLiteral("panel"));
  // takeWidget keeps the old rows alive until their own signals have ended.
  if (QWidget* old = takeWidget()) old->deleteLater();
  form_ = form.release();
  setWidget(form_);
  form_->show();
  if (isSame) giveBack(hand);
}

}  // namespace chispa::desk
