// SPDX-License-Identifier: GPL-3.0-or-later
// The guide calls things as the window does, and its ways through the menus lead somewhere.
#include <set>

#include "demowindow.h"
#include <QJsonDocument>
#include <QJsonObject>
#include <QMenu>
#include <QMenuBar>
#include <QRegularExpression>

namespace chispa::desk {
namespace {

QString readSource(const char* name) {
  QFile file(QStringLiteral(CHISPA_SOURCE_DIR "/") + QLatin1String(name));
  EXPECT_TRUE(file.open(QIODevice::ReadOnly)) << name;
  return QString::fromUtf8(file.readAll());
}

/// What stands on a control, without its underlined letter and dots.
QString bare(QString words) {
  words.remove(QRegularExpression(QStringLiteral("[&…:]")));
  return words.simplified().toLower();
}

/// All that the guide sets in italics, which are the words of the window.
QStringList namedInTheGuide() {
  QString guide = readSource("docs/guide.md");
  guide.remove(
      QRegularExpression(QStringLiteral("```.*?```"), QRegularExpression::DotMatchesEverythingOption));
  guide.remove(QRegularExpression(QStringLiteral("`[^`]*`|\\*\\*[^*]+\\*\\*")));
  static const QRegularExpression italic(QStringLiteral("\\*([^*\n]+(?:\n[^*\n]+)?)\\*"));
  QStringList named;
  for (auto match = italic.globalMatch(guide); match.hasNext();)
    named << match.next().captured(1).simplified();
  EXPECT_GT(named.size(), 150);
  return named;
}

TEST(Guide, CallsThingsAsTheWindowDoes) {
  std::set<QString> words;
  const QJsonObject catalogue =
      QJsonDocument::fromJson(readSource("src/desk/words/es.json").toUtf8()).object();
  for (const QString& key : catalogue.keys()) words.insert(bare(key.section(QLatin1Char('|'), -1)));
  // Emphasis, examples of what is typed, sentences that are told with a name or a number in them, steps with
  // their number before them, and the phone's own page.
  const std::set<QString> others = {"finder",
                                    "holes or lines of an svg drawing",
                                    "picture beneath the plan",
                                    "wa",
                                    "w",
                                    "no answer from 10.0.0.5 since 12 s",
                                    "set to the last backup",
                                    "post 4, grb",
                                    "aim",
                                    "expose",
                                    "review",
                                    "accept",
                                    "quiet, rise, full",
                                    "end",
                                    "verse 1",
                                    "verse 2",
                                    "send a video",
                                    "steps may differ",
                                    "no answer from",
                                    "⋯",
                                    "the audio file is not there",
                                    "am",
                                    "f♯",
                                    "holds the light to 62 %",
                                    "an effect is unknown to this version",
                                    "opening",
                                    "saving",
                                    ""};
  QStringList unknown;
  for (const QString& named : namedInTheGuide())
    for (const QString& part : named.split(QStringLiteral(" ▸ ")))
      if (!words.contains(bare(part)) && !others.contains(bare(part))) unknown << part;
  EXPECT_TRUE(unknown.isEmpty()) << unknown.join(QLatin1Char('\n')).toStdString();
}

/// The action of `menu` that is called so.
QAction* called(const QList<QAction*>& actions, const QString& words) {
  for (QAction* action : actions)
    if (bare(action->text()) == bare(words)) return action;
  return nullptr;
}

using GuideWindow = DemoWindow;

TEST_F(GuideWindow, HasTheWaysThatTheGuideTells) {
  int ways = 0;
  for (const QString& named : namedInTheGuide()) {
    const QStringList parts = named.split(QStringLiteral(" ▸ "));
    const QAction* action = called(window_.menuBar()->actions(), parts.front());
    if (parts.size() < 2 || !action) continue;
    ++ways;
    for (const QString& part : parts.mid(1)) {
      ASSERT_TRUE(action->menu()) << named.toStdString();
      emit action->menu()->aboutToShow();
      action = called(action->menu()->actions(), part);
      ASSERT_TRUE(action) << named.toStdString() << ": " << part.toStdString() << " is not there";
    }
  }
  EXPECT_GT(ways, 20);
}

/// A menu that is higher than a small screen would fold into columns that hide all else.
TEST_F(GuideWindow, HasMenusThatFitOnASmallScreen) {
  constexpr int kSmallScreen_px = 768;
  for (const QMenu* menu : window_.findChildren<QMenu*>())
    EXPECT_LT(menu->sizeHint().height(), kSmallScreen_px) << menu->title().toStdString();
}

}  // namespace
}  // namespace chispa::desk
