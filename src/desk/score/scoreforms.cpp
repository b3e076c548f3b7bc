// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/scoreforms.h"

#include "core/edit/markedits.h"
#include "core/edit/markgroup.h"
#include "core/edit/scoreedits.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

/// The name of a lane, how many marks it has, and how it is taken away.
void addLane(Form& form, const Session& session, ScoreId id, std::size_t i) {
  const auto lane = [session, id, i]() -> const MarkLane* {
    const Score* score = find(session.show().scores, id);
    return score && i < score->lanes.size() ? &score->lanes[i] : nullptr;
  };
  const QString number = QString::number(i);
  form.addText(
      QStringLiteral("laneName-") + number, Form::tr("Lane"),
      [lane]() -> std::optional<QString> { return lane() ? text(lane()->name) : QString(); },
      [session, id, i](QString v) {
        if (v.trimmed().isEmpty()) return;
        session.edit(Form::tr("rename a lane"), [&](Show& show) {
          changeItem(show.scores, id, [&](Score& s) {
            if (i < s.lanes.size()) s.lanes[i].name = v.trimmed().toStdString();
          });
        });
      });
  form.addFact({}, [lane]() -> std::optional<QString> {
    return lane() ? counted(std::ssize(lane()->marks), Form::tr("one mark"), Form::tr("%1 marks"))
                  : QString();
  });
  form.addButton(QStringLiteral("removeLane-") + number, Form::tr("Remove"),
                 Form::tr("Removes the lane and its marks"), [session, id, lane] {
                   if (const MarkLane* gone = lane())
                     session.edit(Form::tr("remove a lane"),
                                  [&, laneId = gone->id](Show& show) { deleteLane(show, id, laneId); });
                 });
}

}  // namespace

