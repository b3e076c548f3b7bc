// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/liveevent.h"

#include "core/base/hash.h"
#include "core/base/texthash.h"

namespace chispa {
SourceCode codeOf(const BindingSource& source, const std::string& device, int channel) {
  const auto kind = static_cast<std::uint64_t>(source.kind) + 1;
  const auto mix = [](std::uint64_t a, std::uint64_t b) { return mixBits(a ^ mixBits(b)); };
  if (source.isMidi()) {
    return mix(mix(mix(kind, hashOfText(device)), static_cast<std::uint64_t>(channel)),
               source.hasNumber() ? static_cast<std::uint64_t>(source.number) : 0);
  }
  if (source.kind == SourceKind::Osc || source.kind == SourceKind::Key)
    return mix(kind, hashOfText(source.address));
  return 0;
}

LiveEvent controlEvent(const BindingSource& source, float value) {
  LiveEvent event;
  event.kind = LiveEvent::Kind::Control;
  event.value = value;
  if (source.isMidi())
    event.codes = {codeOf(source, source.device, source.channel), codeOf(source, source.device, 0),
                   codeOf(source, {}, source.channel), codeOf(source, {}, 0)};
  else
    event.codes[0] = codeOf(source, {}, 0);
  return event;
}

LiveEvent timeCodeEvent(const std::string& device, Micros at, bool runs) {
  LiveEvent event = controlEvent({.kind = SourceKind::TimeCode, .device = device}, runs ? 1.f : 0.f);
  event.kind = LiveEvent::Kind::TimeCode;
  event.at = at;
  return event;
}

}  // namespace chispa
