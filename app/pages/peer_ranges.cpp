#include "app/pages/peer_ranges.h"

#include "app/look/theme.h"

namespace zl::app {

std::vector<MethodRange> peerRanges(const services::Snapshot& s) {
  std::vector<MethodRange> ranges;
  for (Multiple m : kMultiples) {
    const ImpliedValue& v = s.crossCheck.implied.at(m);
    MethodRange r{QObject::tr("Peers, %1").arg(QString::fromLatin1(multipleLabel(m))), 0, 0, std::nullopt, {}, false};
    if (v.low.hasValue() && v.high.hasValue() && v.median.hasValue()) {
      r.low = v.low.value();
      r.high = v.high.value();
      r.middle = v.median.value();
    } else {
      r.whyNot = text(v.median.reason().empty() ? "no peer counts" : v.median.reason());
    }
    ranges.push_back(std::move(r));
  }
  return ranges;
}

}  // namespace zl::app
