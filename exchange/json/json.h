#pragma once
// The type of a JSON document, named without the library's 25,000 lines: for headers that pass one on.

#include <nlohmann/json_fwd.hpp>

namespace zl::exchange {

using Json = nlohmann::json;

}  // namespace zl::exchange
