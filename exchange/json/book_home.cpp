#include "exchange/json/book_home.h"

#include "exchange/json/case_members.h"

namespace zl::exchange {
namespace {

constexpr const char* kBookHomeFormat = "zealous-ledger-book-home";

}  // namespace

std::string bookHomeText(const std::string& company) {
  return textOf(Json{{"format", kBookHomeFormat}, {"version", 1}, {"company", company}}, 1);
}

Result<std::string> bookHomeFrom(const std::string& text, const std::string& source) {
  const Result<Json> json = parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  try {
    ObjectReader r(*json, source);
    if (r.text("format") != kBookHomeFormat || r.whole("version") != 1) r.fault("this names no company to open with");
    std::string company = r.text("company");
    r.finish();
    return company;
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
