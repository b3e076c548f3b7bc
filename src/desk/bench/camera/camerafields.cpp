// SPDX-License-Identifier: GPL-3.0-or-later
// The fields of each step of the camera page.
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QProgressBar>
#include <QPushButton>
#include <QToolButton>

#include "desk/bench/camera/camerapage.h"
#include "desk/bench/camera/cameraview.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "link/cameradevices.h"

namespace chispa::desk {
namespace {

QDoubleSpinBox* number(const char* name, const QString& label, const QString& tip, double low, double high,
                       double step, double value, int decimals, const QString& unit) {
  auto* field = named(new QDoubleSpinBox, name, label, tip);
  field->setRange(low, high);
  field->setSingleStep(step);
  field->setDecimals(decimals);
  field->setValue(value);
  field->setSuffix(QLatin1Char(' ') + unit);
  field->setKeyboardTracking(false);
  return field;
}

QPushButton* button(const char* name, const QString& words, const QString& tip) {
  return named(new QPushButton(words), name, words, tip);
}

QLabel* quiet(const QString& words = {}) {
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("quiet"));
  label->setWordWrap(true);
  return label;
}

}  // namespace

QWidget* CameraPage::makeSteps() {
  auto* steps = new QWidget;
  auto* row = new QHBoxLayout(steps);
  row->setContentsMargins(0, 0, 0, 0);
  const QString names[] = {tr("1  Aim"), tr("2  Expose"), tr("3  Capture"), tr("4  Review"), tr("5  Accept")};
  for (int i = 0; i < 5; ++i) {
    auto* one = named(new QPushButton(names[i]), "", names[i], tr("Go to this step; key %1").arg(i + 1));
    one->setObjectName(QStringLiteral("cameraStep%1").arg(i + 1));
    one->setCheckable(true);
    connect(one, &QPushButton::clicked, this, [this, i] { goTo(static_cast<Step>(i)); });
    row->addWidget(one);
    stepButtons_.push_back(one);
  }
  return steps;
}

QWidget* CameraPage::makeAim() {
  auto* page = new QWidget;
  auto* form = new QFormLayout(page);
  form->setRowWrapPolicy(QFormLayout::WrapAllRows);
  source_ = named(new QComboBox, "cameraSource", tr("Pictures from"), tr("Where pictures come from"));
  listSources();
  auto* row = new QHBoxLayout;
  row->addWidget(source_, 1);
  auto* again = button("cameraAgain", tr("Look again"), tr("Lists the cameras that are plugged in now"));
  connect(again, &QPushButton::clicked, this, &CameraPage::listSources);
  row->addWidget(again);
  form->addRow(tr("Pictures from"), row);
  path_ = named(new QLineEdit, "cameraPath", tr("File"),
                tr("The video or folder; for the simulated camera a file that says where the LEDs really "
                   "are, or nothing for the plan"));
  form->addRow(tr("File or folder"), makePath());
  severity_ = named(new QComboBox, "cameraSeverity", tr("The room"),
                    tr("How hard the simulated camera has it: noise, drifting light, mirrors, a hand"));
  severity_->addItems(
      {tr("dark and quiet"), tr("some light, a wet floor"), tr("bright, mirrors, a waving hand")});
  form->addRow(tr("The simulated room"), severity_);
  azimuth_ = number("cameraAzimuth", tr("Stands at"), tr("Where the simulated camera stands, round the LEDs"),
                    -180, 180, 15, 0, 0, QStringLiteral("°"));
  elevation_ = number("cameraElevation", tr("Looks down"), tr("How far above the simulated camera stands"),
                      -20, 89, 5, 12, 0, QStringLiteral("°"));
  form->addRow(tr("It stands at"), azimuth_);
  form->addRow(tr("It looks down by"), elevation_);
  fieldOfView_ =
      number("cameraView", tr("Width of view"), tr("How wide the camera sees; most telephones about 65°"), 10,
             150, 1, 60, 0, QStringLiteral("°"));
  form->addRow(tr("Width of view"), fieldOfView_);
  open_ = button("openCamera", tr("Open"), tr("Opens the camera, or begins the file again"));
  connect(open_, &QPushButton::clicked, this, &CameraPage::openSource);
  form->addRow(open_);
  const auto showRows = [this] {
    const bool isSimulated = sourceKind() == kSimulated;
    for (QWidget* one : std::initializer_list<QWidget*>{severity_, azimuth_, elevation_})
      one->setEnabled(isSimulated);
    path_->setEnabled(isSimulated || sourceKind() == kFiles);
  };
  connect(source_, &QComboBox::currentIndexChanged, page, showRows);
  return page;
}

