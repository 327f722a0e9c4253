#pragma once
// Reads JSON objects strictly: a missing, mistyped or unknown member is one message with its path.

#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <string_view>

#include "core/period/date.h"
#include "core/quantity/error.h"
#include "exchange/json/json.h"
#include "exchange/stop_check.h"

namespace zl::exchange {

/// Parses text; nesting deeper than 64, more than 20,000,000 values and a member given twice are refused,
/// broken text with the byte's place. Time and memory are linear in the text.
Result<Json> parseJson(std::string_view text, const std::string& source, const StopCheck& stopped = {});

/// JSON as text, on one line or indented; what is not UTF-8 in it becomes U+FFFD, so that nothing that
/// is merely shown can fail.
std::string textOf(const Json& json, int indent = -1);

/// Thrown inside the readers of this folder only; readers return it as a value.
struct JsonFault {
  Error error;
};

/// What becomes of members that nobody asked for. They are passed over in what a newer version of the program wrote,
/// which is shown as far as it is understood and never written back.
enum class Unknown { Refused, PassedOver };

class ObjectReader {
 public:
  ObjectReader(const Json& object, std::string path, Unknown unknown = Unknown::Refused);
  /// A reader of an object inside this one, which takes unknown members the same way.
  [[nodiscard]] ObjectReader inside(const Json& object, std::string path) const {
    return {object, std::move(path), unknown_};
  }

  std::string text(const char* key);
  std::string optionalText(const char* key);
  double number(const char* key);
  double numberOr(const char* key, double otherwise);
  std::optional<double> optionalNumber(const char* key);
  std::optional<Date> optionalDate(const char* key);
  int whole(const char* key);
  bool truth(const char* key);
  Date date(const char* key);
  /// The member as it is; nullptr when it is missing.
  const Json* member(const char* key);
  /// Fails when a member was never asked for: a typing slip must not pass unseen.
  void finish() const;

  [[noreturn]] void fault(const std::string& what) const;
  [[nodiscard]] const std::string& path() const { return path_; }

 private:
  const Json& needed(const char* key);

  const Json& object_;
  std::string path_;
  Unknown unknown_;
  std::set<std::string> asked_;
};

}  // namespace zl::exchange
