// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>
#include <vector>

#include <QWidget>

class QGridLayout;
class QLabel;

namespace chispa::desk {

/// Rows of labelled fields over values that live elsewhere: each row knows how to fetch its value and how to
/// change it. There is no OK: a change takes effect at once. UI thread.
class Form : public QWidget {
  Q_OBJECT
 public:
  explicit Form(QWidget* parent = nullptr);

  /// How a number is shown and bounded.
  struct Number {
    QString unit;
    double low = 0;
    double high = 1;
    double step = 1;
    int decimals = 0;
  };
  /// Fetches a value; nothing means that the selected things differ.
  template <class T>
  using Get = std::function<std::optional<T>()>;
  template <class T>
  using Set = std::function<void(T)>;

  void addTitle(const QString& title, const Get<QString>& subtitle);
  void addHeading(const QString& words);
  /// `key` names the field for tests and assistive tools.
  void addNumber(const QString& key, const QString& label, const Number& number, Get<double> get,
                 Set<double> set);
  void addText(const QString& key, const QString& label, Get<QString> get, Set<QString> set);
  void addChoice(const QString& key, const QString& label, const QStringList& choices, Get<int> get,
                 Set<int> set);
  void addSwitch(const QString& key, const QString& label, Get<bool> get, Set<bool> set);
  /// A value that can only be read.
  void addFact(const QString& label, Get<QString> get);
  void addNote(Get<QString> get);
  /// `refresh` shows the widget's value anew.
  void addWidget(QWidget* widget, std::function<void()> refresh = {});
  QWidget* addButton(const QString& key, const QString& label, const QString& tip,
                     std::function<void()> pressed);
  /// One of several buttons in a row.
  struct Button {
    QString key;
    QString label;
    QString tip;
    std::function<void()> pressed;
  };
  void addButtons(const std::vector<Button>& buttons);
  void addStretch();

  /// Fetches every value anew, without changing anything.
  void refresh();

 private:
  void addRow(const QString& key, const QString& label, QWidget* field);

  QGridLayout* grid_;
  int row_ = 0;
  std::vector<std::function<void()>> refreshers_;
};

}  // namespace chispa::desk