void CameraPage::openFile(const QString& path) {
  source_->setCurrentIndex(source_->findData(kFiles));
  path_->setText(path);
  openSource();
}

int CameraPage::sourceKind() const {
  return source_->currentData().toInt();
}

void CameraPage::listSources() {
  const QVariant chosen = source_->currentData();
  source_->clear();
  source_->addItem(tr("Simulated camera"), kSimulated);
  for (const link::CameraDevice& camera : link::cameraDevices())
    source_->addItem(tr("%1 (/dev/video%2)").arg(text(camera.name)).arg(camera.number), camera.number);
  source_->addItem(tr("Video, or folder of pictures"), kFiles);
  source_->setCurrentIndex(std::max(0, source_->findData(chosen)));
}

/// The path, typed or looked for.
QWidget* CameraPage::makePath() {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(path_, 1);
  auto* browse = named(new QToolButton, "cameraBrowse", tr("Browse"),
                       tr("Looks for a file, or for a folder of pictures"));
  browse->setText(tr("Browse…"));
  auto* menu = new QMenu(browse);
  const auto take = [this](const QString& path) {
    if (!path.isEmpty()) path_->setText(path);
  };
  menu->addAction(tr("A file…"), this, [this, take] {
    take(QFileDialog::getOpenFileName(this, tr("A video, or where the LEDs are"), path_->text()));
  });
  menu->addAction(tr("A folder of pictures…"), this, [this, take] {
    take(QFileDialog::getExistingDirectory(this, tr("A folder of pictures"), path_->text()));
  });
  browse->setMenu(menu);
  browse->setPopupMode(QToolButton::InstantPopup);
  line->addWidget(browse);
  return row;
}

QWidget* CameraPage::makeExpose() {
  auto* page = new QWidget;
  auto* column = new QVBoxLayout(page);
  auto* form = new QFormLayout;
  level_ = number("cameraLevel", tr("Level of the LEDs"), tr("How bright the LEDs blink"), 0.5, 100, 5, 25, 1,
                  QStringLiteral("%"));
  connect(level_, &QDoubleSpinBox::valueChanged, this, &CameraPage::light);
  form->addRow(tr("Level"), level_);
  column->addLayout(form);
  findLevel_ = button("findLevel", tr("Find the level"),
                      tr("Tries levels until neighbours stay apart: bright, but not white"));
  connect(findLevel_, &QPushButton::clicked, this, &CameraPage::findLevel);
  column->addWidget(findLevel_);
  exposed_ = quiet();
  column->addWidget(exposed_);
  column->addWidget(
      quiet(tr("The bars over the picture say how many of its points have which brightness. Red bars at the "
               "right are white: too bright.")));
  column->addStretch();
  return page;
}

QWidget* CameraPage::makeCapture() {
  auto* page = new QWidget;
  auto* column = new QVBoxLayout(page);
  auto* form = new QFormLayout;
  hold_ = number("cameraHold", tr("Hold each picture"),
                 tr("How long each pattern stands still; four camera frames are good"), 0.05, 1, 0.025, 0.15,
                 3, QStringLiteral("s"));
  rounds_ = named(new QSpinBox, "cameraRounds", tr("Rounds"),
                  tr("How often all words are blinked; more rounds see through hands and noise"));
  rounds_->setRange(1, 20);
  rounds_->setValue(3);
  form->addRow(tr("Hold"), hold_);
  form->addRow(tr("Rounds"), rounds_);
  column->addLayout(form);
  capture_ = button("captureLeds", tr("Capture"),
                    tr("Lets every LED blink its own word, and watches; once more stops it"));
  capture_->setCheckable(true);
  connect(capture_, &QPushButton::clicked, this, [this](bool on) {
    if (on) return startCapture({});
    if (thread_) thread_->endCapture();
  });
  column->addWidget(capture_);
  progress_ = new QProgressBar;
  progress_->setAccessibleName(tr("How far the capture is"));
  progress_->setRange(0, 1000);
  column->addWidget(progress_);
  column->addWidget(quiet(tr("Keep the camera still. Its rate and its lag do not matter.")));
  column->addStretch();
  return page;
}

QSpinBox* CameraPage::addLimit(QFormLayout* form, const char* name, const QString& label, const QString& tip,
                               int high) {
  auto* field = named(new QSpinBox, name, label, tip);
  field->setRange(0, high);
  field->setSpecialValueText(tr("auto"));
  connect(field, &QSpinBox::valueChanged, this, &CameraPage::evaluate);
  form->addRow(label, field);
  return field;
}

