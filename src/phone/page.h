// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string_view>

namespace chispa::phone {

// The files of the phone page, as they are served; made of src/phone/page/ when Chispa is built.
extern const std::string_view kPageHtml;
extern const std::string_view kPageCss;
extern const std::string_view kPageScript;
extern const std::string_view kPageIcon;

}  // namespace chispa::phone
