#pragma once
// What model text says of rows from outside them: roles, views, methods. They are read by name and bound to
// rows once all texts are there, because a later text moves the rows of the ones before it.

#include <map>
#include <string>
#include <vector>

#include "core/model/syntax.h"
#include "core/quantity/error.h"

namespace zl::model {

struct NamedRow {
  std::string name;
  Position at;
};

/// One text after another adds to these; a later one's word on the same role, or method, stands, and its rows of a
/// view join the end of that view.
struct Bindings {
  struct ViewLine {
    NamedRow row;
    ViewRow marks;
  };
  struct ViewText {
    std::string title;
    std::vector<ViewLine> lines;
    Position at;
  };
  struct MethodText {
    Method method;                         ///< all but its rows
    std::map<std::string, NamedRow> rows;  ///< by attribute: value, low, high, share, flow, rate, leads
    std::string option;                    ///< of the choice after `leads`
  };
  std::map<Role, NamedRow> roles;
  std::vector<std::pair<std::string, ViewText>> views;  ///< in the order in which they were first named
  std::vector<MethodText> methods;

  ViewText& view(const std::string& name);
};

/// Binds them. Refuses rows that are not there, roles whose row is of another kind or timing or lacks an option
/// that the program tells apart, methods without a value in the listing's unit, and a flow that is discounted at
/// a rate that is not its own.
Status bind(Model& model, const Bindings& bindings);

}  // namespace zl::model
