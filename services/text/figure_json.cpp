#include "services/text/figure_json.h"

#include "exchange/json/reader.h"

namespace zl::services {

Json figureJson(const Figure& figure) {
  if (figure.hasValue()) return figure.value();
  if (figure.isNotMeaningful()) return {{"not_meaningful", figure.reason()}};
  return {{"absent", figure.reason()}};
}

}  // namespace zl::services
