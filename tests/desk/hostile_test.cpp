// SPDX-License-Identifier: GPL-3.0-or-later
// Files that were made to do harm, opened by one window after the other: each is done with within ten seconds
// of computing and two gigabytes, what cannot be taken is told with its file, and the window lives on.
#include <fstream>

#include "hostile/hostilefiles.h"
#include "window.h"
#include <QLabel>
#include <sys/resource.h>

#include "desk/bench/benchpage.h"
#include "desk/bench/monitor.h"

namespace chispa::desk {
namespace {

rusage usedSoFar() {
  rusage used{};
  ::getrusage(RUSAGE_SELF, &used);
  return used;
}

class HostileWindow : public WindowTest {
 protected:
  HostileWindow() {
    ::getrlimit(RLIMIT_CPU, &before_);
    // What is asked is answered with no.
    QObject::connect(&answering_, &QTimer::timeout, &window_, [] {
      if (auto* box = qobject_cast<QDialog*>(QApplication::activeModalWidget())) box->reject();
    });
    answering_.start(50);
  }
  ~HostileWindow() override { ::setrlimit(RLIMIT_CPU, &before_); }

  /// From now on the system ends whoever computes for longer than ten seconds.
  void limitTime() {
    const rusage used = usedSoFar();
    rlimit limit = before_;
    constexpr rlim_t kMost_s = 10;
    limit.rlim_cur = static_cast<rlim_t>(used.ru_utime.tv_sec + used.ru_stime.tv_sec) + kMost_s;
    ::setrlimit(RLIMIT_CPU, &limit);
  }

  void open(const std::string& name, const QString& path) {
    const std::string ending = name.substr(name.rfind('.'));
    if (ending == ".chispa") {
      window_.openFile(path);
    } else if (ending == ".chirec") {
      window_.showWorkspace(Workspace::Bench);
      window_.benchPage().monitor().playBack(path);
    } else if (ending == ".ogg" || ending == ".wav" || ending == ".m3u8" || ending == ".flac") {
      window_.showWorkspace(Workspace::Score);
      window_.scorePage().newScore(path);
    } else {
      window_.showWorkspace(Workspace::Score);
      window_.scorePage().importPalette(path);
      if (ending == ".svg") {
        window_.showWorkspace(Workspace::Plan);
        window_.planPage().importSvg(path, SvgImport{});
      }
    }
    settle();
  }

  /// All that the window says.
  QString words() {
    QString all = told_.join(QLatin1Char('\n'));
    for (const QLabel* label : window_.findChildren<QLabel*>()) all += QLatin1Char('\n') + label->text();
    for (const auto& score : show().scores) all += QLatin1Char('\n') + stage_.audioTrouble(score->audio);
    return all;
  }

  void isDoneWith(const std::string& name) {
    // The last line of a crash tells of which.
    std::cerr << name << "\n";
    const auto path = folder_.path() / name;
    std::ofstream(path, std::ios::binary) << test::hostileFiles().at(name)();
    limitTime();
    const Show before = show();
    open(name, QString::fromStdString(path.string()));
    const bool isTaken = name.ends_with(".chispa") ? document_.path() == path : !(show() == before);
    EXPECT_TRUE(isTaken || words().contains(QString::fromStdString(name)))
        << name << ": " << words().right(900).toStdString();
    for (const Workspace seen :
         {Workspace::Plan, Workspace::Bench, Workspace::Score, Workspace::Run, Workspace::Wire}) {
      window_.showWorkspace(seen);
      QCoreApplication::processEvents();
    }
    // It can still be worked with.
    const std::size_t controllers = show().controllers.size();
    press("addController");
    EXPECT_EQ(show().controllers.size(), controllers + 1) << name << ": " << words().left(600).toStdString();
    constexpr long kMost_kB = 2L << 20;
    EXPECT_LT(usedSoFar().ru_maxrss, kMost_kB) << name;
    told_.clear();
  }

 private:
  rlimit before_{};
  QTimer answering_;
};

TEST_F(HostileWindow, ShowsAreDoneWithAndTheWindowLivesOn) {
  for (const std::string& name : test::namesOfHostileFiles())
    if (name.ends_with(".chispa")) isDoneWith(name);
}

TEST_F(HostileWindow, OtherFilesAreDoneWithAndTheWindowLivesOn) {
  for (const std::string& name : test::namesOfHostileFiles())
    if (!name.ends_with(".chispa")) isDoneWith(name);
}

}  // namespace
}  // namespace chispa::desk
