// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/installationbook.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPdfWriter>

#include "core/almanac/calendar.h"
#include "core/almanac/nights.h"
#include "core/controllermemory/content.h"
#include "core/live/scenelight.h"
#include "core/preview/camera.h"
#include "core/preview/glow.h"
#include "core/wire/power.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/paper.h"
#include "desk/parts/papertable.h"
#include "desk/plan/plansheet.h"
#include "desk/run/desksheetpdf.h"
#include "desk/run/nightwords.h"
#include "desk/takeaway/memoryforms.h"
#include "desk/wire/booklet.h"

namespace chispa::desk {
namespace {

// Tenths of millimetres, on A4 upright unless it is said otherwise.
constexpr int kLeft = 150;
constexpr int kWide = 1'800;
constexpr int kNights = 60;

struct Book {
  Q_DECLARE_TR_FUNCTIONS(InstallationBook)
};

/// A part of the book: what stands in the list of contents, and its pages.
struct Chapter {
  QString name;
  std::function<void()> paint;
};

class BookWriter {
 public:
  BookWriter(const Show& show, const QImage& cover, const PlanProjection& projection, QDate from,
             QPainter& painter, QPdfWriter& pdf)
      : show_(show), cover_(cover), projection_(projection), from_(from), painter_(painter), pdf_(pdf) {}

  void write() {
    const std::vector<Chapter> chapters = contents();
    paintCover(chapters);
    for (const Chapter& chapter : chapters) {
      newPage();
      chapter.paint();
    }
  }

 private:
  std::vector<Chapter> contents() {
    std::vector<Chapter> all;
    if (!show_.fixtures.empty())
      all.push_back({Book::tr("Plan, with the cut list"), [this] { paintPlan(); }});
    if (!show_.controllers.empty()) {
      all.push_back(
          {Book::tr("Wiring booklet"), [this] { paintBooklet(painter_, show_, [this] { newPage(); }); }});
      all.push_back({Book::tr("Address sheet"), [this] { paintAddresses(); }});
    }
    if (!show_.deskInputs.empty())
      all.push_back(
          {Book::tr("Desk sheet"), [this] { paintDeskSheet(painter_, show_, [this] { newPage(); }); }});
    if (!show_.rules.empty()) {
      all.push_back({Book::tr("Almanac: the rules"), [this] { paintRules(); }});
      all.push_back({Book::tr("Almanac: the next %1 nights").arg(kNights), [this] { paintNights(); }});
    }
    if (std::any_of(show_.controllers.begin(), show_.controllers.end(),
                    [](const auto& controller) { return !controller->memory.scenes.empty(); }))
      all.push_back({Book::tr("What the controllers keep themselves"), [this] { paintMemories(); }});
    return all;
  }

  void newPage() {
    pdf_.setPageSize(QPageSize(QPageSize::A4));
    pdf_.setPageOrientation(QPageLayout::Portrait);
    pdf_.newPage();
  }

