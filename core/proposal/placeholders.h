#pragma once
// Round figures of the economy that serve where a book has none of its own: rates by currency, tax by country.
// Shipped as a text that the user may edit; dated, and never taken for a quote.
//
//   as_of 2026-01-01
//   currency EUR risk-free 3%, equity premium 5.5%, spot 1.1
//   country DE tax 30%

#include <map>
#include <optional>
#include <string>
#include <string_view>

#include "core/period/date.h"
#include "core/quantity/error.h"
#include "core/quantity/figure.h"

namespace zl {

class Placeholders {
 public:
  /// Message names the line at fault.
  static Result<Placeholders> parse(std::string_view text, const std::string& source);

  /// A rate of a currency (ISO 4217) by its name, as a fraction; empty where the table has none.
  [[nodiscard]] std::optional<double> rate(const std::string& currency, const std::string& name) const;
  /// Marginal tax on profit in a country (ISO 3166, two letters); where the country is not known or not in the table,
  /// the usual one of the currency's home.
  [[nodiscard]] std::optional<double> tax(const std::string& country, const std::string& currency) const;
  /// Units of `to` for one of `from`; absent, naming the currency, where the table lacks one of them.
  [[nodiscard]] Figure spot(const std::string& from, const std::string& to) const;
  [[nodiscard]] Date asOf() const { return asOf_; }
  /// What a trace says of a figure of this table.
  [[nodiscard]] std::string source() const;

 private:
  Date asOf_{};
  std::map<std::string, std::map<std::string, double>> currencies_;
  std::map<std::string, double> taxes_;  ///< by country
};

}  // namespace zl
