// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>

#include "core/formula/words.h"

namespace chispa::formula {
namespace {

/// Thrown inside the compiler only.
struct Stop {
  Mistake mistake;
};

/// A piece of the text: a number, a word, or a sign of one or two letters; an empty one is the end.
struct Token {
  enum class Kind { Number, Word, Sign, LineEnd, End } kind = Kind::End;
  std::string_view text;
  std::size_t at = 0;
  float number = 0;
};

class Lexer {
 public:
  explicit Lexer(std::string_view text) : text_(text) {}

  Token next() {
    skipBlanks();
    const std::size_t at = at_;
    if (at >= text_.size()) return {Token::Kind::End, {}, at};
    const char c = text_[at];
    if (c == '\n' || c == ';') return ++at_, Token{Token::Kind::LineEnd, text_.substr(at, 1), at};
    if (std::isdigit(static_cast<unsigned char>(c)) || c == '.') return number(at);
    if (std::isalpha(static_cast<unsigned char>(c)) || c == '_') return word(at);
    constexpr std::string_view kPairs[] = {"<=", ">=", "==", "!="};
    for (const std::string_view pair : kPairs)
      if (text_.substr(at, 2) == pair) return at_ += 2, Token{Token::Kind::Sign, pair, at};
    if (std::string_view("+-*/%^()<>=,").find(c) == std::string_view::npos)
      throw Stop{{at, std::string("“") + c + "” has no meaning here"}};
    return ++at_, Token{Token::Kind::Sign, text_.substr(at, 1), at};
  }

 private:
  void skipBlanks() {
    while (at_ < text_.size()) {
      const char c = text_[at_];
      if (c == '#')
        while (at_ < text_.size() && text_[at_] != '\n') ++at_;
      else if (c == ' ' || c == '\t' || c == '\r')
        ++at_;
      else
        break;
    }
  }
  Token number(std::size_t at) {
    float value = 0;
    const auto [end, error] = std::from_chars(text_.data() + at, text_.data() + text_.size(), value);
    if (error != std::errc{} || !std::isfinite(value)) throw Stop{{at, "this is no number"}};
    at_ = static_cast<std::size_t>(end - text_.data());
    return {Token::Kind::Number, text_.substr(at, at_ - at), at, value};
  }
  Token word(std::size_t at) {
    while (at_ < text_.size() && (std::isalnum(static_cast<unsigned char>(text_[at_])) || text_[at_] == '_'))
      ++at_;
    return {Token::Kind::Word, text_.substr(at, at_ - at), at};
  }

  std::string_view text_;
  std::size_t at_ = 0;
};

/// Recursive descent; each value is the register it will be in.
class Compiler {
 public:
  explicit Compiler(const std::string& text) : lexer_(text) { advance(); }

  Program run() {
    std::optional<std::uint16_t> alone;
    while (token_.kind != Token::Kind::End) {
      if (token_.kind == Token::Kind::LineEnd) {
        advance();
        continue;
      }
      const Token first = token_;
      const std::uint16_t value = statement();
      if (!assigned_) {
        if (alone)
          throw Stop{
              {first.at, "a value without a name can stand only once; begin the others with “name =”"}};
        alone = value;
      }
      if (token_.kind != Token::Kind::LineEnd && token_.kind != Token::Kind::End)
        throw Stop{{token_.at, "an operator, or the end of the line, is missing before “" +
                                   std::string(token_.text) + "”"}};
    }
    return finish(alone);
  }

 private:
  static constexpr int kDeepest = 60;

  void advance() { token_ = lexer_.next(); }
  bool isSign(std::string_view sign) const { return token_.kind == Token::Kind::Sign && token_.text == sign; }
  bool isWord(std::string_view word) const { return token_.kind == Token::Kind::Word && token_.text == word; }
  bool take(std::string_view sign) {
    if (!isSign(sign)) return false;
    advance();
    return true;
  }
  void expect(std::string_view sign) {
    if (!take(sign)) throw Stop{{token_.at, "“" + std::string(sign) + "” is missing"}};
  }

