// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "core/edit/memoryedits.h"
#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// How light becomes steps in a controller's memory, and what plays when it is switched on.
std::unique_ptr<Form> makeMemoryForm(const Session& session, ControllerId controller);

/// A scene of it: how long, how often, what follows.
std::unique_ptr<Form> makeMemorySceneForm(const Session& session, ControllerId controller, std::size_t scene);

/// When a scene begins, or all goes dark.
std::unique_ptr<Form> makeMemoryStartForm(const Session& session, ControllerId controller,
                                          const StartPlace& place);

/// "1  Waltz": what a scene is called in lists, `scene` from 0.
QString memorySceneName(const Show& show, const ControllerMemory& memory, std::size_t scene);

}  // namespace chispa::desk
