// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QDialog>

class QComboBox;
class QLineEdit;
class QVBoxLayout;

namespace chispa::desk {

/// How the window looks: as the desktop does, or always the one or the other; dark where nothing was chosen,
/// as light is composed in the dark. Kept by QSettings.
enum class ThemeChoice { AsDesktop, Dark, Light };
ThemeChoice chosenTheme();
void chooseTheme(ThemeChoice choice);
/// What the choice comes to on this desktop. Ask before applyTheme().
bool isDarkChosen();

/// Whether the show that was open last is opened when Chispa starts without one; it is, unless switched off.
bool opensLastShow();

/// What sound is heard through, by the sound server's name; empty: what the desktop has chosen. Kept by
/// QSettings.
QString chosenSoundDevice();

/// What holds for all shows. There is no OK: a change takes effect at once. A word typed above leaves only
/// the settings that it is found in. UI thread.
class Preferences : public QDialog {
  Q_OBJECT
 public:
  explicit Preferences(QWidget* parent);

 signals:
  void themeChosen();
  void soundDeviceChosen(const QString& name);
  /// Where something is set that has a place of its own: the name of an action of the window.
  void actionAsked(const QString& name);

 private:
  QComboBox* addChoice(const QString& key, const QString& label, const QString& tip,
                       const QStringList& choices, int now, std::function<void(int)> chosen);
  void addSwitch(const QString& key, const QString& label, const QString& tip, bool now,
                 std::function<void(bool)> switched);
  /// Asks the sound server meanwhile.
  void addSoundDevices();
  void addDoor(const QString& action, const QString& label, const QString& words);
  void addRow(QWidget* row, const QString& words);
  void find(const QString& words);

  QLineEdit* search_;
  QVBoxLayout* rows_;
  struct Row {
    QWidget* widget;
    QString words;
  };
  QList<Row> all_;
};

}  // namespace chispa::desk
