#pragma once
// Helpers for tests that evaluate models: the shipped one or a few lines of text.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "core/model/evaluate.h"
#include "core/model/interpret.h"
#include "core/model/parser.h"
#include "core/outlook/evaluation.h"
#include "tests/support/files.h"
#include "tests/support/source_folder.h"

namespace zl::test {

inline model::Model shippedModel() {
  const auto m = model::parseModel(fileText(sourceFolder() + "/kits/standard/model"), "standard.model");
  EXPECT_TRUE(m) << (m ? "" : m.error().text());
  return m ? *m : model::Model{};
}

inline model::Model modelOf(const std::string& rows) {
  const auto m = model::parseModel("model test \"Test\" 1\n" + rows, "test.model");
  EXPECT_TRUE(m) << (m ? "" : m.error().text());
  return m ? *m : model::Model{};
}

/// A model of a few lines with filed figures, evaluated for a case.
struct SmallModel {
  model::Model model;
  std::map<std::string, std::vector<Figure>> filed;
  Case theCase = newCase("test", makeDate(2026, 1, 1));
  Givens givens;
  int horizon = 3;

  Evaluation evaluate() const {
    int years = 1;
    for (const auto& [row, figures] : filed) years = static_cast<int>(figures.size());
    const model::Layout layout{years, horizon};
    auto compiled = compileModel(model, layout);
    EXPECT_TRUE(compiled) << (compiled ? "" : compiled.error().text());
    auto history = std::make_shared<const model::HistoryTable>(
        model, layout,
        [&](const std::string& row, int c) {
          const auto found = filed.find(row);
          return found == filed.end() ? Figure::absent("not filed") : found->second[static_cast<size_t>(c)];
        },
        [&](model::RowId row) {
          const auto& r = model[row];
          const InputChoice* choice = theCase.input(theCase.base(), r.name);
          return choice != nullptr ? figureOf(r, *choice)
                                   : Figure::of(r.preset && r.preset->level ? *r.preset->level : 0);
        });
    return Evaluation(*compiled, history, theCase, givens);
  }
};

inline std::vector<Figure> figures(std::initializer_list<double> numbers) {
  std::vector<Figure> list;
  for (double x : numbers) list.push_back(Figure::of(x));
  return list;
}

/// The shipped model on a company with two like years of the given lines (others filed as nought),
/// a price of 100, ten shares and no dilution, valued at the balance sheet's date.
inline SmallModel companyWith(int horizon, const std::vector<std::pair<const char*, double>>& lines) {
  SmallModel m;
  m.model = shippedModel();
  m.horizon = m.theCase.horizon = horizon;
  for (const model::Row& row : m.model.rows) {
    if (row.historyFiled) m.filed[row.name] = figures({0, 0});
  }
  for (const auto& [line, figure] : lines) m.filed[line] = figures({figure, figure});
  for (const char* none : {"options", "option_strike", "unvested_shares", "convertible_shares", "convertible_face"}) {
    m.givens[none] = Figure::of(0);
  }
  for (const model::Row& row : m.model.rows) {
    if (row.record) m.givens[row.name] = Figure::of(0);
  }
  m.givens["price"] = Figure::of(100);
  m.givens["quote_rate"] = m.givens["stub"] = Figure::of(1);
  m.givens["years_passed"] = Figure::of(0);
  m.givens["shares_now"] = Figure::of(10);
  return m;
}

}  // namespace zl::test
