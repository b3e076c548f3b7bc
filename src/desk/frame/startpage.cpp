// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/startpage.h"

#include <QEvent>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include "core/show/strip.h"
#include "desk/frame/recentshows.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr QSize kTile(128, 72);
constexpr int kColumns = 3;

/// The LEDs of a new show, seen from the front, and from above where they lie.
QPixmap pictureOf(ShowTemplate kind, qreal ratio) {
  QPixmap picture(kTile * ratio);
  picture.setDevicePixelRatio(ratio);
  picture.fill(theme().raised);
  const Show show = newShow(kind);
  std::vector<Vec3> points;
  for (const auto& fixture : show.fixtures)
    for (const Vec3& point : positions(*fixture)) points.push_back(point);
  if (points.empty()) return picture;
  QRectF extent;
  for (const Vec3& p : points) extent |= QRectF(p.x, -p.z, 1e-3, 1e-3);
  constexpr double kMargin = 14;
  const double scale = std::min((kTile.width() - 2 * kMargin) / std::max(extent.width(), 0.01),
                                (kTile.height() - 2 * kMargin) / std::max(extent.height(), 0.01));
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().ember);
  const QPointF middle(kTile.width() / 2.0, kTile.height() / 2.0);
  for (const Vec3& p : points) {
    const QPointF at = middle + (QPointF(p.x, -p.z) - extent.center()) * scale;
    painter.drawEllipse(at, 1.1, 1.1);
  }
  return picture;
}

QString nameOf(ShowTemplate kind) {
  switch (kind) {
    case ShowTemplate::Empty:
      return StartPage::tr("Empty");
    case ShowTemplate::Strip:
      return StartPage::tr("A strip");
    case ShowTemplate::Matrix:
      return StartPage::tr("A matrix");
    case ShowTemplate::Ring:
      return StartPage::tr("A ring");
    case ShowTemplate::HouseFront:
      return StartPage::tr("A house front");
    case ShowTemplate::Tree:
      return StartPage::tr("A tree");
  }
  return {};
}

QToolButton* tile(const QString& name, const QString& words, const QString& tip) {
  auto* button = new QToolButton;
  button->setObjectName(name);
  button->setText(words);
  button->setAccessibleName(words);
  button->setToolTip(tip);
  button->setToolButtonStyle(Qt::ToolButtonTextUnderIcon);
  button->setIconSize(kTile);
  button->setAutoRaise(true);
  button->setFocusPolicy(Qt::StrongFocus);
  return button;
}

}  // namespace

StartPage::StartPage(QWidget* parent) : QWidget(parent), recent_(new QGridLayout), recentBox_(new QWidget) {
  setObjectName(QStringLiteral("startPage"));
  setAccessibleName(tr("Start"));
  parent->installEventFilter(this);
  setGeometry(parent->rect());
  auto* middle = new QVBoxLayout;
  addTemplates(*middle);
  addDoors(*middle);
  auto* below = new QVBoxLayout(recentBox_);
  below->setContentsMargins(0, 0, 0, 0);
  below->addWidget(heading(tr("Open again")));
  below->addLayout(recent_);
  middle->addWidget(recentBox_);
  auto* row = new QHBoxLayout;
  row->addStretch();
  row->addLayout(middle);
  row->addStretch();
  auto* column = new QVBoxLayout(this);
  column->addStretch();
  column->addLayout(row);
  column->addStretch();
  refresh();
}

void StartPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  // Where a show is opened at once nobody sees them.
  QTimer::singleShot(0, this, [this] {
    if (!isVisible()) return;
    for (const auto& [kind, button] : std::exchange(tiles_, {}))
      button->setIcon(pictureOf(kind, devicePixelRatioF()));
  });
}

void StartPage::addTemplates(QVBoxLayout& column) {
  column.addWidget(heading(tr("Begin with")));
  auto* grid = new QGridLayout;
  int n = 0;
  for (const ShowTemplate kind : kShowTemplates) {
    QToolButton* button = tile(QStringLiteral("startTemplate%1").arg(n), nameOf(kind),
                               kind == ShowTemplate::Empty
                                   ? tr("An empty plan to draw on")
                                   : tr("A new show with this on the plan, wired, with two looks to try"));
    tiles_.emplace_back(kind, button);
    connect(button, &QToolButton::clicked, this, [this, kind] { emit newAsked(kind); });
    grid->addWidget(button, n / kColumns, n % kColumns);
    ++n;
  }
  column.addLayout(grid);
}

void StartPage::addDoors(QVBoxLayout& column) {
  auto* row = new QHBoxLayout;
  const auto add = [&](const QString& name, const QString& words, const QString& tip, auto act) {
    auto* button = new QPushButton(words);
    button->setObjectName(name);
    button->setToolTip(tip);
    connect(button, &QPushButton::clicked, this, act);
    row->addWidget(button);
  };
  add(QStringLiteral("startOpen"), tr("Open…"), tr("Opens a show from a file"),
      [this] { emit openAsked({}); });
  add(QStringLiteral("startDemo"), tr("Open the demo"), tr("A carousel with 4,000 LEDs and music of its own"),
      [this] { emit demoAsked(); });
  add(QStringLiteral("startBench"), tr("I have a strip in my hand"),
      tr("Goes to the Bench: finds out what a strip is, and lights it"), [this] { emit benchAsked(); });
  column.addSpacing(10);
  column.addLayout(row);
  column.addSpacing(14);
}

void StartPage::refresh() {
  while (QLayoutItem* item = recent_->takeAt(0)) {
    if (item->widget()) item->widget()->deleteLater();
    delete item;
  }
  const QStringList shows = recentShows().mid(0, kColumns);
  recentBox_->setVisible(!shows.isEmpty());
  int n = 0;
  for (const QString& path : shows) {
    const QString name = QFileInfo(path).completeBaseName();
    QToolButton* button = tile(QStringLiteral("startRecent%1").arg(n), name, path);
    const QImage kept = pictureOfShow(path);
    const double ratio = devicePixelRatioF();
    QPixmap picture(kTile * ratio);
    picture.fill(theme().raised);
    if (!kept.isNull())
      picture = QPixmap::fromImage(
          kept.scaled(kTile * ratio, Qt::KeepAspectRatioByExpanding, Qt::SmoothTransformation));
    picture.setDevicePixelRatio(ratio);
    button->setIcon(picture);
    connect(button, &QToolButton::clicked, this, [this, path] { emit openAsked(path); });
    recent_->addWidget(button, 0, n++);
  }
}

bool StartPage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Resize) setGeometry(parentWidget()->rect());
  return QWidget::eventFilter(watched, event);
}

void StartPage::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), theme().window);
}

}  // namespace chispa::desk
