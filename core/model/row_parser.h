#pragma once
// Reads the rows of the model language: their head, and the attributes that a later text may amend.

#include "core/model/expression_parser.h"

namespace zl::model {

class RowParser : public ExpressionParser {
 public:
  using ExpressionParser::ExpressionParser;

 protected:
  Row parseRow();
  Row parseChoice();              ///< an input that stands on one of its options
  bool parseAttribute(Row& row);  ///< false, and nothing read, where no attribute stands

 private:
  double amount(const Row& row);
  EstimateTie estimateTie(const Row& row);
  RegularTie regularTie(const Row& row);
  RecordTie recordTie(const Row& row);
};

}  // namespace zl::model