  void paintCover(const std::vector<Chapter>& chapters) {
    painter_.setPen(kInk);
    painter_.setFont(paperFont(11, true));
    painter_.drawText(QRect(kLeft, 200, kWide, 180), Qt::AlignLeft | Qt::TextWordWrap, text(show_.name));
    painter_.setFont(paperFont(4));
    painter_.setPen(kFaint);
    painter_.drawText(
        QRect(kLeft, 390, kWide, 70), Qt::AlignLeft,
        Book::tr("the whole installation, as of %1").arg(QLocale().toString(from_, QLocale::LongFormat)));
    const QRect frame(kLeft, 500, kWide, 1'012);
    painter_.drawImage(frame, cover_);
    painter_.setPen(kInk);
    int y = 1'600;
    const auto line = [&](const QString& words, double mm, bool isBold = false) {
      painter_.setFont(paperFont(mm, isBold));
      painter_.drawText(QRect(kLeft, y, kWide, 70), Qt::AlignLeft, words);
      y += 72;
    };
    line(Book::tr("%1 · %2 · %3")
             .arg(counted(qsizetype(show_.fixtures.size()), Book::tr("one fixture"), Book::tr("%1 fixtures")),
                  counted(mapPixels(show_).count(), Book::tr("one pixel"), Book::tr("%1 pixels")),
                  counted(qsizetype(show_.controllers.size()), Book::tr("one controller"),
                          Book::tr("%1 controllers"))),
         4);
    if (!show_.almanac.zone.empty())
      line(Book::tr("%1° N, %2° E, %3")
               .arg(show_.almanac.latitude_deg, 0, 'f', 3)
               .arg(show_.almanac.longitude_deg, 0, 'f', 3)
               .arg(text(show_.almanac.zone)),
           4);
    y += 60;
    line(Book::tr("In this book"), 4, true);
    for (const Chapter& chapter : chapters) line(chapter.name, 4);
  }

  void paintPlan() {
    // The plan has a sheet of its own size: it is drawn smaller, across the page.
    constexpr QSizeF kSheet(4'200, 2'970);
    painter_.save();
    painter_.translate(2'100, 0);
    painter_.rotate(90);
    const double scale = 2'970 / kSheet.width();
    painter_.scale(scale, scale);
    paintPlanSheet(painter_, kSheet, show_, projection_);
    painter_.restore();
  }

  QString headed(const QString& words) const { return text(show_.name) + QStringLiteral(" · ") + words; }

  void paintAddresses() {
    PaperTable table(painter_, headed(Book::tr("address sheet")),
                     {Book::tr("Fixture"), Book::tr("Pixels"), Book::tr("Controller"), Book::tr("Port"),
                      Book::tr("From"), Book::tr("To")},
                     {0, 520, 800, 1'180, 1'320, 1'580}, [this] { newPage(); });
    for (const PatchSpan& span : derivePatch(show_).spans) {
      const Controller& controller = *show_.controllers[static_cast<std::size_t>(span.controller)];
      const Fixture* fixture = find(show_.fixtures, span.fixture);
      const int last = span.channel + std::max(1, span.channelCount()) - 1;
      table.addRow({fixture ? text(fixture->name) : QString(),
                    QStringLiteral("%1–%2")
                        .arg(span.firstPixel + 1)
                        .arg(span.firstPixel + 1 + span.step * (span.pixels - 1)),
                    text(controller.name), QString::number(span.port + 1),
                    text(addressText(controller.protocol, span.universe, span.channel)),
                    text(addressText(controller.protocol, span.universe, last))});
    }
  }

  void paintRules() {
    PaperTable table(
        painter_, headed(Book::tr("almanac: the rules, the first goes first")),
        {Book::tr("Rule"), Book::tr("Plays"), Book::tr("On"), Book::tr("From"), Book::tr("Until")},
        {0, 290, 590, 1'290, 1'560}, [this] { newPage(); });
    for (const auto& rule : show_.rules)
      table.addRow({text(rule->name), text(whatOf(show_, *rule)), daysText(rule->days),
                    nightTimeText(rule->from), nightTimeText(rule->until)});
  }

  void paintNights() {
    const auto plan = NightPlan::of(show_);
    PaperTable table(
        painter_, headed(Book::tr("the next nights")),
        {Book::tr("Night"), Book::tr("Sunset"), Book::tr("Dusk"), Book::tr("Dawn"), Book::tr("What plays")},
        {0, 330, 500, 670, 840}, [this] { newPage(); });
    if (!plan) return table.addRow({said(plan.failure().what)});
    const auto clock = [&](const std::optional<Instant>& at) {
      return at ? text(rfc3339(*at, plan->zone())).mid(11, 5) : QStringLiteral("–");
    };
    const Date first = std::chrono::year_month_day(std::chrono::year(from_.year()),
                                                   std::chrono::month(static_cast<unsigned>(from_.month())),
                                                   std::chrono::day(static_cast<unsigned>(from_.day())));
    for (const Night& night : plan->nights(first, kNights)) {
      QStringList words;
      for (const Slot& slot : night.nightSlots)
        words += Book::tr("%1–%2 %3")
                     .arg(clock(slot.start), clock(slot.end), text(whatOf(show_, *plan->rule(slot.rule))));
      table.addRow({text(dateText(night.date)), clock(night.sunset), clock(night.dusk), clock(night.dawn),
                    words.isEmpty() ? Book::tr("nothing") : words.join(QStringLiteral(", "))});
    }
  }

  void paintMemories() {
    PaperTable table(painter_, headed(Book::tr("what the controllers keep themselves")),
                     {Book::tr("Controller"), Book::tr("Scene"), Book::tr("Plays"), Book::tr("Begins"),
                      Book::tr("Written")},
                     {0, 360, 700, 980, 1'540}, [this] { newPage(); });
    for (const auto& controller : show_.controllers) {
      const ControllerMemory& memory = controller->memory;
      const auto starts = [](const std::vector<MemoryStart>& all) {
        QStringList words;
        for (const MemoryStart& start : all) words += startWords(start);
        return words.join(QStringLiteral("; "));
      };
      for (std::size_t i = 0; i < memory.scenes.size(); ++i) {
        const MemoryScene& scene = memory.scenes[i];
        QString begins = starts(scene.starts);
        if (memory.atPowerOn == static_cast<int>(i) + 1)
          begins += (begins.isEmpty() ? QString() : QStringLiteral("; ")) + Book::tr("when switched on");
        table.addRow({text(controller->name), memorySceneName(show_, memory, i),
                      scene.rounds == 0 ? Book::tr("for ever") : Book::tr("%1 times").arg(scene.rounds),
                      begins,
                      memory.written.empty() ? Book::tr("never") : text(memory.written.substr(0, 10))});
      }
      if (!memory.darkens.empty())
        table.addRow({text(controller->name), Book::tr("dark"), {}, starts(memory.darkens), {}});
    }
  }

  const Show& show_;
  const QImage& cover_;
  const PlanProjection& projection_;
  QDate from_;
  QPainter& painter_;
  QPdfWriter& pdf_;
};

}  // namespace

bool writeInstallationBook(const Show& show, const QImage& cover, const PlanProjection& projection,
                           QDate from, const QString& path) {
  return writePdf(path, text(show.name), QPageSize::A4, QPageLayout::Portrait,
                  [&](QPainter& painter, QPdfWriter& pdf) {
                    BookWriter(show, cover, projection, from, painter, pdf).write();
                  });
}

QImage coverPicture(const Show& show, QSize size) {
  const auto compiled = compile(show);
  PixelFrame best;
  best.resize(static_cast<std::size_t>(compiled->map->count()));
  std::optional<SceneId> scene;
  if (!show.scores.empty())
    scene = show.scores.front()->id;
  else if (!show.looks.empty())
    scene = show.looks.front()->id;
  if (scene) {
    SceneLight light(show, *compiled, *scene);
    const double length_s = light.look() ? 10 : seconds(light.length());
    double most = -1;
    constexpr int kTried = 40;
    PixelFrame frame;
    for (int i = 0; i < kTried; ++i) {
      light.render(micros(length_s * (i + 0.5) / kTried), frame);
      double sum = 0;
      for (std::size_t p = 0; p < frame.size(); ++p)
        sum += static_cast<double>(frame.r[p] + frame.g[p] + frame.b[p]);
      if (sum <= most) continue;
      most = sum;
      best = frame;
    }
  }
  QImage picture(size, QImage::Format_RGBA8888);
  GlowPainter().paint(*compiled->map, best,
                      framing(compiled->map->positions, static_cast<double>(size.width()) / size.height()),
                      size.width(), size.height(), picture.bits());
  return picture;
}

}  // namespace chispa::desk
