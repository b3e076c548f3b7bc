// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/table.h"

#include <array>
#include <charconv>
#include <cmath>
#include <iostream>

#include <nlohmann/json.hpp>

#include "core/files/csv.h"

namespace chispa::cli {

Field Field::of(double number, int decimals) {
  Field field("");
  field.isNumber = true;
  if (!std::isfinite(number)) return field;
  std::array<char, 400> text;
  const auto end =
      std::to_chars(text.data(), text.data() + text.size(), number, std::chars_format::fixed, decimals);
  field.text.assign(text.data(), end.ptr);
  return field;
}

Table::Table(std::vector<std::string> columns, bool asJson) : columns_(std::move(columns)), asJson_(asJson) {
  if (asJson_) {
    std::cout << "[";
    return;
  }
  for (std::size_t i = 0; i < columns_.size(); ++i) std::cout << (i > 0 ? "," : "") << columns_[i];
  std::cout << "\n";
}

Table::~Table() {
  if (asJson_) std::cout << (isEmpty_ ? "]\n" : "\n]\n");
}

void Table::add(const std::vector<Field>& fields) {
  if (!asJson_) {
    for (std::size_t i = 0; i < fields.size(); ++i)
      std::cout << (i > 0 ? "," : "") << csvField(fields[i].text);
    std::cout << '\n';
    return;
  }
  std::cout << (isEmpty_ ? "\n " : ",\n ") << "{";
  isEmpty_ = false;
  const auto quoted = [](const std::string& text) {
    return nlohmann::json(text).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
  };
  for (std::size_t i = 0; i < fields.size(); ++i) {
    const bool isMissing = fields[i].isNumber && fields[i].text.empty();
    std::cout << (i > 0 ? ", " : "") << quoted(columns_[i]) << ": "
              << (isMissing            ? "null"
                  : fields[i].isNumber ? fields[i].text
                                       : quoted(fields[i].text));
  }
  std::cout << "}";
}

}  // namespace chispa::cli
