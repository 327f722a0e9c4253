// JSON text to values, each in time linear in its size. The library's own filter for its events walks
// through an object again for every object in it, so its events are taken here directly.

#include "core/text/utf8.h"
#include "exchange/json/reader.h"

namespace zl::exchange {
namespace {

constexpr size_t kDeepest = 64;
constexpr size_t kMostValues = 20'000'000;  ///< 16 bytes each at least
constexpr size_t kStopsAsked = 4096;        ///< values between two looks at whether reading is wanted

/// Builds the value from the parser's events; false ends the parsing.
class Builder final : public nlohmann::json_sax<Json> {
 public:
  explicit Builder(const StopCheck& stopped) : stopped_(stopped) {}

  Json value;
  Error fault;  ///< without a place; empty where the text itself is broken
  size_t brokenAt = 0;
  bool notText = false;

  bool null() override { return put(Json()); }
  bool boolean(bool v) override { return put(Json(v)); }
  bool number_integer(number_integer_t v) override { return put(Json(v)); }
  bool number_unsigned(number_unsigned_t v) override { return put(Json(v)); }
  bool number_float(number_float_t v, const string_t&) override { return put(Json(v)); }
  bool string(string_t& v) override { return put(Json(std::move(v))); }
  bool binary(binary_t&) override { return false; }
  bool start_object(std::size_t) override { return open(Json::object()); }
  bool start_array(std::size_t) override { return open(Json::array()); }
  bool end_object() override { return close(); }
  bool end_array() override { return close(); }

  bool key(string_t& name) override {
    const auto [at, fresh] = open_.back()->get_ref<Json::object_t&>().try_emplace(std::move(name));
    member_ = &at->second;
    if (fresh) return true;
    fault = {ErrorKind::BadInput,
             "the member '" + shortened(harmless(at->first), 80) + "' stands twice in one object",
             {},
             "Keep one of the two"};
    return false;
  }

  bool parse_error(std::size_t position, const std::string&, const nlohmann::detail::exception& e) override {
    brokenAt = position;
    constexpr int kNumberOutOfRange = 406;
    notText = e.id == kNumberOutOfRange;
    return false;
  }

 private:
  Json* place(Json v) {
    if (open_.empty()) {
      value = std::move(v);
      return &value;
    }
    if (open_.back()->is_object()) {
      *member_ = std::move(v);
      return member_;
    }
    Json::array_t& list = open_.back()->get_ref<Json::array_t&>();
    list.push_back(std::move(v));
    return &list.back();
  }

  bool put(Json v) {
    if (++values_ > kMostValues) {
      fault = {ErrorKind::TooLarge, "the JSON holds more than 20,000,000 values", {}, "Split it"};
      return false;
    }
    if (values_ % kStopsAsked == 0 && stopped_()) {
      fault = {ErrorKind::Cancelled, "reading was stopped; nothing is stored", {}, {}};
      return false;
    }
    place(std::move(v));
    return true;
  }

  bool open(Json v) {
    if (open_.size() >= kDeepest) {
      fault = {ErrorKind::BadInput, "the JSON is nested more than 64 deep", {}, {}};
      return false;
    }
    if (++values_ > kMostValues) return put(std::move(v));
    open_.push_back(place(std::move(v)));
    return true;
  }

  bool close() {
    open_.pop_back();
    return true;
  }

  const StopCheck& stopped_;
  std::vector<Json*>
      open_;  ///< each inside the one before; a list that is open does not grow until what is in it is closed
  Json* member_ = nullptr;
  size_t values_ = 0;
};

}  // namespace

Result<Json> parseJson(std::string_view text, const std::string& source, const StopCheck& stopped) {
  Builder builder(stopped);
  if (Json::sax_parse(text, &builder)) return std::move(builder.value);
  if (!builder.fault.what.empty()) {
    builder.fault.where = source;
    return tl::unexpected(builder.fault);
  }
  if (builder.notText) {
    return fail(ErrorKind::BadInput, "the JSON holds text that is not UTF-8 or numbers out of range", source);
  }
  return fail(ErrorKind::BadInput, "the JSON is broken at byte " + std::to_string(builder.brokenAt), source,
              "Correct the text there");
}

}  // namespace zl::exchange
