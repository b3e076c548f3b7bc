// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>
#include <string_view>
#include <utility>

#include "core/show/show.h"

namespace chispa {

/// The words of enumerations in files; a table an enumeration, so that reading and writing agree.
template <class E>
struct EnumNames;

template <>
struct EnumNames<Corner> {
  static constexpr std::array<std::pair<Corner, std::string_view>, 4> table{
      {{Corner::BottomLeft, "bottom-left"},
       {Corner::BottomRight, "bottom-right"},
       {Corner::TopLeft, "top-left"},
       {Corner::TopRight, "top-right"}}};
};
template <>
struct EnumNames<GridRuns> {
  static constexpr std::array<std::pair<GridRuns, std::string_view>, 2> table{
      {{GridRuns::AlongRows, "rows"}, {GridRuns::AlongColumns, "columns"}}};
};
template <>
struct EnumNames<Evenness> {
  static constexpr std::array<std::pair<Evenness, std::string_view>, 2> table{
      {{Evenness::ToTheEye, "to_the_eye"}, {Evenness::InLight, "in_light"}}};
};

template <>
struct EnumNames<PalettePath> {
  static constexpr std::array<std::pair<PalettePath, std::string_view>, 3> table{
      {{PalettePath::Straight, "straight"},
       {PalettePath::ShorterHue, "shorter_hue"},
       {PalettePath::LongerHue, "longer_hue"}}};
};

template <>
struct EnumNames<StripBuild> {
  static constexpr std::array<std::pair<StripBuild, std::string_view>, 3> table{
      {{StripBuild::Reel, "reel"}, {StripBuild::String, "string"}, {StripBuild::Panel, "panel"}}};
};
template <>
struct EnumNames<StringWay> {
  static constexpr std::array<std::pair<StringWay, std::string_view>, 3> table{
      {{StringWay::Forth, "forth"}, {StringWay::Back, "back"}, {StringWay::Serpentine, "serpentine"}}};
};
template <>
struct EnumNames<ZoneLayout> {
  static constexpr std::array<std::pair<ZoneLayout, std::string_view>, 4> table{
      {{ZoneLayout::Strand, "strand"},
       {ZoneLayout::Strings, "strings"},
       {ZoneLayout::SideBySide, "side-by-side"},
       {ZoneLayout::Panels, "panels"}}};
};
template <>
struct EnumNames<ZoneOrder> {
  static constexpr std::array<std::pair<ZoneOrder, std::string_view>, 6> table{
      {{ZoneOrder::Listed, "listed"},
       {ZoneOrder::LeftToRight, "left-to-right"},
       {ZoneOrder::FrontToBack, "front-to-back"},
       {ZoneOrder::Upward, "upward"},
       {ZoneOrder::Around, "around"},
       {ZoneOrder::Outward, "outward"}}};
};
template <>
struct EnumNames<UnderlayFace> {
  static constexpr std::array<std::pair<UnderlayFace, std::string_view>, 3> table{
      {{UnderlayFace::Floor, "floor"}, {UnderlayFace::Front, "front"}, {UnderlayFace::Side, "side"}}};
};
template <>
struct EnumNames<Protocol> {
  static constexpr auto table = [] {
    std::array<std::pair<Protocol, std::string_view>, kProtocols.size()> names{};
    for (std::size_t i = 0; i < names.size(); ++i) names[i] = {kProtocols[i].protocol, kProtocols[i].key};
    return names;
  }();
};
template <>
struct EnumNames<Delivery> {
  static constexpr std::array<std::pair<Delivery, std::string_view>, 3> table{
      {{Delivery::Unicast, "unicast"},
       {Delivery::Multicast, "multicast"},
       {Delivery::Broadcast, "broadcast"}}};
};
template <>
struct EnumNames<PortStart> {
  static constexpr std::array<std::pair<PortStart, std::string_view>, 2> table{
      {{PortStart::NewUniverse, "new-universe"}, {PortStart::Continue, "continue"}}};
};
template <>
struct EnumNames<Blend> {
  static constexpr std::array<std::pair<Blend, std::string_view>, 7> table{{{Blend::Normal, "normal"},
                                                                            {Blend::Add, "add"},
                                                                            {Blend::Lighten, "lighten"},
                                                                            {Blend::Multiply, "multiply"},
                                                                            {Blend::Screen, "screen"},
                                                                            {Blend::Mask, "mask"},
                                                                            {Blend::CutOut, "cut-out"}}};
};
template <>
struct EnumNames<FadeShape> {
  static constexpr std::array<std::pair<FadeShape, std::string_view>, 4> table{{{FadeShape::Even, "even"},
                                                                                {FadeShape::Soft, "soft"},
                                                                                {FadeShape::Late, "late"},
                                                                                {FadeShape::Early, "early"}}};
};
template <>
struct EnumNames<PadMode> {
  static constexpr std::array<std::pair<PadMode, std::string_view>, 4> table{
      {{PadMode::Hold, "hold"},
       {PadMode::Toggle, "toggle"},
       {PadMode::Flash, "flash"},
       {PadMode::OnlyThis, "only-this"}}};
};
template <>
struct EnumNames<LookEnd> {
  static constexpr std::array<std::pair<LookEnd, std::string_view>, 3> table{
      {{LookEnd::Stay, "stay"}, {LookEnd::GoOn, "go-on"}, {LookEnd::Back, "back"}}};
};
template <>
struct EnumNames<SourceKind> {
  static constexpr std::array<std::pair<SourceKind, std::string_view>, 10> table{
      {{SourceKind::Note, "note"},
       {SourceKind::Control, "control"},
       {SourceKind::PitchBend, "pitch-bend"},
       {SourceKind::Program, "program"},
       {SourceKind::Pressure, "pressure"},
       {SourceKind::Osc, "osc"},
       {SourceKind::Key, "key"},
       {SourceKind::Desk, "desk"},
       {SourceKind::Fixed, "fixed"},
       {SourceKind::TimeCode, "time-code"}}};
};
template <>
struct EnumNames<TargetKind> {
  static constexpr std::array<std::pair<TargetKind, std::string_view>, 17> table{
      {{TargetKind::Look, "look"},
       {TargetKind::LookLevel, "look-level"},
       {TargetKind::ZoneLevel, "zone-level"},
       {TargetKind::Parameter, "parameter"},
       {TargetKind::Speed, "speed"},
       {TargetKind::Master, "master"},
       {TargetKind::Blackout, "blackout"},
       {TargetKind::Light, "light"},
       {TargetKind::Play, "play"},
       {TargetKind::Stop, "stop"},
       {TargetKind::GoTo, "go-to"},
       {TargetKind::Tempo, "tempo"},
       {TargetKind::Reset, "reset"},
       {TargetKind::Channels, "channels"},
       {TargetKind::SetListOn, "set-list-on"},
       {TargetKind::SetListBack, "set-list-back"},
       {TargetKind::Follow, "follow"}}};
};
template <>
struct EnumNames<BindingResponse> {
  static constexpr std::array<std::pair<BindingResponse, std::string_view>, 4> table{
      {{BindingResponse::Even, "even"},
       {BindingResponse::Steps, "steps"},
       {BindingResponse::Eased, "eased"},
       {BindingResponse::Drawn, "drawn"}}};
};
template <>
struct EnumNames<DeskUse> {
  static constexpr std::array<std::pair<DeskUse, std::string_view>, 4> table{
      {{DeskUse::Replaces, "replaces"},
       {DeskUse::Multiplies, "multiplies"},
       {DeskUse::Adds, "adds"},
       {DeskUse::Higher, "higher"}}};
};
template <>
struct EnumNames<DeskLoss> {
  static constexpr std::array<std::pair<DeskLoss, std::string_view>, 3> table{
      {{DeskLoss::Hold, "hold"}, {DeskLoss::FadeToShow, "fade-to-show"}, {DeskLoss::Dark, "dark"}}};
};
template <>
struct EnumNames<PieceKind> {
  static constexpr std::array<std::pair<PieceKind, std::string_view>, 4> table{
      {{PieceKind::Score, "score"},
       {PieceKind::Look, "look"},
       {PieceKind::Silence, "silence"},
       {PieceKind::SetList, "set-list"}}};
};
template <>
struct EnumNames<AfterPiece> {
  static constexpr std::array<std::pair<AfterPiece, std::string_view>, 4> table{
      {{AfterPiece::Next, "next"},
       {AfterPiece::Random, "random"},
       {AfterPiece::Stay, "stay"},
       {AfterPiece::Stop, "stop"}}};
};
template <>
struct EnumNames<AfterScene> {
  static constexpr std::array<std::pair<AfterScene, std::string_view>, 3> table{
      {{AfterScene::Stay, "stay"}, {AfterScene::Dark, "dark"}, {AfterScene::Next, "next"}}};
};
template <>
struct EnumNames<NightTimeKind> {
  static constexpr std::array<std::pair<NightTimeKind, std::string_view>, 5> table{
      {{NightTimeKind::Clock, "clock"},
       {NightTimeKind::Sunset, "sunset"},
       {NightTimeKind::Dusk, "dusk"},
       {NightTimeKind::Dawn, "dawn"},
       {NightTimeKind::Sunrise, "sunrise"}}};
};
template <>
struct EnumNames<Driver> {
  static constexpr std::array<std::pair<Driver, std::string_view>, 7> table{
      {{Driver::Curve, "curve"},
       {Driver::Level, "level"},
       {Driver::Band, "band"},
       {Driver::Onset, "onset"},
       {Driver::BeatPhase, "beat-phase"},
       {Driver::BarPhase, "bar-phase"},
       {Driver::Parameter, "parameter"}}};
};
template <>
struct EnumNames<LaneKind> {
  static constexpr std::array<std::pair<LaneKind, std::string_view>, 11> table{
      {{LaneKind::Beats, "beats"},
       {LaneKind::Bars, "bars"},
       {LaneKind::Sections, "sections"},
       {LaneKind::Words, "words"},
       {LaneKind::Free, "free"},
       {LaneKind::Phonemes, "phonemes"},
       {LaneKind::LowOnsets, "low-onsets"},
       {LaneKind::MiddleOnsets, "middle-onsets"},
       {LaneKind::HighOnsets, "high-onsets"},
       {LaneKind::Notes, "notes"},
       {LaneKind::Chords, "chords"}}};
};

template <class E>
std::string_view nameOf(E value) {
  for (const auto& [known, name] : EnumNames<E>::table)
    if (known == value) return name;
  return {};
}

template <class E>
std::optional<E> namedValue(std::string_view name) {
  for (const auto& [known, word] : EnumNames<E>::table)
    if (word == name) return known;
  return std::nullopt;
}

}  // namespace chispa
