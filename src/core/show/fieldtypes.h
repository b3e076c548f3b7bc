// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <concepts>
#include <memory>
#include <type_traits>
#include <utility>

/// What the descriptions of a show's parts (showfields.h) are written with.
namespace chispa::fields {

template <class T, class Of>
concept Is = std::same_as<std::remove_const_t<T>, Of>;

/// What a list's element is, whether the list holds it or shares it.
template <class T>
const T& itemOf(const T& element) {
  return element;
}
template <class T>
const T& itemOf(const std::shared_ptr<const T>& element) {
  return *element;
}
template <class T>
using ItemOf = std::remove_cvref_t<decltype(itemOf(std::declval<const T&>()))>;

}  // namespace chispa::fields
