// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// One function object of several lambdas, for std::visit.
template <class... F>
struct Overloaded : F... {
  using F::operator()...;
};
/// Clang before 17 does not deduce this by itself.
template <class... F>
Overloaded(F...) -> Overloaded<F...>;

}  // namespace chispa
