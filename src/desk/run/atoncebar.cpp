// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/atoncebar.h"

#include <QComboBox>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QPointer>
#include <QPushButton>
#include <QScreen>

#include "core/colour/oklch.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/effect/effect.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/screenpicker.h"
#include "desk/parts/whenseen.h"
#include "desk/session/favourites.h"

namespace chispa::desk {

AtOnceBar::AtOnceBar(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName(QStringLiteral("toolRow"));
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(12, 6, 12, 6);
  row->setSpacing(8);
  row->addWidget(heading(tr("At once")));
  zone_ = named(new QComboBox, "atOnceZone", tr("Zones"), tr("What is lit at once"));
  effect_ = named(new QComboBox, "atOnceEffect", tr("Effect"), tr("Lit with the choice"));
  palette_ = named(new QComboBox, "atOncePalette", tr("Palette"), tr("Its colours"));
  for (QComboBox* box : {effect_, zone_, palette_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(10);
    row->addWidget(box);
  }
  connect(effect_, &QComboBox::activated, this, &AtOnceBar::apply);
  connect(zone_, &QComboBox::activated, this, &AtOnceBar::apply);
  connect(palette_, &QComboBox::activated, this, &AtOnceBar::choosePalette);
  row->addStretch();
  keep_ = named(new QPushButton(tr("Keep")), "atOnceKeep", tr("Keep"),
                tr("The light stays as a look; the next choice makes another"));
  off_ =
      named(new QPushButton(tr("Off")), "atOnceOff", tr("Off"), tr("Ends the light at once, and its look"));
  connect(keep_, &QPushButton::clicked, this, &AtOnceBar::keep);
  connect(off_, &QPushButton::clicked, this, &AtOnceBar::letGo);
  row->addWidget(keep_);
  row->addWidget(off_);
  auto* seen = new WhenSeen(this, [this] { refill(); });
  connect(&session_.document, &Document::showChanged, seen, &WhenSeen::ask);
  connect(&session_.document, &Document::opened, this, [this] {
    look_ = {};
    refill();
  });
  fillEffects();
  refill();
}

void AtOnceBar::refill() {
  const auto fill = [](QComboBox* box, const QString& first, const auto& items) {
    const QVariant chosen = box->currentData();
    const QSignalBlocker quiet(box);
    box->clear();
    if (!first.isEmpty()) box->addItem(first, 0u);
    for (const auto& item : items) box->addItem(text(item->name), item->id.value);
    box->setCurrentIndex(std::max(0, box->findData(chosen)));
  };
  fill(zone_, tr("on all zones"), session_.show().zones);
  fill(palette_, {}, session_.show().palettes);
  palette_->addItem(tr("from the screen…"));
  palette_->setItemData(palette_->count() - 1,
                        tr("A palette of the colours of a part of the screen as it is now"), Qt::ToolTipRole);
  chosenPalette_ = palette_->currentIndex();
  // Taken back, or deleted as a pad.
  if (look_ && !chispa::find(session_.show().looks, look_)) look_ = {};
  updateButtons();
}

void AtOnceBar::fillEffects() {
  const QVariant chosen = effect_->currentData();
  const QSignalBlocker quiet(effect_);
  effect_->clear();
  effect_->addItem(tr("choose an effect"), QString());
  for (const auto& [effect, name] : offeredEffects()) effect_->addItem(name, text(effect->key));
  effect_->setCurrentIndex(std::max(0, effect_->findData(chosen)));
}

void AtOnceBar::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  // Favourites are marked elsewhere.
  fillEffects();
}

void AtOnceBar::updateButtons() {
  keep_->setEnabled(static_cast<bool>(look_));
  off_->setEnabled(static_cast<bool>(look_));
  if (look_) return;
  const QSignalBlocker quiet(effect_);
  effect_->setCurrentIndex(0);
}

/// One zone, or those that together are all: of zones that share pixels the first, largest one is enough.
std::vector<ZoneId> AtOnceBar::zones() const {
  const ZoneId chosen{zone_->currentData().toUInt()};
  if (chosen) return {chosen};
  std::vector<ZoneId> all;
  for (const auto& zone : session_.show().zones)
    if (!zone->score) all.push_back(zone->id);
  return all;
}

/// The look that is chosen, in place of the one before.
void AtOnceBar::light(Show& show, PaletteId palette) {
  const std::string effect = effect_->currentData().toString().toStdString();
  const auto zones = this->zones();
  if (!chispa::find(show.looks, look_)) {
    look_ = addLook(show, tr("At once").toStdString(), zones, effect, palette);
    return;
  }
  const Look old = *chispa::find(show.looks, look_);
  const LookId fresh = addLook(show, old.name, zones, effect, palette);
  Look changed = *chispa::find(show.looks, fresh);
  remove(show.looks, fresh);
  changed.id = old.id;
  changed.name = old.name;
  changed.key = old.key;
  put(show.looks, std::move(changed));
}

void AtOnceBar::choosePalette(int index) {
  const bool isFromScreen = !palette_->itemData(index).isValid();
  if (!isFromScreen) {
    chosenPalette_ = index;
    return apply();
  }
  palette_->setCurrentIndex(chosenPalette_);
  takeColours();
}

void AtOnceBar::takeColours() {
  const auto screen = static_cast<int>(QGuiApplication::screens().indexOf(this->screen()));
  auto* picker = new ScreenPicker(std::max(0, screen), tr("Draw a box around the colours."),
                                  [bar = QPointer(this)](const ScreenPart&, const QImage& seen) {
                                    if (bar) bar->take(seen);
                                  });
  picker->show();
}

void AtOnceBar::take(const QImage& seen) {
  if (seen.isNull())
    return emit failed(
        tr("This desktop does not let programs look at the screen. Log in to an X11 session, or import a "
           "picture of it in Score."));
  // Small enough to count, large enough for every colour.
  constexpr int kSide = 160;
  constexpr int kColours = 6;
  const QImage dots = seen.scaled(kSide, kSide, Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                          .convertToFormat(QImage::Format_RGBX8888);
  const auto stops = stopsOfPicture({dots.constBits(), dots.constBits() + dots.sizeInBytes()}, kColours);
  PaletteId palette;
  const bool isLit = !effect_->currentData().toString().isEmpty();
  session_.edit(tr("colours from the screen"), [&](Show& show) {
    palette = addPalette(show, tr("Screen").toStdString(), stops);
    if (isLit) light(show, palette);
  });
  chosenPalette_ = palette_->findData(palette.value);
  palette_->setCurrentIndex(chosenPalette_);
  if (isLit) showLook();
}

void AtOnceBar::apply() {
  if (effect_->currentData().toString().isEmpty()) return;
  session_.edit(
      tr("light at once"), [&](Show& show) { light(show, PaletteId{palette_->currentData().toUInt()}); },
      QStringLiteral("at-once"));
  showLook();
}

void AtOnceBar::showLook() {
  session_.stage.light(look_);
  session_.selection.select(look_);
  updateButtons();
}

void AtOnceBar::keep() {
  look_ = {};
  updateButtons();
}

void AtOnceBar::letGo() {
  if (!look_) return;
  const LookId gone = std::exchange(look_, {});
  session_.stage.play({LiveEvent::Kind::Light, gone.value, 0});
  session_.edit(tr("end the light at once"), [gone](Show& show) { deleteLook(show, gone); });
  updateButtons();
}

}  // namespace chispa::desk