QWidget* CameraPage::makeReview() {
  auto* page = new QWidget;
  auto* column = new QVBoxLayout(page);
  found_ = new QLabel;
  found_->setObjectName(QStringLiteral("cameraFound"));
  found_->setWordWrap(true);
  column->addWidget(found_);
  auto* form = new QFormLayout;
  threshold_ =
      addLimit(form, "spotThreshold", tr("Threshold"), tr("Grey levels that an LED must change by"), 255);
  contrast_ = addLimit(
      form, "spotContrast", tr("Contrast"),
      tr("How clearly each blink must be seen, in per cent of the LED's usual change; auto is 35"), 90);
  smallest_ = addLimit(form, "spotSmallest", tr("Smallest"),
                       tr("The fewest picture dots that an LED must cover"), 500);
  largest_ =
      addLimit(form, "spotLargest", tr("Largest"), tr("The most picture dots that an LED may cover"), 5000);
  nearest_ = addLimit(form, "spotNearest", tr("Nearest"),
                      tr("Picture points between two LEDs; nearer ones are doubtful"), 200);
  column->addLayout(form);
  doubtful_ = named(new QListWidget, "doubtfulLeds", tr("Doubtful and missing LEDs"),
                    tr("Choose one and click it in the picture to put it there; dots can be dragged"));
  doubtful_->setWordWrap(true);
  doubtful_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  connect(doubtful_, &QListWidget::currentItemChanged, this,
          [this](QListWidgetItem* item) { view_->point(item ? item->data(Qt::UserRole).toInt() : -1); });
  column->addWidget(doubtful_, 1);
  again_ = button("captureAgain", tr("Look again for these"), tr("Only the doubtful and missing ones blink"));
  connect(again_, &QPushButton::clicked, this, [this] {
    std::vector<int> these;
    for (int i = 0; i < doubtful_->count(); ++i)
      these.push_back(doubtful_->item(i)->data(Qt::UserRole).toInt());
    startCapture(these);
  });
  column->addWidget(again_);
  secondPlace_ = button("secondPlace", tr("From a second place…"),
                        tr("Keeps what was found; move the camera a third of its distance and capture again, "
                           "for places in space"));
  connect(secondPlace_, &QPushButton::clicked, this, &CameraPage::keepAsFirst);
  column->addWidget(secondPlace_);
  return page;
}

QWidget* CameraPage::makeAccept() {
  auto* page = new QWidget;
  auto* column = new QVBoxLayout(page);
  auto* form = new QFormLayout;
  form->setRowWrapPolicy(QFormLayout::WrapAllRows);
  lay_ = named(new QComboBox, "cameraLay", tr("Where it goes"), tr("How what was found gets into the plan"));
  lay_->addItems({tr("laid onto the plan, its size"), tr("laid onto the plan, measured size"),
                  tr("as the camera saw it, measured size")});
  lay_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  connect(lay_, &QComboBox::currentIndexChanged, this, &CameraPage::showResult);
  form->addRow(tr("Where it goes"), lay_);
  const auto led = [&](const char* name, const QString& label) {
    auto* field = named(new QSpinBox, name, label, tr("LED at an end of the measured length, from 1"));
    field->setRange(1, 1);
    connect(field, &QSpinBox::valueChanged, this, &CameraPage::showResult);
    form->addRow(label, field);
    return field;
  };
  knownFrom_ = led("knownFrom", tr("Measured from LED"));
  knownTo_ = led("knownTo", tr("to LED"));
  knownLength_ = number("knownLength", tr("are apart"), tr("The straight distance between these two LEDs"),
                        0.001, 1000, 0.1, 1, 3, QStringLiteral("m"));
  connect(knownLength_, &QDoubleSpinBox::valueChanged, this, &CameraPage::showResult);
  form->addRow(tr("are apart"), knownLength_);
  column->addLayout(form);
  result_ = new QLabel;
  result_->setObjectName(QStringLiteral("cameraResult"));
  result_->setWordWrap(true);
  column->addWidget(result_);
  accept_ = button("acceptPlaces", tr("Accept (Return)"),
                   tr("The LEDs' places go into the plan; one undo takes it back"));
  connect(accept_, &QPushButton::clicked, this, &CameraPage::accept);
  column->addWidget(accept_);
  column->addStretch();
  return page;
}

}  // namespace chispa::desk
