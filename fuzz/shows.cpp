// SPDX-License-Identifier: GPL-3.0-or-later
// Whole shows, changed as trees of JSON: what is read is sound, is saved and read as the same, and can be
// played.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <random>

#include "fuzz/played.h"
#include <nlohmann/json.hpp>

#include "core/check/problems.h"
#include "core/files/showjson.h"
#include "core/rules/invariants.h"

using Json = nlohmann::ordered_json;

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

namespace {

/// Some node of the tree, by a walk from its root.
Json& anyNode(Json& root, std::mt19937& random) {
  Json* at = &root;
  while (at->is_structured() && !at->empty() && random() % 8 != 0) {
    auto child = at->begin();
    std::advance(child, static_cast<std::ptrdiff_t>(random() % at->size()));
    at = &*child;
  }
  return *at;
}

void change(Json& root, std::mt19937& random) {
  static const Json extremes[] = {0,
                                  1,
                                  -1,
                                  2,
                                  255,
                                  512,
                                  513,
                                  63'999,
                                  64'000,
                                  200'000,
                                  4'000'001,
                                  4'294'967'295u,
                                  86'400'000'001,
                                  9'223'372'036'854'775'807,
                                  1e300,
                                  -1e300,
                                  1e-300,
                                  0.5,
                                  true,
                                  nullptr,
                                  "",
                                  "ddp",
                                  "side-by-side",
                                  "cut-out",
                                  "storm",
                                  Json::array(),
                                  Json::object()};
  Json& node = anyNode(root, random);
  switch (random() % 5) {
    case 0:
      node = extremes[random() % std::size(extremes)];
      break;
    case 1:
      if (node.is_array() && !node.empty()) node.push_back(node[random() % node.size()]);
      break;
    case 2:
      if (node.is_structured() && !node.empty())
        node.erase(std::next(node.begin(), static_cast<std::ptrdiff_t>(random() % node.size())));
      break;
    case 3: {
      const Json other = anyNode(root, random);
      if (other.dump().size() < 20'000) node = other;
      break;
    }
    default:
      if (node.is_number()) node = node.get<double>() * (random() % 2 ? 2 : -1);
  }
}

}  // namespace

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most,
                                               unsigned seed) {
  std::mt19937 random(seed);
  Json root = Json::parse(data, data + size, nullptr, false);
  if (root.is_discarded() || random() % 16 == 0) return LLVMFuzzerMutate(data, size, most);
  for (unsigned i = 0; i <= random() % 4; ++i) change(root, random);
  const std::string text = root.dump(-1, ' ', false, Json::error_handler_t::replace);
  if (text.size() > most) return size;
  std::copy(text.begin(), text.end(), data);
  return text.size();
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto show = chispa::parseShow(std::string(reinterpret_cast<const char*>(data), size), "fuzz");
  if (!show) return 0;
  if (chispa::brokenInvariant(*show)) std::abort();
  const auto again = chispa::parseShow(chispa::showText(*show), "again");
  if (!again || !(*again == *show)) std::abort();
  chispa::findProblems(*show, [](const std::string&) { return true; });
  chispa::fuzz::play(*show);
  return 0;
}
