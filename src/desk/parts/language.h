// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include <QHash>
#include <QLocale>
#include <QTranslator>

#include "core/base/result.h"

namespace chispa::desk {

/// What the window speaks.
enum class Language { AsDesktop, English, Spanish };

/// What was chosen in Preferences; as the desktop where nothing was.
Language chosenLanguage();
/// Holds from the next start.
void chooseLanguage(Language language);

/// Its code, such as "es"; the desktop's where that is chosen.
QString chosenLanguageCode();

/// Before the first window: lets the program speak that language, if there are words in it, and write numbers
/// as it does where it is not the desktop's.
void speak(const QString& code);

/// How numbers are written and read, which is not always as the language has it.
enum class Numbers { AsLanguage, Point, Comma };
Numbers chosenNumbers();
/// Holds from the next start.
void chooseNumbers(Numbers numbers);
/// After speak(), and before the first window: numbers as they were chosen.
void writeNumbersAsChosen();

/// All words of one language, by what they are in English: src/desk/words. One English word that needs two
/// stands there twice, the second time as "context|word".
class WordCatalogue : public QTranslator {
 public:
  /// Takes in the words of a language ("es"); false if there are none.
  bool take(const QString& code);
  bool isEmpty() const override { return words_.isEmpty(); }
  QString translate(const char* context, const char* source, const char* disambiguation,
                    int n) const override;

 private:
  QHash<QByteArray, QString> words_;
};

/// A word of core (an effect's name, a parameter's label) in the window's language; itself where there is
/// none. Its context is "core".
QString said(const std::string& word);
/// A sentence of core, likewise.
QString said(const Sentence& sentence);
/// What happened, where, and what can be done, a line each.
QString said(const Failure& failure);
/// Parts that stand one after the other: "Control 3 · channel 1".
QString said(const std::vector<Sentence>& parts);

/// How days and months are called in the window's language.
QLocale wordLocale();

}  // namespace chispa::desk
