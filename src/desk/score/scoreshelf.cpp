// SPDX-License-Identifier: GPL-3.0-or-later
// The side of the score: palettes and the shelf of effects.
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/colour/oklch.h"
#include "core/edit/scoreedits.h"
#include "core/files/palettefile.h"
#include "desk/parts/columngrip.h"
#include "desk/parts/contextmenu.h"
#include "desk/parts/format.h"
#include "desk/parts/gradientbar.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/score/chosenthing.h"
#include "desk/score/composing.h"
#include "desk/score/effectshelf.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

constexpr int kSideWidth = 206;

/// The palettes; they can be dragged onto clips, and files of colours dropped among them.
class PaletteList : public QListWidget {
 public:
  explicit PaletteList(std::function<void(const QString&)> import) : import_(std::move(import)) {
    setDragEnabled(true);
    setAcceptDrops(true);
  }

 protected:
  QStringList mimeTypes() const override {
    return {QLatin1String(kPaletteMime), QStringLiteral("text/uri-list")};
  }
  QMimeData* mimeData(const QList<QListWidgetItem*>& items) const override {
    auto* dragged = new QMimeData;
    if (!items.isEmpty())
      dragged->setData(QLatin1String(kPaletteMime),
                       QByteArray::number(items.front()->data(Qt::UserRole).toUInt()));
    return dragged;
  }
  void dragEnterEvent(QDragEnterEvent* event) override { event->setAccepted(event->mimeData()->hasUrls()); }
  void dragMoveEvent(QDragMoveEvent* event) override { event->setAccepted(event->mimeData()->hasUrls()); }
  void dropEvent(QDropEvent* event) override {
    for (const QUrl& url : event->mimeData()->urls())
      if (url.isLocalFile()) import_(url.toLocalFile());
    event->acceptProposedAction();
  }

 private:
  std::function<void(const QString&)> import_;
};

/// The palette that a file holds, or the colours of a picture. Any thread.
Result<Palette> paletteIn(const std::filesystem::path& path) {
  if (paletteFormatOf(path)) return readPalette(path);
  const auto media = decodeMedia(path);
  if (!media) return media.failure();
  constexpr int kColours = 6;
  Palette found;
  found.name = path.stem().string();
  found.stops = stopsOfPicture((*media)->rgba, kColours);
  return found;
}

}  // namespace

QWidget* ScorePage::makeShelf() {
  auto* panel = new QWidget;
  panel->setObjectName(QStringLiteral("sidePanel"));
  panel->setFixedWidth(kSideWidth);
  new ColumnGrip(panel, QStringLiteral("score"));
  auto* column = new QVBoxLayout(panel);
  column->setContentsMargins(8, 10, 4, 8);
  addPalettes(*column);
  column->addSpacing(8);
  auto* find = new QLineEdit;
  named(find, "effectSearch", tr("Find an effect"),
        tr("Shows only effects whose name or summary has these words"));
  find->setPlaceholderText(tr("Find an effect"));
  find->setClearButtonEnabled(true);
  column->addWidget(heading(tr("Effects and blocks")));
  column->addWidget(find);
  shelf_ = new EffectShelf(session_);
  connect(find, &QLineEdit::textChanged, shelf_, &EffectShelf::search);
  column->addWidget(shelf_, 3);
  return panel;
}

void ScorePage::addPalettes(QVBoxLayout& column) {
  column.addWidget(heading(tr("Palettes of this show")));
  palettes_ = new PaletteList([this](const QString& file) { importPalette(file); });
  named(palettes_, "paletteList", tr("Palettes"),
        tr("Choose one to change it; double click, or drag it onto a clip, to give it to clips. Files of "
           "colours can be dropped here."));
  palettes_->setIconSize({92, 14});
  connect(palettes_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    if (filling_ || !item) return;
    const PaletteId id{item->data(Qt::UserRole).toUInt()};
    timeline_->setChosenPalette(id);
    shelf_->setPalette(id);
  });
  connect(palettes_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) {
    // With clips selected a click only chooses what new clips get; otherwise it shows the palette itself.
    if (session_.selection.clips().empty())
      session_.selection.select(PaletteId{item->data(Qt::UserRole).toUInt()});
  });
  connect(palettes_, &QListWidget::itemActivated, this, &ScorePage::givePalette);
  offerActions(*palettes_, {QStringLiteral("rename"),
                            QStringLiteral("delete"),
                            {},
                            QStringLiteral("cutThings"),
                            QStringLiteral("copyThings"),
                            QStringLiteral("pasteThings")});
  column.addWidget(palettes_, 1);
  auto* add = new QPushButton(tr("New palette"));
  add->setObjectName(QStringLiteral("newPalette"));
  add->setToolTip(tr("A palette of two colours to begin with"));
  connect(add, &QPushButton::clicked, this, [this] {
    PaletteId id;
    session_.edit(tr("new palette"), [&](Show& show) {
      id = addPalette(show, tr("Palette").toStdString(), {{0, {20, 24, 60}}, {1, {255, 230, 180}}});
    });
    session_.selection.select(id);
  });
  column.addWidget(add);
  auto* import = new QPushButton(tr("Import…"));
  import->setObjectName(QStringLiteral("importPalette"));
  import->setToolTip(
      tr("Palettes of other programs (.gpl, .ggr, .cpt, .svg, .css), or the colours of a picture"));
  connect(import, &QPushButton::clicked, this, [this] { importPalette(); });
  column.addWidget(import);
}

/// To the selected clips; without any, its form is shown.
void ScorePage::givePalette(const QListWidgetItem* item) {
  const PaletteId id{item->data(Qt::UserRole).toUInt()};
  const ClipIds clips = session_.selection.clips();
  const Score* score = session_.stage.score();
  if (clips.empty() || !score) return session_.selection.select(id);
  session_.edit(tr("palette"), [&, scoreId = score->id](Show& show) {
    for (const ClipId clip : clips) changeClip(show, scoreId, clip, [id](Clip& c) { c.palette = id; });
  });
}

void ScorePage::importPalette(QString file) {
  if (file.isEmpty())
    file = QFileDialog::getOpenFileName(this, tr("A palette, or a picture"), {},
                                        tr("Palettes and pictures (*.gpl *.ggr *.cpt *.svg *.css *.png *.jpg "
                                           "*.jpeg *.gif *.webp);;All files (*)"));
  if (file.isEmpty()) return;
  const std::filesystem::path path = file.toStdString();
  const auto read = makePatiently<Result<Palette>>(this, tr("Reading “%1” …").arg(file),
                                                   [path] { return paletteIn(path); });
  if (!read) return;
  if (!*read) return emit composing_->told(said(read->failure()));
  PaletteId id;
  session_.edit(tr("import a palette"),
                [&](Show& show) { id = addPalette(show, (*read)->name, (*read)->stops); });
  session_.selection.select(id);
}

void ScorePage::fillPalettes() {
  filling_ = true;
  const int chosen = palettes_->currentRow();
  palettes_->clear();
  for (const auto& palette : session_.show().palettes) {
    auto* item =
        new QListWidgetItem(QIcon(QPixmap::fromImage(gradientImage(*palette, 92, 14))), text(palette->name));
    item->setData(Qt::UserRole, palette->id.value);
    palettes_->addItem(item);
  }
  palettes_->setCurrentRow(std::clamp(chosen, 0, std::max(0, palettes_->count() - 1)));
  filling_ = false;
}

}  // namespace chispa::desk
