#pragma once
// Reads the rules of the model language: expressions by precedence, calls, running sums.

#include <optional>
#include <string>

#include "core/model/token_reader.h"

namespace zl::model {

class ExpressionParser : public TokenReader {
 public:
  using TokenReader::TokenReader;

 protected:
  Expr expression(int depth = 0);  ///< depth 0 begins a rule
  /// The unit of the number just read, where the next word is one.
  std::optional<Kind> unitHere();
  static Expr binary(Op op, Expr left, Position at, Expr right);

 private:
  Expr joined(Op op, Expr left, Position at, Expr right);
  Expr either(int depth);
  Expr both(int depth);
  Expr comparison(int depth);
  Expr sum(int depth);
  Expr product(int depth);
  Expr signedTerm(int depth);
  Expr power(int depth);
  Expr atom(int depth);
  Expr runningSum(const Token& name, int depth);
  void writeOut(Expr& e, const std::string& counter, int k) const;
  Expr call(const Token& name, int depth);

  int joined_ = 0;       ///< operations of the rule that is read
  std::string running_;  ///< what runs in the sum that is read
};

}  // namespace zl::model
