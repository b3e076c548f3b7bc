// SPDX-License-Identifier: GPL-3.0-or-later
// Finders that are slid until it looks, or sounds, right: white, response, delay.
#include <array>
#include <cmath>

#include "core/colour/whitepoint.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/show/limits.h"
#include "core/show/stripwhite.h"
#include "desk/bench/finders/finderparts.h"

namespace chispa::desk {
namespace {

using namespace finderparts;

/// What sliders have in common: they are set, and Return says that it is right.
class SliderFinder : public Finder {
 public:
  explicit SliderFinder(Subject subject) : subject_(std::move(subject)) {}

  std::optional<FinderQuestion> question() const override {
    return isRight_ ? std::nullopt : std::optional(ask());
  }
  void answer(int seen) override {
    if (!press(seen)) isRight_ = true;
  }
  void takeBack() override { isRight_ = false; }
  std::size_t answers() const override { return isRight_ ? 1 : 0; }
  bool isTrial() const override { return true; }
  QString leftTitle() const override { return tr("Now:"); }

 protected:
  virtual FinderQuestion ask() const = 0;
  /// A key that sets sliders; false for "it is right".
  virtual bool press(int /*seen*/) { return false; }
  engine::TestSignal whole(engine::TestSignal::Kind kind, Rgb colour) const {
    engine::TestSignal signal = still(subject_, 0, subject_.bead.count, colour);
    signal.kind = kind;
    return signal;
  }

  StripTypeId stripId(const Show& show) const {
    const Fixture* fixture = chispa::find(show.fixtures, subject_.bead.fixture);
    return fixture ? fixture->stripType : StripTypeId{};
  }

  Subject subject_;

 private:
  bool isRight_ = false;
};

class White final : public SliderFinder {
 public:
  White(const Show& show, const Subject& subject)
      : SliderFinder(subject), before_(stripTypeOf(show, *subject.fixture)), strip_(before_) {}

  QString title() const override { return finderTitle(FinderKind::White); }
  QString left() const override {
    return nameOf(strip_.white) +
           tr(" · leaves %1 % of full white's light").arg(100 * lightLeft(strip_), 0, 'f', 0);
  }
  QString difference(const Show&) const override {
    return changeText(nameOf(before_.white), nameOf(strip_.white));
  }
  void apply(Show& show) const override {
    changeItem(show.stripTypes, stripId(show), [this](StripType& s) { s.white = strip_.white; });
  }
  void slide(int slider, double value) override {
    const auto share = static_cast<float>(std::clamp(value / 100, 0.02, 1.0));
    Rgb& white = strip_.white;
    (slider == 0 ? white.r : slider == 1 ? white.g : white.b) = share;
  }

 protected:
  FinderQuestion ask() const override {
    FinderQuestion question{tr("Slide until the light on a sheet of paper is the white you want."),
                            tr("Up and Down choose a colour, Left and Right change it. Hold the paper some "
                               "centimetres off the strip. Return: it is right."),
                            whole(engine::TestSignal::Kind::Solid, {0.5f, 0.5f, 0.5f})};
    for (std::size_t i = 0; i < std::size(kPresets); ++i)
      question.answers.push_back({static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(i)),
                                  QString::number(i + 1), tr("%1 K").arg(kPresets[i]),
                                  presetColour(kPresets[i]), static_cast<int>(i) + 1});
    const auto slider = [](const QString& name, float share) {
      return FinderSlider{name, QStringLiteral("%"), 2, 100, 1, static_cast<double>(share) * 100, 0};
    };
    question.sliders = {slider(tr("Red"), strip_.white.r), slider(tr("Green"), strip_.white.g),
                        slider(tr("Blue"), strip_.white.b)};
    return question;
  }
  bool press(int seen) override {
    if (seen < 1 || seen > static_cast<int>(std::size(kPresets))) return false;
    strip_.white = whiteShares(strip_, kPresets[seen - 1]);
    return true;
  }

 private:
  static constexpr int kPresets[] = {2700, 3000, 3500, 4000, 5000, 6500};

  static QColor presetColour(int kelvin) {
    const Srgb8 shown = toSrgb8(whiteOfTemperature(kelvin));
    return {shown.r, shown.g, shown.b};
  }
  static QString nameOf(Rgb white) {
    const auto percent = [](float share) { return std::lround(static_cast<double>(share) * 100); };
    return tr("red %1 %, green %2 %, blue %3 %")
        .arg(percent(white.r))
        .arg(percent(white.g))
        .arg(percent(white.b));
  }

  StripType before_;
  StripType strip_;
};

/// The colours of the chips, by comparing what the strip makes of a colour with the screen. Each of the three
/// colours that are lit hangs on one chip most.
class Chips final : public SliderFinder {
 public:
  Chips(const Show& show, const Subject& subject)
      : SliderFinder(subject), before_(stripTypeOf(show, *subject.fixture)) {
    const ChipColours chips = before_.chips.value_or(usualChips());
    const auto of = [](Chromaticity at, double otherwise) {
      return dominantWavelength(at).value_or(otherwise);
    };
    nm_ = {of(chips.red, 622), of(chips.green, 524), of(chips.blue, 467)};
  }

