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
  /// What stands in a place: a name or a number, which is the same in every language, or words of the
  /// program, which are in the catalogues too.
  struct Arg {
    std::string text;
    bool isWords = false;

    bool operator==(const Arg&) const = default;
  };

  std::string id;
  std::vector<Arg> args;

  Sentence() = default;
  Sentence(const char* english) : id(english) {}
  /// A name, which is the same in every language.
  Sentence(std::string name) : id("%1"), args{{std::move(name)}} {}

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
      out += args[number - 1].text;
      i = end;
    }
    return out;
  }
  bool operator==(const Sentence&) const = default;
};

namespace sentences {

inline Sentence::Arg argOf(std::string name) {
  return {std::move(name)};
}
/// A literal is of the program; names are strings.
inline Sentence::Arg argOf(const char* words) {
  return {words, true};
}
inline Sentence::Arg argOf(std::integral auto number) {
  return {std::to_string(number)};
}

}  // namespace sentences

/// The sentence `id` with names, numbers and words in its places.
template <class... Args>
Sentence sentence(const char* id, const Args&... args) {
  Sentence made(id);
  (made.args.push_back(sentences::argOf(args)), ...);
  return made;
}

}  // namespace chispa
