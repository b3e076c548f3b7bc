// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/sentence.h"
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

/// What mends a problem where one thing alone does, and loses nothing that is there.
enum class Mending {
  None,
  DeleteClip,     ///< whose block is gone
  TakeGoneParts,  ///< of a zone, whose fixtures are gone
  TakeGoneBeads,  ///< of a port, whose fixtures are gone
  ShortenBeads,   ///< of a port, to their fixtures' pixels
};

/// Something in a show that will not work as it stands: what, where, and the cure.
struct Problem {
  Severity severity = Severity::Warning;
  Sentence what;
  Sentence where;
  Sentence cure;
  ProblemPlace place;
  Mending mending = Mending::None;

  bool operator==(const Problem&) const = default;
};

/// Every problem of `show`, errors first. `fileExists` tells whether a score's audio file is there.
std::vector<Problem> findProblems(const Show& show,
                                  const std::function<bool(const std::string&)>& fileExists);

/// Does what mends it; nothing where that is Mending::None or the place is gone.
void mend(Show& show, const Problem& problem);

}  // namespace chispa
