// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/formulafield.h"

#include <QFontDatabase>
#include <QLabel>
#include <QPlainTextEdit>
#include <QSignalBlocker>
#include <QTextBlock>
#include <QVBoxLayout>

#include "core/formula/program.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QString wordList() {
  QString html = FormulaField::tr("<b>Names</b><br>");
  for (const auto* words : {&formula::inputWords(), &formula::functionWords()}) {
    for (const formula::Word& word : *words)
      html += QStringLiteral("<b>%1</b> %2<br>")
                  .arg(text(word.name).toHtmlEscaped(), text(word.meaning).toHtmlEscaped());
    html += QStringLiteral("<br>");
  }
  return html;
}

/// The place of a byte of UTF-8 in Qt's text.
int letterAt(const QString& all, std::size_t byte) {
  return static_cast<int>(QString::fromUtf8(all.toUtf8().left(static_cast<qsizetype>(byte))).size());
}

}  // namespace

FormulaField::FormulaField(Form::Get<QString> get, Form::Set<QString> set, QWidget* parent)
    : QWidget(parent),
      get_(std::move(get)),
      set_(std::move(set)),
      field_(new QPlainTextEdit),
      words_(new QLabel) {
  named(field_, "formula", tr("Formula"), wordList());
  field_->setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
  field_->setTabChangesFocus(true);
  field_->setFixedHeight(fontMetrics().lineSpacing() * 8);
  words_->setObjectName(QStringLiteral("formulaWords"));
  words_->setWordWrap(true);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(field_);
  column->addWidget(words_);
  connect(field_, &QPlainTextEdit::textChanged, this, [this] {
    check();
    set_(field_->toPlainText());
  });
  refresh();
  check();
}

void FormulaField::refresh() {
  const QString now = get_().value_or(QString());
  if (field_->toPlainText() == now) return;
  const QSignalBlocker quiet(field_);
  field_->setPlainText(now);
  check();
}

void FormulaField::check() {
  const QString written = field_->toPlainText();
  formula::Mistake mistake;
  const bool isGood = formula::compile(written.toStdString(), mistake).has_value();
  QList<QTextEdit::ExtraSelection> marks;
  if (isGood) {
    words_->setText(tr("✓ Good. Hover over the field for all names and functions."));
  } else {
    const int at = letterAt(written, mistake.at);
    QTextCursor cursor(field_->document());
    cursor.setPosition(std::min(at, static_cast<int>(written.size())));
    words_->setText(tr("✗ Line %1, letter %2: %3.")
                        .arg(cursor.blockNumber() + 1)
                        .arg(cursor.positionInBlock() + 1)
                        .arg(text(mistake.what)));
    cursor.movePosition(QTextCursor::NextCharacter, QTextCursor::KeepAnchor);
    QTextEdit::ExtraSelection mark;
    mark.cursor = cursor;
    mark.format.setUnderlineStyle(QTextCharFormat::WaveUnderline);
    mark.format.setUnderlineColor(theme().wrong);
    marks.append(mark);
  }
  field_->setExtraSelections(marks);
}

}  // namespace chispa::desk
