// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/scoreforms.h"

#include "core/edit/scoreedits.h"
#include "desk/parts/format.h"

namespace chispa::desk {

std::unique_ptr<Form> makeScoreForm(const Session& session, ScoreId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return find(session.show().scores, id); };
  const auto change = [session, id](const QString& name, std::function<void(Score&)> set) {
    session.edit(name, [&](Show& show) { changeItem(show.scores, id, set); }, name + QStringLiteral("-field"));
  };
  form->addTitle(Form::tr("Score"), [get]() -> std::optional<QString> {
    return get() ? counted(std::ssize(get()->clips), Form::tr("one clip"), Form::tr("%1 clips")) : QString();
  });
  form->addText("scoreName", Form::tr("Name"), [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
                [change](QString v) { if (!v.trimmed().isEmpty()) change(Form::tr("rename"), [&](Score& s) { s.name = v.trimmed().toStdString(); }); });
  form->addText("scoreAudio", Form::tr("Audio file"), [get]() -> std::optional<QString> { return get() ? text(get()->audio) : QString(); },
                [change](QString v) { change(Form::tr("audio file"), [&](Score& s) { s.audio = v.trimmed().toStdString(); }); });
  form->addNumber("audioStart", Form::tr("Sound begins at"), {"s", -86'400, 86'400, 0.01, 3}, [get]() -> std::optional<double> { return get() ? seconds(get()->audioStart) : 0; },
                  [change](double v) { change(Form::tr("sound's beginning"), [&](Score& s) { s.audioStart = micros(v); }); });
  form->addNumber("scoreLength", Form::tr("Length"), {"s", 0.1, 86'400, 1, 2}, [get]() -> std::optional<double> { return get() ? seconds(get()->length) : 1; },
                  [change](double v) { change(Form::tr("length"), [&](Score& s) { s.length = micros(v); }); });
  for (std::size_t i = 0; get() && i < get()->lanes.size(); ++i)
    form->addFact(text(get()->lanes[i].name), [get, i]() -> std::optional<QString> {
      return get() && i < get()->lanes.size() ? counted(std::ssize(get()->lanes[i].marks), Form::tr("one mark"), Form::tr("%1 marks")) : QString();
    });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
