// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/striplibrary.h"

#include <algorithm>
#include <fstream>
#include <iterator>

#include "core/base/boundedjson.h"
#include "core/files/showfile.h"
#include "core/files/showreader.h"
#include "core/files/showwriter.h"

namespace chispa {

Result<std::vector<StripType>> StripLibrary::read() const {
  std::ifstream in(file_);
  if (!in) return std::vector<StripType>{};
  const std::string text{std::istreambuf_iterator<char>(in), {}};
  constexpr const char* kCure = "Move the file away; then new types can be kept.";
  const auto root = parseJson(text, "Your strip types", file_.string(), kCure);
  if (!root) return root.failure();
  try {
    std::vector<StripType> strips;
    FieldReader(*root).each("strip_types", [&](const auto& json) {
      std::vector<UnreadPart> unread;
      ShowReader reader(json, unread);
      StripType strip;
      fields::describe(reader, strip);
      strips.push_back(std::move(strip));
    });
    std::sort(strips.begin(), strips.end(),
              [](const StripType& a, const StripType& b) { return a.name < b.name; });
    return strips;
  } catch (const std::exception& error) {
    return Failure{sentence("Your strip types make no sense: %1.", error.what()), file_.string(), kCure};
  }
}

Outcome StripLibrary::keep(const StripType& strip) const {
  auto strips = read();
  if (!strips) return strips.failure();
  std::vector<StripType> all = *std::move(strips);
  std::erase_if(all, [&](const StripType& one) { return one.name == strip.name; });
  all.push_back(strip);
  nlohmann::ordered_json list = nlohmann::ordered_json::array();
  for (const StripType& one : all) {
    static const UnreadByList none;
    ShowWriter writer(none);
    fields::describe(writer, one);
    list.push_back(std::move(writer).take());
  }
  std::error_code error;
  std::filesystem::create_directories(file_.parent_path(), error);
  if (error)
    return Failure{sentence("The strip type cannot be kept (%1).", error.message()), file_.string(),
                   "Check that there is room and that you may write there."};
  return writeFileAtomically(file_, nlohmann::ordered_json{{"strip_types", list}}.dump(1) + "\n");
}

}  // namespace chispa
