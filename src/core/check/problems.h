// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "core/show/show.h"

namespace chispa {

enum class Severity { Error, Warning, Note };

/// One port of a controller, from 0.
struct PortPlace {
  ControllerId controller;
  int port = 0;

  bool operator==(const PortPlace&) const = default;
};
struct ClipPlace {
  ScoreId score;
  ClipId clip;

  bool operator==(const ClipPlace&) const = default;
};
/// What a problem is about; the show as a whole if monostate.
using ProblemPlace = std::variant<std::monostate, FixtureId, ZoneId, ControllerId, PortPlace, ScoreId,
                                  ClipPlace, LookId, BindingId, DeskInputId, SetListId, RuleId>;

/// Something in a show that will not work as it stands: what, where, and the cure.
struct Problem {
  Severity severity = Severity::Warning;
  std::string what;
  std::string where;
  std::string cure;
  ProblemPlace place;

  bool operator==(const Problem&) const = default;
};

/// Every problem of `show`, errors first. `fileExists` tells whether a score's audio file is there.
std::vector<Problem> findProblems(const Show& show,
                                  const std::function<bool(const std::string&)>& fileExists);

}  // namespace chispa
