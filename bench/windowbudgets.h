// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::bench {

/// Prints how the window does with a large plan, as rows of the table of budgets. Needs a QApplication.
void printWindowBudgets();

}  // namespace chispa::bench
