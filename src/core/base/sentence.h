// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <concepts>
#include <string>
#include <utility>
#include <vector>

namespace chispa {

/// Something that is said to people: its English form with places %1, %2 …, which names it in the catalogues
/// of languages, and what stands in the places. Core says it; the desk and the command line put it into
/// words.
struct Sentence {
  std::string id;
  std::vector<std::string> args;

  Sentence() = default;
  Sentence(const char* english) : id(english) {}
  /// A name, which is the same in every language.
  Sentence(std::string name) : id("%1"), args{std::move(name)} {}

  /// In English.
  std::string text() const { return filled(id); }
  /// `form`, which is `id` in some language, with all its places filled.
  std::string filled(const std::string& form) const {
    std::string out;
    for (std::size_t i = 0; i < form.size();) {
      std::size_t number = 0, end = i + 1;
      while (form[i] == '%' && end < form.size() && form[end] >= '0' && form[end] <= '9')
        number = number * 10 + static_cast<std::size_t>(form[end++] - '0');
      if (number == 0 || number > args.size()) {
        out += form[i++];
        continue;
      }
      out += args[number - 1];
      i = end;
    }
    return out;
  }
  bool operator==(const Sentence&) const = default;
};

namespace sentences {

inline std::string word(std::string own) {
  return own;
}
inline std::string word(std::integral auto number) {
  return std::to_string(number);
}

}  // namespace sentences

/// The sentence `id` with names and numbers in its places.
template <class... Args>
Sentence sentence(const char* id, const Args&... args) {
  Sentence made(id);
  (made.args.push_back(sentences::word(args)), ...);
  return made;
}

}  // namespace chispa
