// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/live/desksheet.h"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <set>

#include <fcntl.h>
#include <unistd.h>

#include "core/files/csv.h"
#include "core/files/names.h"
#include "core/files/pendingfile.h"
#include "core/render/compiledlive.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

/// The fixture that a pixel belongs to.
std::string fixtureOf(const Show& show, const PixelMap& map, std::uint32_t pixel) {
  for (const auto& fixture : show.fixtures) {
    const auto range = map.rangeOf(fixture->id);
    if (range && static_cast<int>(pixel) >= range->first &&
        static_cast<int>(pixel) < range->first + range->count)
      return fixture->name;
  }
  return {};
}

}  // namespace

std::vector<DeskRow> deskRows(const Show& show) {
  std::vector<DeskRow> rows;
  const PixelMap map = mapPixels(show);
  for (const auto& input : show.deskInputs) {
    const Zone* zone = find(show.zones, input->zone);
    if (!zone) continue;
    const ZoneCells cells = cellsOf(show, map, *zone);
    const auto addresses = deskAddresses(*input, cells.count());
    for (std::size_t i = 0; i < addresses.size(); ++i) {
      const auto count = static_cast<std::size_t>(cells.count());
      const auto pixels = cells.pixelsOf(static_cast<int>(firstCellOf(i, addresses.size(), count)));
      rows.push_back({pixels.empty() ? std::string() : fixtureOf(show, map, pixels.front()), zone->name,
                      static_cast<int>(i) + 1, input->protocol, addresses[i].universe, addresses[i].channel,
                      input->bytesOfCell(), input->bits == 16 ? input->format + " 16 bit" : input->format,
                      input->use});
    }
  }
  return rows;
}

std::string deskSheet(const Show& show) {
  std::string table = "fixture,zone,cell,universe,channel,channels,format,how,protocol\n";
  for (const DeskRow& row : deskRows(show))
    table += csvField(row.fixture) + "," + csvField(row.zone) + "," + std::to_string(row.cell) + "," +
             std::to_string(row.universe) + "," + std::to_string(row.channel) + "," +
             std::to_string(row.channels) + "," + csvField(row.format) + "," + std::string(nameOf(row.use)) +
             "," + std::string(nameOf(row.protocol)) + "\n";
  return table;
}

DeskGaps deskGaps(const Show& show, const std::vector<std::pair<Protocol, int>>& arriving) {
  std::set<std::pair<Protocol, int>> listened;
  for (const DeskRow& row : deskRows(show)) listened.insert({row.protocol, row.universe});
  for (const auto& binding : show.bindings)
    if (binding->source.kind == SourceKind::Desk)
      listened.insert({binding->source.protocol, binding->source.universe});
  DeskGaps gaps;
  for (const auto& one : arriving)
    if (!listened.contains(one)) gaps.unheard.push_back(one);
  for (const auto& one : listened)
    if (std::find(arriving.begin(), arriving.end(), one) == arriving.end()) gaps.missing.push_back(one);
  return gaps;
}

Outcome writeDeskSheet(const Show& show, const std::filesystem::path& path) {
  auto begun = PendingFile::begin(path);
  if (!begun) return begun.failure();
  PendingFile pending = *std::move(begun);
  const int fd = ::open(pending.path().c_str(), O_WRONLY | O_CLOEXEC);
  const bool isWritten = fd >= 0 && writeAll(fd, deskSheet(show));
  const int error = errno;
  if (fd >= 0) ::close(fd);
  if (!isWritten)
    return Failure{sentence("The desk sheet cannot be written (%1).", std::strerror(error)), path.string(),
                   "Choose another place, or free some room."};
  return pending.commit();
}

}  // namespace chispa
