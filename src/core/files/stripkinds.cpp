// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/stripkinds.h"

#include <algorithm>
#include <array>
#include <stdexcept>

#include "core/base/boundedjson.h"
#include "core/files/fieldreader.h"
#include "core/files/showreader.h"
#include "core/files/stripkindstext.h"
#include "core/show/stripwhite.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

ChipColours chipsOf(const Json& words, double whiteLight) {
  ChipColours chips;
  chips.whiteLight = whiteLight;
  const std::array<Chromaticity*, 4> all{&chips.red, &chips.green, &chips.blue, &chips.white};
  for (std::size_t i = 0; i < std::min(words.size(), all.size()); ++i) {
    const auto at = readChromaticity(words[i].get<std::string>());
    if (!at) throw FieldError("\"" + words[i].get<std::string>() + "\" is no colour of a chip");
    *all[i] = *at;
  }
  if (!spanWhite(chips)) throw FieldError("the chips' colours have no white between them");
  return chips;
}

StripKind kindOf(const Json& json) {
  const FieldReader in(json);
  const Json* strip = in.member("strip");
  const Json* chips = in.member("chips");
  const Json* light = in.member("light_mcd");
  if (!strip || !chips || !light || light->size() != 3) throw FieldError("a kind of strip lacks a part");
  StripKind kind;
  std::vector<UnreadPart> unread;
  ShowReader reader(*strip, unread);
  fields::describe(reader, kind.strip);
  kind.strip.chips = chipsOf(*chips, in.number("white_light", 0.01, 10, 1));
  for (std::size_t i = 0; i < 3; ++i) kind.strip.chips->light[i] = (*light)[i].get<double>();
  kind.strip.white = daylightShares(*kind.strip.chips);
  kind.goodFor = in.text("good_for");
  kind.source = in.text("source");
  return kind;
}

}  // namespace

Result<std::vector<StripKind>> readStripKinds(const std::string& text) {
  constexpr const char* kCure = "Put back the file that ships with Chispa.";
  const auto root = parseJson(text, "The kinds of strip", "stripkinds.json", kCure);
  if (!root) return root.failure();
  try {
    std::vector<StripKind> kinds;
    FieldReader(*root).each("kinds", [&](const Json& json) { kinds.push_back(kindOf(json)); });
    return kinds;
  } catch (const std::exception& error) {
    return Failure{sentence("The kinds of strip make no sense: %1.", error.what()), "stripkinds.json", kCure};
  }
}

const std::vector<StripKind>& stripKinds() {
  static const std::vector<StripKind> kinds = [] {
    auto read = readStripKinds(kStripKindsText);
    if (!read) throw std::logic_error(read.failure().text());
    return *std::move(read);
  }();
  return kinds;
}

}  // namespace chispa
