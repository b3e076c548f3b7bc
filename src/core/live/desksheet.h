// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// A cell that listens to a desk: a row of the sheet for whoever patches the desk.
struct DeskRow {
  std::string fixture;
  std::string zone;
  /// From 1, as the desk counts them.
  int cell = 1;
  Protocol protocol = Protocol::E131;
  int universe = 1;
  int channel = 1;
  int channels = 3;
  std::string format;
  DeskUse use = DeskUse::Replaces;
};

/// Every cell that listens, in the show's order.
std::vector<DeskRow> deskRows(const Show& show);
/// The same as CSV (RFC 4180), with a line of names.
std::string deskSheet(const Show& show);
/// What a desk and a show do not agree on.
struct DeskGaps {
  /// Universes that arrive and nobody listens to, and those that are listened to and do not arrive.
  std::vector<std::pair<Protocol, int>> unheard;
  std::vector<std::pair<Protocol, int>> missing;
};
/// `arriving` are the universes that were heard.
DeskGaps deskGaps(const Show& show, const std::vector<std::pair<Protocol, int>>& arriving);
Outcome writeDeskSheet(const Show& show, const std::filesystem::path& path);

}  // namespace chispa
