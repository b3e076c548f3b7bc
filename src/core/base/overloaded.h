// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// One function object of several lambdas, for std::visit.
template <class... F>
struct Overloaded : F... {
  using F::operator()...;
};

}  // namespace chispa