  std::uint16_t emit(Step step, int arguments) {
    if (program_.steps.size() >= Program::kMaxSteps)
      throw Stop{{token_.at,
                  "the formula is too long; " + std::to_string(Program::kMaxSteps) + " steps are the most"}};
    for (int i = 0; i < arguments; ++i)
      step.isUniform = step.isUniform && program_.steps[step.from[static_cast<std::size_t>(i)]].isUniform;
    program_.steps.push_back(step);
    return static_cast<std::uint16_t>(program_.steps.size() - 1);
  }
  std::uint16_t constant(float value) { return emit({Op::Constant, {}, value, true}, 0); }
  std::uint16_t two(Op op, std::uint16_t a, std::uint16_t b) { return emit({op, {a, b, 0}, 0, true}, 2); }
  std::uint16_t one(Op op, std::uint16_t a) { return emit({op, {a, 0, 0}, 0, true}, 1); }

  std::uint16_t statement() {
    assigned_ = false;
    if (token_.kind == Token::Kind::Word) {
      const Token name = token_;
      // A name is followed by “=”; anything else begins an expression.
      Lexer ahead = lexer_;
      const Token next = ahead.next();
      if (next.kind == Token::Kind::Sign && next.text == "=") {
        if (isKnown(name.text))
          throw Stop{
              {name.at, "“" + std::string(name.text) + "” has a meaning already; choose another name"}};
        advance();
        advance();
        const std::uint16_t value = expression(0);
        names_[std::string(name.text)] = value;
        assigned_ = true;
        return value;
      }
    }
    return expression(0);
  }

  static bool isKnown(std::string_view name) {
    const auto isNamed = [name](const auto& word) { return word.name == name; };
    return name == "pi" || name == "and" || name == "or" || name == "not" ||
           std::any_of(std::begin(kCellWords), std::end(kCellWords), isNamed) ||
           std::any_of(std::begin(kMomentWords), std::end(kMomentWords), isNamed) ||
           std::any_of(std::begin(kFunctionWords), std::end(kFunctionWords), isNamed);
  }

