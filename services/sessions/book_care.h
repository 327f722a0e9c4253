#pragma once
// Looking after a book: whether all of it is whole, saving what is whole, copies and going back to one.

#include "exchange/json/json.h"
#include "services/sessions/session.h"
#include "store/copies.h"
#include "store/survey.h"

namespace zl::services {

struct BookCheck {
  store::Survey survey;
  std::vector<store::DamageFound> faults;  ///< what is stored and cannot be shown: cases, journals, companies
  [[nodiscard]] bool isWhole() const { return survey.damage.empty() && faults.empty(); }
};

/// Goes through pages, rows, documents (against their digests, filings read again), cases, journals
/// (walked back to their start) and companies (evaluated). Changes nothing.
Result<BookCheck> checkBook(const std::string& path, const std::shared_ptr<const Resources>& resources,
                            const Desk& desk);
std::string checkText(const BookCheck& check);
exchange::Json checkJson(const BookCheck& check);

/// Saves what is whole into a new book and says what is not.
Result<store::Survey> rescueBook(const std::string& path, const std::string& into,
                                 const std::shared_ptr<const Resources>& resources, const Desk& desk);

}  // namespace zl::services
