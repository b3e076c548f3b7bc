// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/showmedia.h"

#include <set>

#include "core/effect/effect.h"
#include "core/effect/screencapture.h"
#include "core/media/shown.h"

namespace chispa {
namespace {

/// The parameters of all effects that name files; looked for once, as every edit asks for the files of
/// thousands of clips.
const std::vector<std::pair<const Effect*, const ParamSpec*>>& fileParams() {
  static const auto found = [] {
    std::vector<std::pair<const Effect*, const ParamSpec*>> all;
    for (const Effect& effect : effects())
      for (const ParamSpec& spec : effect.params)
        if (spec.kind == ParamKind::File) all.emplace_back(&effect, &spec);
    return all;
  }();
  return found;
}

/// Calls `visit` with every clip of the scores and blocks, and every layer of the looks.
template <class F>
void eachClipOf(const Show& show, F visit) {
  for (const auto& score : show.scores)
    for (const auto& clip : score->clips) visit(*clip);
  for (const auto& block : show.blocks)
    for (const auto& clip : block->clips) visit(*clip);
  for (const auto& look : show.looks)
    for (const LookStep& step : look->steps)
      for (const auto& layer : step.layers) visit(*layer);
}

}  // namespace

std::vector<std::string> mediaNames(const Show& show) {
  std::set<std::string> names;
  eachClipOf(show, [&](const Clip& clip) {
    for (const auto& [effect, spec] : fileParams()) {
      if (clip.effect != effect->key) continue;
      const auto* name = std::get_if<std::string>(&valueOf(*spec, clip.params));
      if (name && !name->empty()) names.insert(mediaName(effect->key, *name));
    }
  });
  return {names.begin(), names.end()};
}

std::vector<ScreenPart> screenParts(const Show& show) {
  std::set<ScreenPart> parts;
  eachClipOf(show, [&](const Clip& clip) {
    if (clip.effect == kScreenCapture) parts.insert(screenPartOf(clip.params));
  });
  return {parts.begin(), parts.end()};
}

MediaLibrary loadMedia(const Show& show, const std::filesystem::path& showFile,
                       std::vector<Failure>& failures) {
  MediaLibrary library;
  for (const std::string& name : mediaNames(show)) {
    const auto media = decodeShown(showFile, name);
    if (media)
      library.add(name, *media);
    else
      failures.push_back(media.failure());
  }
  return library;
}

}  // namespace chispa
