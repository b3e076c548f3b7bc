// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/preferences.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPalette>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/parts/search.h"
#include "desk/parts/textsize.h"
#include "desk/parts/theme.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "engine/sound.h"
#include "link/userfolders.h"

namespace chispa::desk {
namespace {

QString themeKey() {
  return QStringLiteral("theme");
}

QString soundDeviceKey() {
  return QStringLiteral("sound/device");
}

QString lastShowKey() {
  return QStringLiteral("opensLastShow");
}

}  // namespace

ThemeChoice chosenTheme() {
  const QSettings settings;
  const QString word = settings.value(themeKey()).toString();
  if (word == QStringLiteral("light")) return ThemeChoice::Light;
  if (word == QStringLiteral("desktop")) return ThemeChoice::AsDesktop;
  return ThemeChoice::Dark;
}

void chooseTheme(ThemeChoice choice) {
  static const QStringList words{QStringLiteral("desktop"), QStringLiteral("dark"), QStringLiteral("light")};
  QSettings().setValue(themeKey(), words[static_cast<int>(choice)]);
}

bool isDarkChosen() {
  if (const ThemeChoice choice = chosenTheme(); choice != ThemeChoice::AsDesktop)
    return choice == ThemeChoice::Dark;
  // Asked once, before a theme of ours is in the palette.
  static const bool isDesktopDark = [] {
    const QPalette own;
    return own.color(QPalette::Window).lightness() < own.color(QPalette::WindowText).lightness();
  }();
  return isDesktopDark;
}

QString chosenSoundDevice() {
  return QSettings().value(soundDeviceKey()).toString();
}

bool opensLastShow() {
  return QSettings().value(lastShowKey(), true).toBool();
}

Preferences::Preferences(QWidget* parent) : QDialog(parent), search_(new QLineEdit), rows_(new QVBoxLayout) {
  setObjectName(QStringLiteral("preferences"));
  setWindowTitle(tr("Preferences"));
  setMinimumWidth(textWidth(64));
  auto* column = new QVBoxLayout(this);
  named(search_, "preferenceSearch", tr("Find a setting"), tr("Leaves only the settings with these words"));
  search_->setPlaceholderText(tr("Find a setting"));
  search_->setClearButtonEnabled(true);
  connect(search_, &QLineEdit::textChanged, this, &Preferences::find);
  column->addWidget(search_);
  column->addLayout(rows_);
  addChoice(QStringLiteral("preferTheme"), tr("Theme"), tr("Dark or light letters and grounds"),
            {tr("as the desktop"), tr("dark"), tr("light")}, static_cast<int>(chosenTheme()),
            [this](int choice) {
              chooseTheme(static_cast<ThemeChoice>(choice));
              emit themeChosen();
            });
  addChoice(QStringLiteral("preferLanguage"), tr("Language"), tr("Holds from the next start"),
            {tr("as the desktop"), QStringLiteral("English"), QStringLiteral("Español")},
            static_cast<int>(chosenLanguage()),
            [](int choice) { chooseLanguage(static_cast<Language>(choice)); });
  addChoice(QStringLiteral("preferTextSize"), tr("Text size"), tr("Holds from the next start"),
            {tr("as the desktop"), tr("small"), tr("normal"), tr("large"), tr("very large")},
            static_cast<int>(chosenTextSize()),
            [](int choice) { chooseTextSize(static_cast<TextSize>(choice)); });
  addChoice(QStringLiteral("preferNumbers"), tr("Numbers"), tr("Holds from the next start"),
            {tr("as the language"), QStringLiteral("12,345.6"), QStringLiteral("12.345,6")},
            static_cast<int>(chosenNumbers()),
            [](int choice) { chooseNumbers(static_cast<Numbers>(choice)); });
  addSwitch(QStringLiteral("preferLast"), tr("Open the last show at the start"),
            tr("Light stays off until you switch it on"), opensLastShow(),
            [](bool on) { QSettings().setValue(lastShowKey(), on); });
  addSoundDevices();
  addDoor(QStringLiteral("hearScrubbing"), tr("Sound"), tr("Hear the music while scrubbing"));
  addDoor(QStringLiteral("showShortcuts"), tr("Keyboard"), tr("Shortcuts…"));
  addDoor(QStringLiteral("phonePage"), tr("Phone page"), tr("Phone page…"));
  addDoor(QStringLiteral("view5"), tr("MIDI, OSC, desks, sound that is heard"), tr("Go to Run"));
  addDoor(QStringLiteral("finderCamera"), tr("Camera"), tr("Positions by camera…"));
  addDoor(QStringLiteral("findControllers"), tr("Network: interfaces, controllers"), tr("Find controllers…"));
  addDoor(QStringLiteral("recoverWork"), tr("Recovery"),
          tr("Unsaved work in %1…").arg(text(link::stateFolder().string())));
  rows_->addStretch();
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
}

void Preferences::addRow(QWidget* row, const QString& words) {
  rows_->addWidget(row);
  all_.append({row, words});
}

QComboBox* Preferences::addChoice(const QString& key, const QString& label, const QString& tip,
                                  const QStringList& choices, int now, std::function<void(int)> chosen) {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(new QLabel(label), 1);
  auto* box = named(new QComboBox, qPrintable(key), label, tip);
  box->addItems(choices);
  box->setCurrentIndex(now);
  connect(box, &QComboBox::activated, this, std::move(chosen));
  line->addWidget(box);
  addRow(row, label + QLatin1Char(' ') + tip + QLatin1Char(' ') + choices.join(QLatin1Char(' ')));
  return box;
}

void Preferences::addSoundDevices() {
  const QString chosen = chosenSoundDevice();
  // Until the server has answered, the one that was chosen stands by its own name.
  QStringList titles{tr("as the desktop")};
  if (!chosen.isEmpty()) titles << chosen;
  auto* box = addChoice(QStringLiteral("preferSound"), tr("Sound device"),
                        tr("What the music is heard through, from the next time it plays"), titles,
                        chosen.isEmpty() ? 0 : 1, [](int) {});
  if (!chosen.isEmpty()) box->setItemData(1, chosen);
  connect(box, &QComboBox::activated, this, [this, box](int row) {
    const QString name = box->itemData(row).toString();
    QSettings().setValue(soundDeviceKey(), name);
    emit soundDeviceChosen(name);
  });
  runThen(pools::media(), this, &engine::soundDevices, [box](const auto& devices) {
    if (!devices) return box->setToolTip(said(devices.failure()));
    for (const engine::SoundDevice& device : *devices) {
      const int row = box->findData(text(device.name));
      if (row < 0)
        box->addItem(text(device.title), text(device.name));
      else
        box->setItemText(row, text(device.title));
    }
  });
}

void Preferences::addSwitch(const QString& key, const QString& label, const QString& tip, bool now,
                            std::function<void(bool)> switched) {
  auto* box = named(new QCheckBox(label), qPrintable(key), label, tip);
  box->setChecked(now);
  connect(box, &QCheckBox::toggled, this, std::move(switched));
  addRow(box, label + QLatin1Char(' ') + tip);
}

void Preferences::addDoor(const QString& action, const QString& label, const QString& words) {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->addWidget(new QLabel(label), 1);
  auto* button = new QPushButton(words);
  button->setObjectName(QStringLiteral("prefer-") + action);
  button->setToolTip(label);
  connect(button, &QPushButton::clicked, this, [this, action] { emit actionAsked(action); });
  line->addWidget(button);
  addRow(row, label + QLatin1Char(' ') + words);
}

void Preferences::find(const QString& words) {
  for (const Row& row : all_) row.widget->setVisible(hasWords(row.words, words));
}

}  // namespace chispa::desk
