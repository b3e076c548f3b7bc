// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/opened.h"

#include <iostream>

#include "cli/verbs.h"
#include "core/base/relativepath.h"
#include "core/effect/showmedia.h"
#include "core/files/showfile.h"
#include "core/music/analysis.h"

namespace chispa::cli {

std::optional<OpenedShow> OpenedShow::open(const std::string& path) {
  auto show = loadShow(path);
  if (!show) {
    std::cerr << show.failure().text() << "\n";
    return std::nullopt;
  }
  return OpenedShow{path, *std::move(show)};
}

std::vector<Problem> OpenedShow::problems() const {
  return findProblems(
      show, [this](const std::string& name) { return std::filesystem::exists(resolvedBeside(path, name)); });
}

std::shared_ptr<const CompiledShow> OpenedShow::compiled() const {
  std::vector<Failure> failures;
  const MusicLibrary music = loadMusic(show, path, failures);
  const MediaLibrary media = loadMedia(show, path, failures);
  for (const Failure& failure : failures) std::cerr << failure.text() << "\n";
  return compile(show, music, media);
}

const Score* OpenedShow::score(const std::string& name) const {
  const Score* found = name.empty() ? (show.scores.empty() ? nullptr : show.scores.front().get())
                                    : findNamed(show.scores, name);
  if (!found)
    std::cerr << path.string() << ": "
              << (name.empty() ? "The show has no score." : "There is no score called \"" + name + "\".")
              << "\nchispa-cli info lists the scores.\n";
  return found;
}

std::optional<std::vector<PixelRow>> OpenedShow::rows(const std::vector<std::string>& names) const {
  std::vector<PixelRow> rows;
  for (const std::string& name : names) {
    const Fixture* fixture = findNamed(show.fixtures, name);
    const Zone* zone = findNamed(show.zones, name);
    if (!fixture && !zone) {
      failed({"The show has no fixture and no zone “" + name + "”.",
              {},
              "`chispa-cli zones SHOW --csv` lists both."});
      return std::nullopt;
    }
    rows.push_back(fixture ? PixelRow(fixture->id) : PixelRow(zone->id));
  }
  return rows;
}

}  // namespace chispa::cli
