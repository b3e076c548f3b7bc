// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Prints the budgets of the architecture with what this machine reaches now, each as a ratio to a floor
/// measured in the same run where there is one.
void printBudgets();

}  // namespace chispa::bench
