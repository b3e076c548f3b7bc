// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

namespace chispa::cli {

/// A field of a table: a text, or a number as it shall be written.
struct Field {
  std::string text;
  bool isNumber = false;

  Field(const std::string& words) : text(words) {}
  Field(const char* words) : text(words) {}
  Field(int number) : text(std::to_string(number)), isNumber(true) {}
  Field(long number) : text(std::to_string(number)), isNumber(true) {}
  /// With so many digits behind the point, whatever the locale; what is no number is written as null, or left
  /// empty.
  static Field of(double number, int decimals);
};

/// Rows on stdout, each as it comes: as CSV (RFC 4180) with the columns' names above, or as a JSON array of
/// objects with those names.
class Table {
 public:
  Table(std::vector<std::string> columns, bool asJson);
  /// Ends the array.
  ~Table();
  Table(const Table&) = delete;
  Table& operator=(const Table&) = delete;

  /// As many fields as there are columns.
  void add(const std::vector<Field>& fields);

 private:
  std::vector<std::string> columns_;
  bool asJson_;
  bool isEmpty_ = true;
};

}  // namespace chispa::cli
