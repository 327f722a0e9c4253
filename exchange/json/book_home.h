#pragma once
// Which of its companies a book opens with, as a document of the whole book: it comes and goes with its edit, and the
// newest stands.

#include <string>

#include "core/quantity/error.h"

namespace zl::exchange {

std::string bookHomeText(const std::string& company);
/// The company's id.
Result<std::string> bookHomeFrom(const std::string& text, const std::string& source);

}  // namespace zl::exchange
