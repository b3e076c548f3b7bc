// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/faders.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QSpinBox>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

Faders::Faders(QWidget* parent) : QWidget(parent) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(makeTop());
  column->addLayout(makeSliders(), 1);
  showBase();
}

QHBoxLayout* Faders::makeTop() {
  auto* top = new QHBoxLayout;
  const auto label = [&](const QString& words) { top->addWidget(new QLabel(words)); };
  label(tr("First channel"));
  base_ = new QSpinBox;
  named(base_, "faderBase", tr("First channel of the faders"),
        tr("Channel of the first fader, counted from the target's first"));
  base_->setRange(1, 100'000);
  base_->setSingleStep(kFaders);
  base_->setKeyboardTracking(false);
  connect(base_, &QSpinBox::valueChanged, this, &Faders::showBase);
  top->addWidget(base_);
  group_ = new QComboBox;
  named(group_, "faderGroup", tr("Faders that move together"),
        tr("What moves with the fader that is touched"));
  group_->addItems(
      {tr("each alone"), tr("every third together"), tr("every fourth together"), tr("all together")});
  top->addWidget(group_);
  hold_ = new QCheckBox(tr("Hold"));
  hold_->setObjectName(QStringLiteral("faderHold"));
  hold_->setToolTip(tr("Values stay when the faders move on to other channels; else those go dark"));
  hold_->setChecked(true);
  top->addWidget(hold_);
  top->addStretch();
  const auto button = [&](const char* name, const QString& words, const QString& tip) {
    auto* made = new QPushButton(words);
    made->setObjectName(QLatin1String(name));
    made->setToolTip(tip);
    top->addWidget(made);
    return made;
  };
  connect(button("fadersZero", tr("All to 0"), tr("Every fader down, held values too")),
          &QPushButton::clicked, this, [this] {
            levels_.clear();
            showBase();
          });
  connect(button("fadersPalette", tr("Copy to palette"),
                 tr("A new palette of the faders' colours, three channels per colour")),
          &QPushButton::clicked, this, [this] { emit paletteAsked(colours()); });
  return top;
}

std::vector<Srgb8> Faders::colours() const {
  std::vector<Srgb8> shown;
  const auto at = [this](int fader) {
    return toSrgb8({static_cast<float>(sliders_[static_cast<std::size_t>(fader)]->value()) / 255, 0, 0}).r;
  };
  for (int f = 0; f + 2 < kFaders; f += 3)
    if (at(f) + at(f + 1) + at(f + 2) > 0) shown.push_back({at(f), at(f + 1), at(f + 2)});
  return shown;
}

QGridLayout* Faders::makeSliders() {
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(0);
  for (int i = 0; i < kFaders; ++i) {
    const auto at = static_cast<std::size_t>(i);
    values_[at] = new QLabel(QStringLiteral("0"));
    channels_[at] = new QLabel;
    channels_[at]->setObjectName(QStringLiteral("quiet"));
    for (QLabel* one : {values_[at], channels_[at]}) {
      one->setAlignment(Qt::AlignCenter);
      one->setFont(numberFont(0.72));
      one->setMinimumWidth(20);
    }
    auto* slider = sliders_[at] = new QSlider(Qt::Vertical);
    slider->setObjectName(QStringLiteral("fader%1").arg(i + 1));
    slider->setRange(0, 255);
    slider->setPageStep(16);
    slider->setMinimumHeight(90);
    connect(slider, &QSlider::valueChanged, this, [this, i](int value) { moved(i, value); });
    grid->addWidget(values_[at], 0, i);
    grid->addWidget(slider, 1, i, Qt::AlignHCenter);
    grid->addWidget(channels_[at], 2, i);
  }
  return grid;
}

int Faders::base() const {
  return base_->value();
}

void Faders::set(int channel, int value) {
  if (value > 0)
    levels_[channel] = value;
  else
    levels_.erase(channel);
}

void Faders::showValue(int fader) {
  const auto at = static_cast<std::size_t>(fader);
  const auto found = levels_.find(base() + fader);
  const QSignalBlocker quiet(sliders_[at]);
  sliders_[at]->setValue(found == levels_.end() ? 0 : found->second);
  values_[at]->setText(QString::number(sliders_[at]->value()));
}

void Faders::showBase() {
  if (!hold_->isChecked() && base() != shownBase_) levels_.clear();
  shownBase_ = base();
  for (int i = 0; i < kFaders; ++i) {
    const auto at = static_cast<std::size_t>(i);
    channels_[at]->setText(QString::number(base() + i));
    sliders_[at]->setAccessibleName(tr("Channel %1").arg(base() + i));
    sliders_[at]->setToolTip(
        tr("Channel %1: arrow keys by one, Page keys by 16, Home and End to the ends").arg(base() + i));
    showValue(i);
  }
  emit changed();
}

void Faders::moved(int fader, int value) {
  const int stride =
      std::array{kFaders, 3, 4, 1}[static_cast<std::size_t>(std::max(0, group_->currentIndex()))];
  for (int i = fader % stride; i < kFaders; i += stride) {
    set(base() + i, value);
    showValue(i);
  }
  emit changed();
}

std::vector<std::uint8_t> Faders::levels() const {
  std::vector<std::uint8_t> all(levels_.empty() ? 0 : static_cast<std::size_t>(levels_.rbegin()->first));
  // What is pulled down is sent as zero, so far as it was ever in view.
  all.resize(std::max(all.size(), static_cast<std::size_t>(base() + kFaders - 1)));
  for (const auto& [channel, value] : levels_)
    all[static_cast<std::size_t>(channel - 1)] = static_cast<std::uint8_t>(value);
  return all;
}

}  // namespace chispa::desk
