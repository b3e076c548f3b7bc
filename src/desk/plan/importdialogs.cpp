// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/importdialogs.h"

#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QDoubleSpinBox>
#include <QFontComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QRadioButton>

#include "core/show/limits.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

/// A dialog of a few rows with the two usual buttons.
class Question : public QDialog {
 public:
  Question(QWidget* parent, const QString& title, const QString& accept)
      : QDialog(parent), rows_(new QFormLayout(this)) {
    setWindowTitle(title);
    buttons_ = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    buttons_->button(QDialogButtonBox::Ok)->setText(accept);
    connect(buttons_, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons_, &QDialogButtonBox::rejected, this, &QDialog::reject);
  }
  void addRow(const QString& label, QWidget* field) {
    field->setAccessibleName(label);
    field->setToolTip(label);
    rows_->addRow(label, field);
  }
  bool ask() {
    rows_->addRow(buttons_);
    return exec() == QDialog::Accepted;
  }

 private:
  QFormLayout* rows_;
  QDialogButtonBox* buttons_;
};

}  // namespace

std::optional<SvgImport> askSvgImport(QWidget* parent, const SvgDrawing& drawing) {
  Question question(parent, PlanPage::tr("LEDs from a drawing"), PlanPage::tr("Make a fixture"));
  auto* holes = new QRadioButton(counted(static_cast<qsizetype>(drawing.circles.size()),
                                         PlanPage::tr("an LED in the one hole"),
                                         PlanPage::tr("an LED in each of %1 holes")));
  auto* lines = new QRadioButton(counted(static_cast<qsizetype>(drawing.outlines.size()),
                                         PlanPage::tr("strip along the one line"),
                                         PlanPage::tr("strip along each of %1 lines")));
  holes->setEnabled(!drawing.circles.empty());
  lines->setEnabled(!drawing.outlines.empty());
  (drawing.circles.empty() ? lines : holes)->setChecked(true);
  auto* order = new QComboBox;
  order->addItems({PlanPage::tr("from hole to the nearest hole"), PlanPage::tr("by their names (ids)")});
  auto* unit = new QComboBox;
  unit->addItems({PlanPage::tr("as the drawing says"), PlanPage::tr("millimetres"), PlanPage::tr("inches")});
  question.addRow(PlanPage::tr("Take"), holes);
  question.addRow({}, lines);
  question.addRow(PlanPage::tr("Numbered"), order);
  question.addRow(PlanPage::tr("Its unit"), unit);
  if (!question.ask()) return std::nullopt;
  constexpr double kUnits_m[] = {0, 0.001, 0.0254};
  return SvgImport{holes->isChecked(), order->currentIndex() == 1 ? HoleOrder::ById : HoleOrder::Nearest,
                   kUnits_m[unit->currentIndex()]};
}

std::optional<LetteringWish> askLettering(QWidget* parent) {
  Question question(parent, PlanPage::tr("Strip along letters"), PlanPage::tr("Make a fixture"));
  auto* words = new QLineEdit(PlanPage::tr("OPEN"));
  auto* font = new QFontComboBox;
  auto* height = new QDoubleSpinBox;
  height->setRange(0.01, limits::kLargest_m);
  height->setDecimals(3);
  height->setValue(0.5);
  height->setSuffix(QStringLiteral(" m"));
  question.addRow(PlanPage::tr("Words"), words);
  question.addRow(PlanPage::tr("Font"), font);
  question.addRow(PlanPage::tr("Height of a capital"), height);
  if (!question.ask()) return std::nullopt;
  return LetteringWish{words->text(), font->currentFont().family(), height->value()};
}

}  // namespace chispa::desk
