// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <compare>
#include <cstdint>
#include <functional>

namespace chispa {

/// The identity of one thing of kind `Tag` within a show. 0 is "none". Names and pointers identify nothing.
template <class Tag>
struct Id {
  std::uint32_t value = 0;

  auto operator<=>(const Id&) const = default;
  explicit operator bool() const { return value != 0; }
};

using StripTypeId = Id<struct StripTypeTag>;
using FixtureId = Id<struct FixtureTag>;
using ZoneId = Id<struct ZoneTag>;
using ControllerId = Id<struct ControllerTag>;
using PaletteId = Id<struct PaletteTag>;
using ScoreId = Id<struct ScoreTag>;
using ClipId = Id<struct ClipTag>;
using LaneId = Id<struct LaneTag>;
using MarkId = Id<struct MarkTag>;
using BlockId = Id<struct BlockTag>;
using OwnEffectId = Id<struct OwnEffectTag>;
using UnderlayId = Id<struct UnderlayTag>;
using SupplyId = Id<struct SupplyTag>;
using LookId = Id<struct LookTag>;
using BindingId = Id<struct BindingTag>;
using DeskInputId = Id<struct DeskInputTag>;
using SetListId = Id<struct SetListTag>;
using RuleId = Id<struct RuleTag>;

}  // namespace chispa

template <class Tag>
struct std::hash<chispa::Id<Tag>> {
  std::size_t operator()(chispa::Id<Tag> id) const noexcept { return std::hash<std::uint32_t>{}(id.value); }
};
