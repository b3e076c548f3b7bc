// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/settings.h"

#include <set>

#include "effecttrial.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

class Shelf : public testing::TestWithParam<std::string> {
 protected:
  const Effect& effect() const { return *findEffect(GetParam()); }
};

TEST_P(Shelf, SaysWhatItIsGoodForAndHasThreeSettingsOrFour) {
  EXPECT_FALSE(effect().use.empty());
  EXPECT_EQ(effect().use.back(), '.');
  EXPECT_GE(effect().settings.size(), 3u);
  EXPECT_LE(effect().settings.size(), 4u);
  std::set<std::string> names;
  std::vector<ParamValues> values;
  for (const EffectSetting& setting : effect().settings) {
    EXPECT_TRUE(names.insert(setting.name).second) << setting.name;
    const ParamValues own = withSetting(effect(), setting, {});
    EXPECT_EQ(std::count(values.begin(), values.end(), own), 0) << setting.name << " is another's double";
    values.push_back(own);
  }
}

/// Each value of a setting is one that its parameter can have.
TEST_P(Shelf, SettingsFitTheirParameters) {
  for (const EffectSetting& setting : effect().settings)
    for (const auto& [key, value] : setting.values) {
      const auto index = paramIndex(effect(), key);
      ASSERT_TRUE(index) << setting.name << ": " << key;
      const ParamSpec& spec = effect().params[*index];
      EXPECT_EQ(value.index(), spec.fallback.index()) << setting.name << ": " << key;
      if (const auto* number = std::get_if<double>(&value)) {
        EXPECT_TRUE(*number >= spec.low && *number <= spec.high) << setting.name << ": " << key;
      }
      if (spec.kind == ParamKind::Choice) {
        EXPECT_TRUE(std::any_of(spec.choices.begin(), spec.choices.end(),
                                [&](const ParamChoice& choice) { return ParamValue(choice.key) == value; }))
            << setting.name << ": " << key;
      }
    }
}

TEST_P(Shelf, ASettingIsKnownAgain) {
  for (std::size_t i = 0; i < effect().settings.size(); ++i)
    EXPECT_EQ(settingOf(effect(), withSetting(effect(), effect().settings[i], {})), i);
}

std::vector<std::string> keys() {
  std::vector<std::string> all;
  for (const Effect& effect : effects()) all.push_back(effect.key);
  return all;
}

INSTANTIATE_TEST_SUITE_P(Effects, Shelf, testing::ValuesIn(keys()), [](const auto& one) {
  std::string name = one.param;
  std::erase(name, '-');
  return name;
});

/// What is shown, and along what, is the clip's own; the rest begins anew.
TEST(Settings, LeaveTheAxisAndWordsAsTheyAre) {
  const Effect& comets = *findEffect("comets");
  const ParamValues made =
      withSetting(comets, comets.settings[0], {{"across", std::string("height")}, {"offset", 0.5}});
  EXPECT_EQ(made.at("across"), ParamValue(std::string("height")));
  EXPECT_FALSE(made.contains("offset"));
  const Effect& lettering = *findEffect("lettering");
  EXPECT_EQ(withSetting(lettering, lettering.settings[0], {{"text", std::string("Fair")}}).at("text"),
            ParamValue(std::string("Fair")));
}

}  // namespace
}  // namespace chispa