  QString title() const override { return finderTitle(FinderKind::Chips); }
  QString left() const override { return nameOf(nm_); }
  QString difference(const Show&) const override {
    if (!before_.chips) return changeText(tr("colours of chips unknown"), nameOf(nm_));
    return before_.chips == found() ? QString() : changeText(tr("other chips"), nameOf(nm_));
  }
  void apply(Show& show) const override {
    changeItem(show.stripTypes, stripId(show), [this](StripType& s) { s.chips = found(); });
  }
  void slide(int slider, double value) override {
    const auto at = static_cast<std::size_t>(slider);
    nm_.at(at) = std::clamp(value, kRanges[at].low, kRanges[at].high);
  }

 protected:
  FinderQuestion ask() const override {
    const Shown& shown = kShown[lit_];
    const Rgb colour = toLinear(shown.colour);
    FinderQuestion question{
        tr("Slide until the light on a grey card has the colour of field %1 here.").arg(lit_ + 1),
        tr("Hold the card some centimetres off the strip, beside the screen. 1, 2, 3 light another colour; "
           "each hangs on one chip most. Return: all three are right."),
        whole(engine::TestSignal::Kind::Solid, {colour.r * 0.5f, colour.g * 0.5f, colour.b * 0.5f})};
    for (std::size_t i = 0; i < kShown.size(); ++i)
      question.answers.push_back(
          {static_cast<Qt::Key>(Qt::Key_1 + static_cast<int>(i)), QString::number(i + 1), tr(kShown[i].words),
           QColor(kShown[i].colour.r, kShown[i].colour.g, kShown[i].colour.b), static_cast<int>(i) + 1});
    for (std::size_t i = 0; i < kRanges.size(); ++i)
      question.sliders.push_back(
          {tr(kRanges[i].words), QStringLiteral("nm"), kRanges[i].low, kRanges[i].high, 1, nm_[i], 0});
    return question;
  }
  bool press(int seen) override {
    if (seen < 1 || seen > static_cast<int>(kShown.size())) return false;
    lit_ = static_cast<std::size_t>(seen) - 1;
    return true;
  }

 private:
  struct Shown {
    const char* words;
    Srgb8 colour;
  };
  static constexpr std::array<Shown, 3> kShown{
      {{QT_TRANSLATE_NOOP("chispa::desk", "orange: the red chip"), {255, 130, 20}},
       {QT_TRANSLATE_NOOP("chispa::desk", "lime: the green chip"), {150, 235, 60}},
       {QT_TRANSLATE_NOOP("chispa::desk", "sky blue: the blue chip"), {90, 160, 255}}}};
  struct Range {
    const char* words;
    double low;
    double high;
  };
  static constexpr std::array<Range, 3> kRanges{{{QT_TRANSLATE_NOOP("chispa::desk", "Red chip"), 605, 640},
                                                 {QT_TRANSLATE_NOOP("chispa::desk", "Green chip"), 510, 550},
                                                 {QT_TRANSLATE_NOOP("chispa::desk", "Blue chip"), 450, 485}}};

  ChipColours found() const {
    ChipColours chips = before_.chips.value_or(ChipColours{.white = usualChips().white});
    const auto led = [](double nm) { return *readChromaticity(std::to_string(nm) + " nm"); };
    chips.red = led(nm_[0]);
    chips.green = led(nm_[1]);
    chips.blue = led(nm_[2]);
    return chips;
  }
  static QString nameOf(const std::array<double, 3>& nm) {
    return tr("chips of %1, %2 and %3 nm")
        .arg(std::lround(nm[0]))
        .arg(std::lround(nm[1]))
        .arg(std::lround(nm[2]));
  }

  StripType before_;
  std::array<double, 3> nm_{};
  std::size_t lit_ = 0;
};

class Response final : public SliderFinder {
 public:
  explicit Response(const Subject& subject)
      : SliderFinder(subject), before_(subject.wire.response.exponent), response_(before_) {}

  QString title() const override { return finderTitle(FinderKind::Response); }
  QString left() const override { return tr("response %1").arg(response_, 0, 'f', 2); }
  QString difference(const Show&) const override {
    return std::abs(before_ - response_) < 0.005
               ? QString()
               : changeText(tr("response %1").arg(before_, 0, 'f', 2), left());
  }
  void apply(Show& show) const override {
    changePortSettings(show, subject_.target.controller, subject_.target.port,
                       [this](WireSettings& s) { s.response = chispa::Response{response_}; });
    changeBeadSettings(show, subject_.place(), [](WireSettings& s) { s.response.reset(); });
  }
  void slide(int, double value) override { response_ = std::clamp(value, 0.2, 5.0); }

