// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/nightstrip.h"

#include <QDateTimeEdit>
#include <QDialog>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "core/edit/setlistedits.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/run/almanacview.h"

namespace chispa::desk {

NightStrip::NightStrip(const Session& session, NightDesk& night, QWidget* parent)
    : QWidget(parent), session_(session), night_(night) {
  setObjectName(QStringLiteral("nightStrip"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 4, 8, 4);
  column->setSpacing(4);
  column->addWidget(makeHead());
  auto* row = new QHBoxLayout;
  row->setSpacing(8);
  view_ = new AlmanacView(session_, night_);
  view_->setToolTip(
      tr("A column a day, hours downward from noon to noon. Drag to draw a rule, click to choose one."));
  row->addWidget(view_, 1);
  auto* side = new QVBoxLayout;
  side->setSpacing(2);
  title_ = new QLabel;
  title_->setObjectName(QStringLiteral("quiet"));
  auto* heading = new QHBoxLayout;
  heading->addWidget(title_, 1);
  auto* ask = named(new QPushButton(tr("Ask…")), "askAlmanac", tr("Ask the almanac"),
                    tr("What would play on a day at a time, and why"));
  connect(ask, &QPushButton::clicked, this, &NightStrip::ask);
  ask->setFlat(true);
  heading->addWidget(ask);
  side->addLayout(heading);
  list_ = named(new QListWidget, "nightList", tr("The next nights"),
                tr("What plays when; click a night to ask about it"));
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setTextElideMode(Qt::ElideRight);
  list_->setFont(numberFont(0.9));
  list_->setFixedWidth(228);
  connect(list_, &QListWidget::itemActivated, this, [this](const QListWidgetItem* item) {
    if (const auto at = item->data(Qt::UserRole).toLongLong(); at != 0)
      askAbout(Instant(std::chrono::seconds(at)));
  });
  // The last line of an answer leads back.
  connect(list_, &QListWidget::itemClicked, this, [this](const QListWidgetItem* item) {
    if (!asked_ || list_->row(item) != list_->count() - 1) return;
    asked_.reset();
    QMetaObject::invokeMethod(this, &NightStrip::fillNights, Qt::QueuedConnection);
  });
  side->addWidget(list_, 1);
  row->addLayout(side);
  column->addLayout(row, 1);
  connect(view_, &AlmanacView::asked, this, &NightStrip::askAbout);
  connect(view_, &AlmanacView::yearChanged, this, &NightStrip::follow);
  connect(&night_, &NightDesk::changed, this, &NightStrip::follow);
  connect(&night_, &NightDesk::almanacChanged, this, &NightStrip::fillNights);
  connect(&session_.document, &Document::opened, this, [this] {
    asked_.reset();
    fillNights();
  });
  follow();
  fillNights();
}

QWidget* NightStrip::makeHead() {
  auto* head = new QWidget;
  auto* line = new QHBoxLayout(head);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  watch_ = named(new QPushButton(tr("Watch")), "watchAlmanac", tr("Watch the almanac"),
                 tr("Light goes on and off by the rules, night after night, as long as this window is open"));
  watch_->setCheckable(true);
  connect(watch_, &QPushButton::clicked, this, &NightStrip::setWatching);
  tonight_ = new QLabel;
  tonight_->setObjectName(QStringLiteral("tonight"));
  tonight_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  hold_ = named(new QPushButton(tr("Hold off")), "holdTonight", tr("Hold the light off tonight"),
                tr("No light tonight; the next night plays again"));
  hold_->setCheckable(true);
  connect(hold_, &QPushButton::clicked, &night_, &NightDesk::hold);
  longer_ = named(new QPushButton(tr("+30 min")), "playLonger", tr("Play half an hour longer tonight"),
                  tr("What plays now goes on half an hour longer, tonight only"));
  constexpr int kLonger_min = 30;
  connect(longer_, &QPushButton::clicked, this, [this] { night_.playLonger(kLonger_min); });
  auto* add = named(new QPushButton(tr("+")), "addRule", tr("Add a rule"),
                    tr("A rule for every evening, to be changed in the inspector"));
  connect(add, &QPushButton::clicked, this, &NightStrip::addRule);
  auto* place = named(new QPushButton(tr("Place")), "almanacSettings", tr("Place of the installation"),
                      tr("Where it stands, its time zone, and what is lit between the rules"));
  connect(place, &QPushButton::clicked, this, [this] { session_.selection.select(AlmanacChoice{}); });
  const auto turn = [this](const char* name, const QString& sign, const QString& words, int by) {
    auto* button = named(new QPushButton(sign), name, words, words);
    button->setFixedWidth(26);
    connect(button, &QPushButton::clicked, this, [this, by] { view_->setYear(view_->year() + by); });
    return button;
  };
  year_ = named(new QPushButton, "almanacYear", tr("Year"), tr("Back to this year"));
  year_->setFlat(true);
  connect(year_, &QPushButton::clicked, this,
          [this] { view_->setYear(calendarDay(std::chrono::floor<std::chrono::days>(night_.now())).year); });
  line->addWidget(watch_);
  line->addWidget(tonight_, 1);
  for (QPushButton* button : {hold_, longer_, add, place}) line->addWidget(button);
  line->addWidget(turn("yearBefore", QStringLiteral("‹"), tr("The year before"), -1));
  line->addWidget(year_);
  line->addWidget(turn("yearAfter", QStringLiteral("›"), tr("The year after"), 1));
  return head;
}

void NightStrip::setWatching(bool on) {
  if (const QString trouble = night_.setWatching(on); !trouble.isEmpty()) emit failed(trouble);
  follow();
}

void NightStrip::follow() {
  const QSignalBlocker quiet(watch_), still(hold_);
  watch_->setChecked(night_.isWatching());
  watch_->setText(night_.isWatching() ? tr("Watching") : tr("Watch"));
  hold_->setChecked(night_.watch().isHeld());
  hold_->setVisible(night_.isWatching());
  longer_->setVisible(night_.isWatching());
  longer_->setEnabled(night_.watch().slot().has_value());
  year_->setText(QString::number(view_->year()));
  const QStringList troubles = night_.isWatching() ? night_.troubles() : QStringList();
  QString words = tr("Tonight: %1").arg(night_.tonight());
  if (!troubles.isEmpty()) words = tr("! %1").arg(troubles.front()) + QStringLiteral("  ·  ") + words;
  tonight_->setText(fontMetrics().elidedText(words, Qt::ElideRight, std::max(60, tonight_->width())));
  tonight_->setToolTip(
      (QStringList{tr("Tonight: %1").arg(night_.tonight())} << troubles).join(QLatin1Char('\n')));
  tonight_->setProperty("wrong", !troubles.isEmpty());
  const NightPlan* plan = night_.watch().plan();
  if (plan && plan->nightOf(std::chrono::floor<std::chrono::seconds>(night_.now())) != filledFor_)
    fillNights();
}

void NightStrip::fillNights() {
  const QSignalBlocker quiet(list_);
  list_->clear();
  list_->setWordWrap(asked_.has_value());
  const NightPlan* plan = night_.watch().plan();
  if (!plan) return;
  const auto whatAt = [&](RuleId id) {
    const Rule* rule = plan->rule(id);
    return rule ? text(whatOf(session_.show(), *rule)) : QString();
  };
  const auto clock = [&](Instant at) { return text(clockText(at, plan->zone())); };
  filledFor_ = plan->nightOf(std::chrono::floor<std::chrono::seconds>(night_.now()));
  if (asked_) {
    const LocalTime local = plan->zone().localOf(*asked_);
    title_->setText(tr("%1, %2").arg(dayText(local.date), clock(*asked_)));
    const Moment moment = plan->at(*asked_);
    const auto add = [this](const QString& words) {
      auto* item = new QListWidgetItem(words);
      item->setToolTip(words);
      list_->addItem(item);
    };
    add(moment.slot ? tr("%1 plays.").arg(whatAt(moment.slot->rule)) : tr("It is dark."));
    for (const Verdict& verdict : moment.verdicts)
      if (const Rule* rule = plan->rule(verdict.rule))
        add(tr("%1: %2.").arg(text(rule->name), text(verdict.why)));
    add(tr("← the next seven nights"));
    return;
  }
  title_->setText(tr("The next seven nights"));
  constexpr int kNights = 7;
  for (const Night& night : plan->nights(filledFor_, kNights)) {
    QStringList parts;
    for (const Slot& slot : night.nightSlots)
      parts << tr("%1–%2 %3").arg(clock(slot.start), clock(slot.end), whatAt(slot.rule));
    // "Sat 28": the whole of it stands in the words for the pointer.
    const QStringList day = dayText(night.date).split(QLatin1Char(' '));
    const QString words = parts.isEmpty() ? tr("dark") : parts.join(QStringLiteral(", "));
    auto* item = new QListWidgetItem(tr("%1 %2  %3").arg(day[0].left(3), day[1], words));
    item->setSizeHint({10, QFontMetrics(list_->font()).height() + 1});
    item->setToolTip(tr("%1: %2").arg(day.join(QLatin1Char(' ')), words));
    const Instant at = night.nightSlots.empty() ? plan->zone().instantOf(night.date, std::chrono::hours(20))
                                                : night.nightSlots.front().start;
    item->setData(Qt::UserRole, static_cast<qlonglong>(at.time_since_epoch().count()));
    list_->addItem(item);
  }
}

void NightStrip::askAbout(Instant at) {
  asked_ = at;
  fillNights();
}

void NightStrip::addRule() {
  RuleId made;
  session_.edit(tr("new rule"), [&](Show& show) { made = chispa::addRule(show, tr("Rule").toStdString()); });
  session_.selection.select(made);
}

void NightStrip::ask() {
  const NightPlan* plan = night_.watch().plan();
  if (!plan) return;
  QDialog dialog(this);
  dialog.setObjectName(QStringLiteral("askDialog"));
  dialog.setWindowTitle(tr("Ask the almanac"));
  auto* column = new QVBoxLayout(&dialog);
  column->addWidget(new QLabel(tr("What would play then, and why?")));
  const LocalTime local = plan->zone().localOf(std::chrono::floor<std::chrono::seconds>(night_.now()));
  const CalendarDay today = calendarDay(local.date);
  constexpr int kEvening = 21;
  auto* when = named(
      new QDateTimeEdit(QDateTime(QDate(today.year, today.month, today.day), QTime(kEvening, 0), Qt::UTC)),
      "askWhen", tr("When"), tr("Day and time, as clocks at the installation show them"));
  when->setTimeSpec(Qt::UTC);
  when->setDisplayFormat(QStringLiteral("yyyy-MM-dd HH:mm"));
  when->setCalendarPopup(true);
  column->addWidget(when);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
  column->addWidget(buttons);
  if (dialog.exec() != QDialog::Accepted) return;
  const QDateTime chosen = when->dateTime();
  if (const auto at =
          parseLocal(chosen.toString(QStringLiteral("yyyy-MM-ddTHH:mm")).toStdString(), plan->zone()))
    askAbout(*at);
}

}  // namespace chispa::desk