  std::uint16_t expression(int depth) {
    if (depth > kDeepest) throw Stop{{token_.at, "too many brackets stand in each other"}};
    std::uint16_t value = conjunction(depth + 1);
    while (isWord("or")) {
      advance();
      value = two(Op::Or, value, conjunction(depth + 1));
    }
    return value;
  }
  std::uint16_t conjunction(int depth) {
    std::uint16_t value = comparison(depth);
    while (isWord("and")) {
      advance();
      value = two(Op::And, value, comparison(depth));
    }
    return value;
  }
  std::uint16_t comparison(int depth) {
    const std::uint16_t left = sum(depth);
    if (take("<")) return two(Op::Less, left, sum(depth));
    if (take("<=")) return two(Op::LessEqual, left, sum(depth));
    if (take(">")) {
      const std::uint16_t right = sum(depth);
      return two(Op::Less, right, left);
    }
    if (take(">=")) {
      const std::uint16_t right = sum(depth);
      return two(Op::LessEqual, right, left);
    }
    if (take("==")) return two(Op::Equal, left, sum(depth));
    if (take("!=")) return one(Op::Not, two(Op::Equal, left, sum(depth)));
    if (isSign("=")) throw Stop{{token_.at, "“=” gives a name to a value; to compare, write “==”"}};
    return left;
  }
  std::uint16_t sum(int depth) {
    std::uint16_t value = product(depth);
    for (;;) {
      if (take("+"))
        value = two(Op::Add, value, product(depth));
      else if (take("-"))
        value = two(Op::Subtract, value, product(depth));
      else
        return value;
    }
  }
  std::uint16_t product(int depth) {
    std::uint16_t value = sign(depth);
    for (;;) {
      if (take("*"))
        value = two(Op::Multiply, value, sign(depth));
      else if (take("/"))
        value = two(Op::Divide, value, sign(depth));
      else if (take("%"))
        value = two(Op::Modulo, value, sign(depth));
      else
        return value;
    }
  }
  std::uint16_t sign(int depth) {
    if (depth > kDeepest) throw Stop{{token_.at, "too many signs stand before each other"}};
    if (take("-")) return one(Op::Negate, sign(depth + 1));
    if (isWord("not")) {
      advance();
      return one(Op::Not, sign(depth + 1));
    }
    const std::uint16_t base = atom(depth);
    return take("^") ? two(Op::Power, base, sign(depth + 1)) : base;
  }
  std::uint16_t atom(int depth) {
    if (token_.kind == Token::Kind::Number) {
      const float value = token_.number;
      advance();
      return constant(value);
    }
    if (take("(")) {
      const std::uint16_t value = expression(depth + 1);
      expect(")");
      return value;
    }
    if (token_.kind == Token::Kind::Word) return word(depth);
    if (token_.kind == Token::Kind::End || token_.kind == Token::Kind::LineEnd)
      throw Stop{{token_.at, "a value is missing at the end"}};
    throw Stop{{token_.at, "a value is missing before “" + std::string(token_.text) + "”"}};
  }
  std::uint16_t word(int depth) {
    Token name = token_;
    advance();
    if (name.text == kOldSway && token_.text == "(") name.text = "sway";
    for (const FunctionWord& function : kFunctionWords)
      if (function.name == name.text) return call(function, depth);
    for (const CellWord& input : kCellWords)
      if (input.name == name.text) return emit({Op::Cell, {}, static_cast<float>(input.input), false}, 0);
    for (const MomentWord& input : kMomentWords)
      if (input.name == name.text) return emit({Op::Moment, {}, static_cast<float>(input.input), true}, 0);
    if (name.text == "pi") return constant(std::numbers::pi_v<float>);
    const auto found = names_.find(std::string(name.text));
    if (found == names_.end()) throw Stop{{name.at, "“" + std::string(name.text) + "” is not known"}};
    return found->second;
  }
  std::uint16_t call(const FunctionWord& function, int depth) {
    expect("(");
    Step step{function.op, {}, 0, true};
    for (int i = 0; i < function.arguments; ++i) {
      if (i > 0) {
        if (!take(","))
          throw Stop{{token_.at, std::string(function.name) + " takes " + std::to_string(function.arguments) +
                                     " values: " + std::string(function.call)}};
      }
      step.from[static_cast<std::size_t>(i)] = expression(depth + 1);
    }
    if (isSign(","))
      throw Stop{
          {token_.at, std::string(function.name) + " takes no more values: " + std::string(function.call)}};
    expect(")");
    return emit(step, function.arguments);
  }

  Program finish(const std::optional<std::uint16_t>& alone) {
    const auto named = [this](const char* name) -> std::optional<std::uint16_t> {
      const auto found = names_.find(name);
      return found == names_.end() ? std::nullopt : std::optional(found->second);
    };
    const auto red = named("red"), green = named("green"), blue = named("blue");
    if (red || green || blue) {
      const std::uint16_t dark = red && green && blue ? *red : constant(0);
      program_.colour = {red.value_or(dark), green.value_or(dark), blue.value_or(dark)};
    }
    const auto light = named("light") ? named("light") : alone;
    if (!light && !program_.colour)
      throw Stop{{token_.at, "nothing is lit: end with a value, or name one “light”"}};
    program_.light = light ? *light : constant(1);
    program_.shade = named("shade").value_or(program_.light);
    return std::move(program_);
  }

  Lexer lexer_;
  Token token_;
  Program program_;
  std::map<std::string, std::uint16_t> names_;
  bool assigned_ = false;
};

}  // namespace

std::optional<Program> compile(const std::string& text, Mistake& mistake) {
  try {
    return Compiler(text).run();
  } catch (const Stop& stop) {
    mistake = stop.mistake;
    return std::nullopt;
  }
}

const std::vector<Word>& inputWords() {
  static const auto words = [] {
    std::vector<Word> all;
    for (const CellWord& word : kCellWords)
      all.push_back({std::string(word.name), std::string(word.meaning)});
    for (const MomentWord& word : kMomentWords)
      all.push_back({std::string(word.name), std::string(word.meaning)});
    return all;
  }();
  return words;
}

const std::vector<Word>& functionWords() {
  static const auto words = [] {
    std::vector<Word> all;
    for (const FunctionWord& word : kFunctionWords)
      all.push_back({std::string(word.call), std::string(word.meaning)});
    return all;
  }();
  return words;
}

}  // namespace chispa::formula
