// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/memoryforms.h"

#include <algorithm>

#include "core/controllermemory/content.h"
#include "desk/parts/format.h"
#include "desk/run/nightrows.h"
#include "desk/run/nightwords.h"

namespace chispa::desk {
namespace {

/// A part of a controller's memory: `find` returns a pointer to it, or null.
template <class T, class Find>
PartAccess<T> memoryPart(const Session& session, ControllerId id, Find find) {
  return {[session, id, find]() -> std::optional<T> {
            const Controller* controller = chispa::find(session.show().controllers, id);
            if (!controller) return std::nullopt;
            ControllerMemory memory = controller->memory;
            const T* part = find(memory);
            return part ? std::optional<T>(*part) : std::nullopt;
          },
          [session, id, find](const QString& name, const std::function<void(T&)>& change) {
            session.edit(
                name,
                [&](Show& show) {
                  changeMemory(show, id, [&](ControllerMemory& memory) {
                    if (T* part = find(memory)) change(*part);
                  });
                },
                name + QStringLiteral("-memory"));
          }};
}

QStringList sceneNames(const Session& session, ControllerId id, const QString& first) {
  QStringList names{first};
  if (const Controller* controller = chispa::find(session.show().controllers, id))
    for (std::size_t i = 0; i < controller->memory.scenes.size(); ++i)
      names << memorySceneName(session.show(), controller->memory, i);
  return names;
}

}  // namespace

QString memorySceneName(const Show& show, const ControllerMemory& memory, std::size_t scene) {
  const MemoryScene& own = memory.scenes[scene];
  const Score* score = chispa::find(show.scores, own.score);
  const Look* look = chispa::find(show.looks, own.look);
  const QString name = own.kind == PieceKind::Score ? score ? text(score->name) : QString()
                       : look ? text(look->name)
                                                    : QString();
  return QStringLiteral("%1  %2").arg(scene + 1).arg(name.isEmpty() ? Form::tr("(gone)") : name);
}

std::unique_ptr<Form> makeMemoryForm(const Session& session, ControllerId controller) {
  auto form = std::make_unique<Form>();
  const auto all = memoryPart<ControllerMemory>(session, controller, [](ControllerMemory& m) { return &m; });
  form->addNumber("memoryRate", Form::tr("Samples per second"), {{}, 1, 100, 1, 0},
                  shows<double>(all, [](const ControllerMemory& m) { return m.framesPerSecond; }),
                  changes<double>(all, Form::tr("samples per second"),
                                  [](ControllerMemory& m, double v) { m.framesPerSecond = v; }));
  form->addNumber("memoryTolerance", Form::tr("Steps may differ (ΔE)"), {{}, 0, 100, 0.5, 1},
                  shows<double>(all, [](const ControllerMemory& m) { return m.tolerance; }),
                  changes<double>(all, Form::tr("how far steps may differ"),
                                  [](ControllerMemory& m, double v) { m.tolerance = v; }));
  form->addChoice("memoryPowerOn", Form::tr("When switched on"),
                  sceneNames(session, controller, Form::tr("dark")),
                  shows<int>(all, [](const ControllerMemory& m) { return m.atPowerOn; }),
                  changes<int>(all, Form::tr("what plays when it is switched on"),
                               [](ControllerMemory& m, int v) { m.atPowerOn = std::max(0, v); }));
  return form;
}

std::unique_ptr<Form> makeMemorySceneForm(const Session& session, ControllerId controller,
                                          std::size_t scene) {
  auto form = std::make_unique<Form>();
  const auto part = memoryPart<MemoryScene>(session, controller, [scene](ControllerMemory& m) {
    return scene < m.scenes.size() ? &m.scenes[scene] : nullptr;
  });
  const auto own = part.get();
  if (!own) return form;
  form->addTitle(Form::tr("Scene %1").arg(scene + 1), shows<QString>(part, [](const MemoryScene& s) {
                   return s.rounds == 0 ? Form::tr("for ever") : Form::tr("%1 times").arg(s.rounds);
                 }));
  if (own->kind == PieceKind::Look)
    form->addNumber("memoryLength", Form::tr("How much of the look"), {"s", 0.1, 86'400, 1, 1},
                    shows<double>(part, [](const MemoryScene& s) { return seconds(s.length); }),
                    changes<double>(part, Form::tr("how much of a look"),
                                    [](MemoryScene& s, double v) { s.length = micros(v); }));
  form->addNumber("memoryRounds", Form::tr("Times (0 = for ever)"), {{}, 0, 1'000'000, 1, 0},
                  shows<double>(part, [](const MemoryScene& s) { return s.rounds; }),
                  changes<double>(part, Form::tr("how often a scene plays"),
                                  [](MemoryScene& s, double v) { s.rounds = static_cast<int>(v); }));
  form->addChoice("memoryThen", Form::tr("Then"),
                  {Form::tr("stays lit"), Form::tr("dark"), Form::tr("another scene")},
                  shows<int>(part, [](const MemoryScene& s) { return static_cast<int>(s.then); }),
                  changes<int>(part, Form::tr("what follows a scene"),
                               [](MemoryScene& s, int v) { s.then = static_cast<AfterScene>(v); }));
  if (own->then == AfterScene::Next)
    form->addChoice("memoryNext", Form::tr("Which"),
                    sceneNames(session, controller, Form::tr("the one behind it")),
                    shows<int>(part, [](const MemoryScene& s) { return s.next; }),
                    changes<int>(part, Form::tr("which scene follows"),
                                 [](MemoryScene& s, int v) { s.next = std::max(0, v); }));
  return form;
}

std::unique_ptr<Form> makeMemoryStartForm(const Session& session, ControllerId controller,
                                          const StartPlace& place) {
  auto form = std::make_unique<Form>();
  const auto find = [place](ControllerMemory& m) {
    std::vector<MemoryStart>* starts = startsOf(m, place.scene);
    return starts && place.start < starts->size() ? &(*starts)[place.start] : nullptr;
  };
  const auto part = memoryPart<MemoryStart>(session, controller, find);
  const auto own = part.get();
  if (!own) return form;
  form->addTitle(place.scene < 0 ? Form::tr("Goes dark") : Form::tr("Begins"),
                 shows<QString>(part, [](const MemoryStart& s) { return startWords(s); }));
  form->addNumber("memoryContact", Form::tr("Contact (0 = time)"), {{}, 0, 64, 1, 0},
                  shows<double>(part, [](const MemoryStart& s) { return s.contact; }),
                  changes<double>(part, Form::tr("contact"),
                                  [](MemoryStart& s, double v) { s.contact = static_cast<int>(v); }));
  if (own->contact > 0) return form;
  const auto time = memoryPart<NightTime>(session, controller, [find](ControllerMemory& m) {
    MemoryStart* start = find(m);
    return start ? &start->at : nullptr;
  });
  addNightTime(*form, QStringLiteral("memoryStart"), Form::tr("At"), time,
               own->at.kind == NightTimeKind::Clock);
  addDays(*form, QStringLiteral("memoryStart"),
          memoryPart<RuleDays>(session, controller, [find](ControllerMemory& m) {
            MemoryStart* start = find(m);
            return start ? &start->days : nullptr;
          }));
  return form;
}

}  // namespace chispa::desk
