// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/effectshelf.h"

#include <cmath>

#include <QContextMenuEvent>
#include <QDrag>
#include <QKeyEvent>
#include <QMenu>
#include <QMimeData>
#include <QScopedValueRollback>
#include <QTimer>

#include "core/edit/clipedits.h"
#include "core/edit/planedits.h"
#include "core/effect/screencapture.h"
#include "core/media/shown.h"
#include "core/preview/clippicture.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/chosenthing.h"
#include "desk/session/favourites.h"

namespace chispa::desk {
namespace {

constexpr QSize kPreview(78, 34);
/// What an item is called without its setting.
constexpr int kPlainName = Qt::UserRole + 1;
constexpr int kEvery_ms = 160;
constexpr double kShown_s = 4;
constexpr double kPreviewLoop_s = 300;

/// Cells to try an effect on: the zone's own if it is small enough to draw often, else its like in small.
std::shared_ptr<const ZoneCells> previewCells(const Session& session, ZoneId zone, bool onMatrix) {
  constexpr int kMax = 96;
  if (const auto compiled = session.stage.compiled(); compiled && !onMatrix)
    for (const CompiledScore& score : compiled->scores)
      for (const CompiledStave& stave : score.staves)
        if (stave.zone == zone && stave.cells->count() <= kMax) return stave.cells;
  static const auto small = [] {
    Show show;
    addFixture(show, LineShape{36, 0.05}, {});
    return std::make_shared<const ZoneCells>(cellsOf(show, mapPixels(show), *show.zones.front()));
  }();
  static const auto matrix = [] {
    Show show;
    addFixture(show, GridShape{18, 12, 0.05, 0.05}, {});
    return std::make_shared<const ZoneCells>(cellsOf(show, mapPixels(show), *show.zones.front()));
  }();
  const Zone* found = chispa::find(session.show().zones, zone);
  return onMatrix || (found && keepsGrids(found->layout)) ? matrix : small;
}

MusicFeatures swellingMusic() {
  constexpr int kValues = MusicFeatures::kRate * static_cast<int>(2 * kPreviewLoop_s);
  MusicFeatures features;
  for (int i = 0; i < kValues; ++i)
    features.level.push_back(0.5f + 0.4f * std::sin(static_cast<float>(i) * 0.03f));
  for (auto& onsets : features.onsets)
    for (Micros at{0}; at < micros(2 * kPreviewLoop_s); at += Micros(500'000)) onsets.push_back(at);
  for (std::size_t band = 0; band < features.bands.size(); ++band)
    for (int i = 0; i < kValues; ++i)
      features.bands[band].push_back(
          0.45f + 0.4f * std::sin(static_cast<float>(i) * 0.02f + static_cast<float>(band)));
  return features;
}

constexpr const char* kExample = "example";
constexpr ZoneId kEchoed{1};

/// A sun over the sea, for the preview of pictures.
MediaLibrary exampleMedia() {
  constexpr int kSide = 24;
  auto sun = std::make_shared<Media>(Media{kSide, kSide, 0, 1, {}});
  for (int y = 0; y < kSide; ++y)
    for (int x = 0; x < kSide; ++x) {
      const bool isSun = std::hypot(x - kSide / 2, y - kSide / 3) < kSide / 4.0;
      const bool isSea = y > kSide * 2 / 3;
      const QColor c = isSun   ? QColor(255, 200, 60)
                       : isSea ? QColor(10, 70 + 6 * ((x + y) % 4), 120)
                               : QColor(200 - 5 * y, 90, 60 + 4 * y);
      for (const int v : {c.red(), c.green(), c.blue(), 255})
        sun->rgba.push_back(static_cast<std::uint8_t>(v));
    }
  // A window with a sheet in it, for that of screens.
  auto window = std::make_shared<LivePicture>(kSide, kSide);
  std::vector<std::uint8_t> dots;
  for (int y = 0; y < kSide; ++y)
    for (int x = 0; x < kSide; ++x) {
      const bool isSheet = x > 4 && x < kSide - 4 && y > 6 && y < kSide - 2;
      const QColor c = y < 4       ? QColor(60, 70, 90)
                       : !isSheet  ? QColor(16, 40, 70)
                       : y % 4 < 2 ? QColor(240, 236, 220)
                                   : QColor(90, 110, 160);
      for (const int v : {c.red(), c.green(), c.blue(), 255}) dots.push_back(static_cast<std::uint8_t>(v));
    }
  window->write(dots.data());
  // The sun's rows, one after the other, for that of light row by row.
  auto rows = std::make_shared<Media>(Media{kSide, 1, kSide / kPreviewLoop_s, kSide, sun->rgba});
  MediaLibrary library;
  library.add(kExample, sun);
  library.add(mediaName(kRowsEffect, kExample), rows);
  library.addLive(screenPartOf({}), window);
  return library;
}

/// Comets on a line, for the preview of echoes.
CompiledStave echoedStave() {
  Show show;
  addFixture(show, LineShape{36, 0.05}, {});
  Clip clip;
  clip.effect = "comets";
  clip.length = micros(2 * kPreviewLoop_s);
  const Palette white{PaletteId{1}, {}, {{0, {60, 60, 60}}, {1, {255, 255, 255}}}};
  return {kEchoed, std::make_shared<const ZoneCells>(cellsOf(show, mapPixels(show), *show.zones.front())),
          std::make_shared<const CompiledClips>(
              CompiledClips{compileClip(clip, std::make_shared<const PaletteTable>(white), {})})};
}

std::string pictureOf(const Clip& clip) {
  const auto file = clip.params.find("file");
  const auto* name = file == clip.params.end() ? nullptr : std::get_if<std::string>(&file->second);
  return name ? *name : std::string();
}

}  // namespace

Clip EffectShelf::previewClip(const QString& words) const {
  const ChosenThing thing = chosenThing(session_.show(), words);
  Clip clip;
  clip.effect = thing.effect;
  clip.params = thing.params;
  clip.block = thing.block;
  if (thing.own) return clip;
  const std::string& key = thing.effect;
  // Words pass by, and a bar that nobody moves follows the music.
  if (key == "lettering") clip.params["moves"] = std::string("pass");
  if (key == "picture" || key == kRowsEffect) clip.params["file"] = std::string(kExample);
  if (key == "echo")
    clip.params = {{"source", static_cast<double>(kEchoed.value)}, {"mirrored", true}, {"tint", 1.0}};
  if (key == "spill") clip.params = {{"source", static_cast<double>(kEchoed.value)}, {"reach", 0.2}};
  if (key == "gauge") clip.motions["value"] = {Driver::Level, 0, 1, {}, 0, {}};
  return clip;
}

EffectShelf::EffectShelf(const Session& session, QWidget* parent) : QListWidget(parent), session_(session) {
  setObjectName(QStringLiteral("effectShelf"));
  setAccessibleName(tr("Effects"));
  setToolTip(tr("Drag an effect or a block onto a stave, or choose it and press Enter there"));
  setViewMode(IconMode);
  setIconSize(kPreview);
  setGridSize({kPreview.width() + 8, kPreview.height() + fontMetrics().height() + 12});
  setMovement(Static);
  setResizeMode(Adjust);
  setDragEnabled(true);
  setSpacing(0);
  refill();
  connect(this, &QListWidget::currentItemChanged, this, [this] {
    if (!filling_) emit effectChosen(chosen());
  });
  connect(this, &QListWidget::itemChanged, this, &EffectShelf::rename);
  connect(&session_.document, &Document::opened, this, &EffectShelf::refill);
  connect(&session_.document, &Document::showChanged, this, [this](const Show& before) {
    if (renaming_) return;
    if (!sameItems(before.ownEffects, session_.show().ownEffects) ||
        !sameItems(before.blocks, session_.show().blocks))
      refill();
  });
  auto* timer = new QTimer(this);
  connect(timer, &QTimer::timeout, this, [this] {
    // They move under the pointer; where nobody chooses they stand still.
    if (!isVisible() || !(underMouse() || viewport()->underMouse() || hasFocus())) return;
    moved_s_ += kEvery_ms * 1e-3;
    drawPreviews();
  });
  timer->start(kEvery_ms);
}

void EffectShelf::addThing(const QString& name, const QString& words, const QString& tip, bool isOwn) {
  auto* item = new QListWidgetItem(name);
  item->setData(Qt::UserRole, words);
  item->setToolTip(tip + tr("\nDrag it onto a stave, or choose it and press Enter there.") +
                   (isOwn ? tr(" F2 renames it, Delete removes it from the shelf.") : QString()));
  if (isOwn) item->setFlags(item->flags() | Qt::ItemIsEditable);
  addItem(item);
}

void EffectShelf::addEffect(const Effect& effect, const QString& name) {
  QString tip = said(effect.summary);
  if (!effect.use.empty()) tip += QLatin1Char('\n') + said(effect.use);
  QStringList names;
  for (const EffectSetting& one : effect.settings) names << said(one.name);
  if (!names.empty()) tip += tr("\nSettings, by a right click: %1.").arg(names.join(QStringLiteral(", ")));
  addThing(name, text(effect.key), tip, false);
  item(count() - 1)->setData(kPlainName, name);
  showSetting(*item(count() - 1), effect);
}

void EffectShelf::showSetting(QListWidgetItem& item, const Effect& effect) {
  const int setting = settings_.value(text(effect.key), -1);
  const QString name = item.data(kPlainName).toString();
  item.setText(setting < 0 ? name
                           : name + QStringLiteral(" · ") +
                                 said(effect.settings[static_cast<std::size_t>(setting)].name));
  item.setData(Qt::UserRole, wordsOf(effect, setting));
}

const Effect* EffectShelf::chosenEffect() const {
  const ChosenThing thing = chosenThing(session_.show(), chosen());
  return thing.own || thing.block ? nullptr : findEffect(thing.effect);
}

void EffectShelf::setSetting(const Effect& effect, int setting) {
  settings_[text(effect.key)] = setting;
  if (!currentItem()) return;
  showSetting(*currentItem(), effect);
  emit effectChosen(chosen());
  drawPreviews();
}

void EffectShelf::nextSetting() {
  const Effect* effect = chosenEffect();
  if (!effect) return emit told(tr("Only effects of Chispa have settings; choose one on the shelf."));
  const int next = settings_.value(text(effect->key), -1) + 1;
  setSetting(*effect, next < static_cast<int>(effect->settings.size()) ? next : -1);
}

void EffectShelf::refill() {
  filling_ = true;
  const QString was = chosen();
  clear();
  for (const auto& [effect, name] : offeredEffects()) addEffect(*effect, name);
  for (const auto& own : session_.show().ownEffects)
    addThing(text(own->name), wordsOf(own->id), tr("An effect of your own."), true);
  for (const auto& block : session_.show().blocks)
    addThing(text(block->name), wordsOf(block->id),
             tr("A building block of %1 clips: a change reaches every place where it stands.")
                 .arg(block->clips.size()),
             true);
  choose(was);
  filling_ = false;
  if (chosen() != was) emit effectChosen(chosen());
  drawPreviews();
}

void EffectShelf::toggleFavourite() {
  const Effect* effect = chosenEffect();
  if (!effect)
    return emit told(tr("Only effects of Chispa can be favourites; your own ones have their place."));
  setFavourite(effect->key, !isFavourite(effect->key));
  refill();
  scrollToItem(currentItem());
}

void EffectShelf::contextMenuEvent(QContextMenuEvent* event) {
  const Effect* effect = chosenEffect();
  if (!effect) return;
  QMenu menu(this);
  const int now = settings_.value(text(effect->key), -1);
  for (int i = -1; i < static_cast<int>(effect->settings.size()); ++i) {
    const QString name = i < 0 ? tr("As it is") : said(effect->settings[static_cast<std::size_t>(i)].name);
    QAction* action = menu.addAction(name, this, [this, effect, i] { setSetting(*effect, i); });
    action->setCheckable(true);
    action->setChecked(i == now);
  }
  menu.addSeparator();
  menu.addAction(isFavourite(effect->key) ? tr("No longer a favourite") : tr("A favourite: it comes first"),
                 this, &EffectShelf::toggleFavourite);
  menu.exec(event->globalPos());
}

void EffectShelf::choose(const QString& words) {
  for (int i = 0; i < count(); ++i)
    if (item(i)->data(Qt::UserRole).toString() == words) return setCurrentRow(i);
  setCurrentRow(0);
}

void EffectShelf::search(const QString& words) {
  for (int i = 0; i < count(); ++i)
    item(i)->setHidden(
        !words.isEmpty() && !item(i)->text().contains(words, Qt::CaseInsensitive) &&
        !item(i)->toolTip().section(QLatin1Char('\n'), 0, -2).contains(words, Qt::CaseInsensitive));
}

void EffectShelf::rename(QListWidgetItem* item) {
  if (filling_ || !(item->flags() & Qt::ItemIsEditable)) return;
  const ChosenThing thing = chosenThing(session_.show(), item->data(Qt::UserRole).toString());
  const std::string name = item->text().trimmed().toStdString();
  const OwnEffect* own = chispa::find(session_.show().ownEffects, thing.own);
  const Block* block = chispa::find(session_.show().blocks, thing.block);
  // The item's picture changes it, too.
  if (name.empty() || (own && own->name == name) || (block && block->name == name)) return;
  // Its name is changed already; the shelf is listed anew when this item has had its say.
  const QScopedValueRollback<bool> isRenaming(renaming_, true);
  session_.edit(tr("rename"), [&](Show& show) {
    if (own) changeItem(show.ownEffects, thing.own, [&](OwnEffect& one) { one.name = name; });
    if (block) changeItem(show.blocks, thing.block, [&](Block& one) { one.name = name; });
  });
}

void EffectShelf::removeChosen() {
  const ChosenThing thing = chosenThing(session_.show(), chosen());
  if (!thing.own && !thing.block)
    return emit told(
        tr("Effects of Chispa stay on the shelf; only your own ones and blocks can be removed."));
  bool isGone = true;
  session_.edit(tr("remove from the shelf"), [&](Show& show) {
    if (thing.own) remove(show.ownEffects, thing.own);
    if (thing.block) isGone = deleteBlock(show, thing.block);
  });
  if (!isGone) emit told(tr("The block still stands on staves. Delete or dissolve it there first."));
}

bool EffectShelf::event(QEvent* event) {
  // Here these keys are for the shelf, not for what is selected elsewhere.
  if (event->type() == QEvent::ShortcutOverride)
    if (const int key = static_cast<QKeyEvent*>(event)->key(); key == Qt::Key_Delete || key == Qt::Key_F2) {
      event->accept();
      return true;
    }
  return QListWidget::event(event);
}

void EffectShelf::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Delete && state() != EditingState) return removeChosen();
  QListWidget::keyPressEvent(event);
}

QString EffectShelf::chosen() const {
  return currentItem() ? currentItem()->data(Qt::UserRole).toString() : QString();
}

void EffectShelf::setZone(ZoneId zone) {
  zone_ = zone;
  if (isVisible()) drawPreviews();
}
void EffectShelf::setPalette(PaletteId palette) {
  palette_ = palette;
  if (isVisible()) drawPreviews();
}

void EffectShelf::drawPreviews() {
  const auto& palettes = session_.show().palettes;
  const auto table = tableOf(session_.show(), chispa::find(session_.show().palettes, palette_) ? palette_
                                              : palettes.empty()                               ? PaletteId{}
                                                                 : palettes.front()->id);
  // A plain grid, and music made of a slow swell, so that each preview moves wherever the playhead is.
  static const MediaLibrary media = exampleMedia();
  static const CompiledScore score = [] {
    CompiledScore plain;
    plain.grid = MusicGrid({Micros(0), Micros(500'000)}, {Micros(0), Micros(1'500'000)});
    plain.features = std::make_shared<const MusicFeatures>(swellingMusic());
    plain.staves.push_back(echoedStave());
    return plain;
  }();
  for (int i = 0; i < count(); ++i) {
    const QRect box = visualItemRect(item(i));
    if (!item(i)->icon().isNull() && !viewport()->rect().intersects(box)) continue;
    if (item(i)->isHidden() || isPersistentEditorOpen(item(i)) || state() == EditingState) continue;
    Clip clip = previewClip(item(i)->data(Qt::UserRole).toString());
    const Effect* effect = findEffect(clip.effect);
    const Block* block = chispa::find(session_.show().blocks, clip.block);
    if (!effect && !block) continue;
    const Micros shown = block ? block->length : micros(kShown_s);
    const auto cells = previewCells(session_, zone_, effect && effect->wantsRows);
    clip.length = block || effect->isWhole ? shown : micros(2 * kPreviewLoop_s);
    const TimeSpan span{block || effect->isWhole ? Micros(0) : micros(std::fmod(moved_s_, kPreviewLoop_s)),
                        shown};
    std::vector<CompiledClip> compiled;
    for (const Clip& one : unfolded(session_.show(), clip))
      compiled.push_back(compileClip(one, block ? tableOf(session_.show(), one.palette) : table,
                                     pictureOf(clip) == kExample ? media : session_.stage.media()));
    const QSize dots = kPreview * devicePixelRatioF();
    const ClipPicture picture = drawClips(score, compiled, *cells, span, dots.width(), dots.height());
    QImage image = QImage(picture.rgba.data(), picture.width, picture.height, QImage::Format_RGBX8888).copy();
    image.setDevicePixelRatio(devicePixelRatioF());
    item(i)->setIcon(QIcon(QPixmap::fromImage(image)));
  }
}

void EffectShelf::startDrag(Qt::DropActions) {
  auto* dragged = new QMimeData;
  dragged->setData(QLatin1String(kEffectMime), chosen().toUtf8());
  auto* drag = new QDrag(this);
  drag->setMimeData(dragged);
  if (currentItem()) drag->setPixmap(currentItem()->icon().pixmap(kPreview));
  drag->exec(Qt::CopyAction);
}

}  // namespace chispa::desk