 protected:
  FinderQuestion ask() const override {
    FinderQuestion question{
        tr("Eight stretches of the strip step from dim to bright. Slide until the steps look even."),
        tr("Too large: the dim ones are all alike and too bright. Too small: the dim ones are dark. Return: "
           "it is right."),
        whole(engine::TestSignal::Kind::Steps, {0.8f, 0.8f, 0.8f})};
    question.sliders = {{tr("Response"), {}, 0.2, 5, 0.05, response_, 2}};
    return question;
  }

 private:
  double before_;
  double response_;
};

/// Flash and click together: the difference between what is seen and heard is taken up by the controller's
/// delay, or by a lead where its light is late.
class Delay final : public SliderFinder {
 public:
  Delay(const Show& show, const Subject& subject)
      : SliderFinder(subject),
        before_(chispa::find(show.controllers, subject.target.controller)->delay_ms),
        delay_(before_) {}

  QString title() const override { return finderTitle(FinderKind::Delay); }
  QString left() const override {
    QString words = tr("delay %1 ms").arg(delay_, 0, 'f', 0);
    if (!seenAt_.empty() || !heardAt_.empty())
      words +=
          tr(" · tapped: %1 flashes, %2 clicks of %3").arg(seenAt_.size()).arg(heardAt_.size()).arg(kTaps);
    return words;
  }
  QString difference(const Show&) const override {
    return changeText(tr("delay %1 ms").arg(before_, 0, 'f', 0), tr("delay %1 ms").arg(delay_, 0, 'f', 0));
  }
  void apply(Show& show) const override {
    changeItem(show.controllers, subject_.target.controller, [this](Controller& c) { c.delay_ms = delay_; });
  }
  void slide(int, double value) override {
    delay_ = std::clamp(value, -limits::kMaxDelay_ms, limits::kMaxDelay_ms);
  }

 protected:
  FinderQuestion ask() const override {
    engine::TestSignal signal = whole(engine::TestSignal::Kind::Flash, {0.6f, 0.6f, 0.6f});
    // A tenth of a second of light at each full second of the sound.
    signal.nth = 10;
    signal.seconds = 0.1;
    signal.first = 0;
    signal.followsSound = true;
    FinderQuestion question{
        tr("A flash and a click, once a second. Slide until they come together."),
        tr("Or tap: F at each flash, C at each click, %1 times. Return: it is right.").arg(kTaps),
        signal,
        {{Qt::Key_F, QStringLiteral("F"), tr("flash, now"), QColor(0xff, 0xf4, 0xe0), 1},
         {Qt::Key_C, QStringLiteral("C"), tr("click, now"), QColor(), 2}}};
    question.sliders = {
        {tr("Delay"), QStringLiteral("ms"), -limits::kMaxDelay_ms, limits::kMaxDelay_ms, 5, delay_, 0}};
    question.clicks = true;
    return question;
  }
  bool press(int seen) override {
    if (seen != 1 && seen != 2) return false;
    (seen == 1 ? seenAt_ : heardAt_).push_back(engine::SteadyClock().now());
    if (seenAt_.size() < kTaps || heardAt_.size() < kTaps) return true;
    slide(0, delay_ + phase_ms(heardAt_, seenAt_));
    seenAt_.clear();
    heardAt_.clear();
    return true;
  }

 private:
  static constexpr std::size_t kTaps = 4;

  /// How much later in the second `a` comes than `b`, −500 to 500: the angle between the means of both on a
  /// circle of a second.
  static double phase_ms(const std::vector<engine::MonoTime>& a, const std::vector<engine::MonoTime>& b) {
    constexpr double kTurn = 2 * 3.14159265358979;
    const auto angle = [](const std::vector<engine::MonoTime>& taps) {
      double x = 0, y = 0;
      for (const engine::MonoTime tap : taps) {
        const double at = std::chrono::duration<double>(tap).count() * kTurn;
        x += std::cos(at);
        y += std::sin(at);
      }
      return std::atan2(y, x);
    };
    return std::remainder(angle(a) - angle(b), kTurn) / kTurn * 1000;
  }

  double before_;
  double delay_;
  std::vector<engine::MonoTime> seenAt_;
  std::vector<engine::MonoTime> heardAt_;
};

}  // namespace

std::unique_ptr<Finder> makeWhiteFinder(const Show& show, const Subject& subject) {
  return std::make_unique<White>(show, subject);
}
std::unique_ptr<Finder> makeChipsFinder(const Show& show, const Subject& subject) {
  return std::make_unique<Chips>(show, subject);
}
std::unique_ptr<Finder> makeResponseFinder(const Subject& subject) {
  return std::make_unique<Response>(subject);
}
std::unique_ptr<Finder> makeDelayFinder(const Show& show, const Subject& subject) {
  return std::make_unique<Delay>(show, subject);
}

}  // namespace chispa::desk