std::unique_ptr<Form> makeScoreForm(const Session& session, ScoreId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return find(session.show().scores, id); };
  const auto change = [session, id](const QString& name, std::function<void(Score&)> set) {
    session.edit(
        name, [&](Show& show) { changeItem(show.scores, id, set); }, name + QStringLiteral("-field"));
  };
  form->addTitle(Form::tr("Score"), [get]() -> std::optional<QString> {
    return get() ? counted(std::ssize(get()->clips), Form::tr("one clip"), Form::tr("%1 clips")) : QString();
  });
  form->addText(
      "scoreName", Form::tr("Name"),
      [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
      [change](QString v) {
        if (!v.trimmed().isEmpty())
          change(Form::tr("rename"), [&](Score& s) { s.name = v.trimmed().toStdString(); });
      });
  form->addText(
      "scoreAudio", Form::tr("Audio file"),
      [get]() -> std::optional<QString> { return get() ? text(get()->audio) : QString(); },
      [change](QString v) {
        change(Form::tr("audio file"), [&](Score& s) { s.audio = v.trimmed().toStdString(); });
      });
  form->addNumber(
      "audioStart", Form::tr("Sound begins at"), {"s", -86'400, 86'400, 0.01, 3},
      [get]() -> std::optional<double> { return get() ? seconds(get()->audioStart) : 0; },
      [change](double v) {
        change(Form::tr("sound's beginning"), [&](Score& s) { s.audioStart = micros(v); });
      });
  form->addNumber(
      "scoreLength", Form::tr("Length"), {"s", 0.1, 86'400, 1, 2},
      [get]() -> std::optional<double> { return get() ? seconds(get()->length) : 1; },
      [change](double v) { change(Form::tr("length"), [&](Score& s) { s.length = micros(v); }); });
  form->addHeading(Form::tr("Lanes"));
  for (std::size_t i = 0; get() && i < get()->lanes.size(); ++i) addLane(*form, session, id, i);
  form->addStretch();
  return form;
}

QString scoreFormKey(const Session& session, ScoreId id) {
  const Score* score = find(session.show().scores, id);
  QString key;
  for (std::size_t i = 0; score && i < score->lanes.size(); ++i)
    key += QString::number(score->lanes[i].id.value) + QLatin1Char(' ');
  return key;
}

std::unique_ptr<Form> makeMarkForm(const Session& session, MarkId id) {
  auto form = std::make_unique<Form>();
  const auto place = [session, id] {
    const Score* score = session.stage.score();
    return score ? findMark(*score, id) : MarkPlace{};
  };
  const auto change = [session, id](const QString& name, const std::function<void(Mark&)>& set) {
    const Score* score = session.stage.score();
    if (score)
      session.edit(
          name, [&, scoreId = score->id](Show& show) { changeMark(show, scoreId, id, set); },
          name + QStringLiteral("-mark"));
  };
  const auto at = [place](Micros Mark::*member) {
    return [place, member]() -> std::optional<double> {
      return place().mark ? seconds(place().mark->*member) : 0;
    };
  };
  form->addTitle(Form::tr("Mark"), [place]() -> std::optional<QString> {
    return place().lane ? Form::tr("on the lane “%1”").arg(text(place().lane->name)) : QString();
  });
  form->addText(
      "markName", Form::tr("Name"),
      [place]() -> std::optional<QString> { return place().mark ? text(place().mark->text) : QString(); },
      [change](QString v) {
        change(Form::tr("name a mark"), [&](Mark& m) { m.text = v.trimmed().toStdString(); });
      });
  form->addNumber("markAt", Form::tr("At"), {"s", 0, 86'400, 0.01, 3}, at(&Mark::at), [change](double v) {
    change(Form::tr("move a mark"), [v](Mark& m) { m.at = micros(v); });
  });
  form->addNumber(
      "markLength", Form::tr("Lasts"), {"s", 0, 86'400, 0.1, 3}, at(&Mark::length),
      [change](double v) { change(Form::tr("mark's length"), [v](Mark& m) { m.length = micros(v); }); });
  form->addNote([]() -> std::optional<QString> {
    return Form::tr(
        "Arrow keys move it by 10 ms, Delete removes it. Dragging snaps to onsets, unless Alt is held.");
  });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makeMarksForm(const Session& session) {
  auto form = std::make_unique<Form>();
  form->addTitle(Form::tr("Marks"), [session]() -> std::optional<QString> {
    return Form::tr("%1 marks").arg(session.selection.marks().size());
  });
  const auto change = [session](const QString& name, auto edit) {
    return [session, name, edit] {
      const Score* score = session.stage.score();
      if (!score) return;
      const MarkIds ids = session.selection.marks();
      session.edit(name, [&, id = score->id](Show& show) { edit(show, id, ids); });
    };
  };
  form->addButtons({{QStringLiteral("marksSpread"), Form::tr("Spread evenly"),
                     Form::tr("Puts them at equal distances between the first and the last"),
                     change(Form::tr("spread marks"), spreadMarks)}});
  const auto quantised = [](LaneKind grid) {
    return [grid](Show& show, ScoreId id, const MarkIds& ids) { quantiseMarks(show, id, ids, grid); };
  };
  form->addButtons(
      {{QStringLiteral("marksToBeats"), Form::tr("To beats"), Form::tr("Moves each to the nearest beat"),
        change(Form::tr("marks to beats"), quantised(LaneKind::Beats))},
       {QStringLiteral("marksToBars"), Form::tr("To bars"),
        Form::tr("Moves each to the nearest beginning of a bar"),
        change(Form::tr("marks to bars"), quantised(LaneKind::Bars))}});
  form->addNumber(
      "marksStretch", Form::tr("Stretched to"), {"%", 1, 10'000, 5, 1}, [] { return std::optional(100.0); },
      [session](double percent) {
        const Score* score = session.stage.score();
        if (!score || percent == 100) return;
        session.edit(Form::tr("stretch marks"),
                     [&, id = score->id, ids = session.selection.marks()](Show& show) {
                       stretchMarks(show, id, ids, percent / 100);
                     });
      });
  form->addButtons({{QStringLiteral("marksDelete"), Form::tr("Delete"), Form::tr("Deletes them all"),
                     change(Form::tr("delete marks"), deleteMarks)}});
  form->addNote([]() -> std::optional<QString> {
    return Form::tr(
        "Shift selects up to a mark, Ctrl adds one; a frame drawn with Shift selects what is inside. They "
        "keep their distances when moved.");
  });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
