// From a checked model to a tape. Cells are ordered by Tarjan's strongly connected components
// (R. Tarjan, Depth-first search and linear graph algorithms, SIAM J. Comput. 1, 1972); a
// component of more than one cell becomes a circular group, iterated Gauss-Seidel fashion in the
// order in which the model declares its rows.

#include <algorithm>
#include <bit>
#include <cstdlib>
#include <limits>
#include <map>
#include <set>

#include "core/model/program.h"

namespace zl::model {
namespace {

bool asksWhetherKnown(const Expr& e) {
  return e.op == Op::Known || std::any_of(e.args.begin(), e.args.end(), asksWhetherKnown);
}

class Compiler {
 public:
  Compiler(const Model& model, Layout layout) : model_(model) {
    program_.layout = layout;
    program_.slotOfCell.assign(model.rows.size() * static_cast<size_t>(layout.width()), -1);
  }

  Program run() {
    listCells();
    for (size_t i = 0; i < cells_.size(); ++i) {
      if (index_[i] < 0) connect(static_cast<int>(i));
    }
    for (const std::vector<int>& component : components_) emitComponent(component);
    finish();
    return std::move(program_);
  }

 private:
  const Layout& layout() const { return program_.layout; }
  size_t key(Cell c) const {
    return c.row.at() * static_cast<size_t>(layout().width()) + static_cast<size_t>(c.column);
  }

  void listCells() {
    nodeOf_.assign(program_.slotOfCell.size(), -1);
    for (size_t r = 0; r < model_.rows.size(); ++r) {
      const Row& row = model_.rows[r];
      if (row.declared != Declared::Row) continue;
      const RowId id(r);
      if (row.timing == Timing::Constant) {
        addNode({id, 0}, *row.value);
      } else {
        for (int c = layout().historyYears; c < layout().columns(); ++c) {
          addNode({id, c}, *ruleOf(row, layout(), c));
        }
      }
    }
    for (size_t i = 0; i < cells_.size(); ++i) {  // grows by cells of the year beyond, where anything reads them
      edges_.emplace_back();
      for (Cell read : cellsRead(model_, layout(), *rules_[i], cells_[i].column)) {
        const Expr* rule = read.column == layout().columns() && nodeOf_[key(read)] < 0
                               ? ruleOf(model_[read.row], layout(), read.column)
                               : nullptr;
        if (rule != nullptr) addNode(read, *rule);
        if (nodeOf_[key(read)] >= 0) edges_[i].push_back(nodeOf_[key(read)]);
      }
    }
    index_.assign(cells_.size(), -1);
    low_.assign(cells_.size(), 0);
    onStack_.assign(cells_.size(), false);
  }

  void addNode(Cell cell, const Expr& rule) {
    nodeOf_[key(cell)] = static_cast<int>(cells_.size());
    cells_.push_back(cell);
    rules_.push_back(&rule);
  }

  // Tarjan with an explicit stack: long chains of years must not exhaust the call stack.
  void connect(int root) {
    struct Frame {
      int node;
      size_t next;
    };
    std::vector<Frame> frames{{root, 0}};
    while (!frames.empty()) {
      Frame& frame = frames.back();
      const auto v = static_cast<size_t>(frame.node);
      if (frame.next == 0) {
        index_[v] = low_[v] = counter_++;
        stack_.push_back(frame.node);
        onStack_[v] = true;
      }
      if (frame.next < edges_[v].size()) {
        const int w = edges_[v][frame.next++];
        if (index_[static_cast<size_t>(w)] < 0) {
          frames.push_back({w, 0});
        } else if (onStack_[static_cast<size_t>(w)]) {
          low_[v] = std::min(low_[v], index_[static_cast<size_t>(w)]);
        }
        continue;
      }
      if (low_[v] == index_[v]) popComponent(frame.node);
      const int lowest = low_[v];
      frames.pop_back();
      if (!frames.empty()) {
        int& parent = low_[static_cast<size_t>(frames.back().node)];
        parent = std::min(parent, lowest);
      }
    }
  }

  void popComponent(int root) {
    std::vector<int> component;
    int node = -1;
    do {
      node = stack_.back();
      stack_.pop_back();
      onStack_[static_cast<size_t>(node)] = false;
      component.push_back(node);
    } while (node != root);
    std::sort(component.begin(), component.end());  // declaration order, then year
    components_.push_back(std::move(component));
  }

  void emitComponent(const std::vector<int>& component) {
    const auto first = static_cast<size_t>(component.front());
    const bool loop =
        component.size() > 1 || std::count(edges_[first].begin(), edges_[first].end(), component.front()) > 0;
    if (!loop) {
      emitCell(component.front());
      return;
    }
    Circle circle;
    circle.begin = program_.tape.size();
    const std::set<int> members(component.begin(), component.end());
    const std::vector<int> openOrder = orderIfOpen(component, members);
    circle.byChoice = !openOrder.empty();
    const std::vector<int>& order = circle.byChoice ? openOrder : component;
    std::map<int, std::uint32_t> guesses;
    std::set<int> done;
    std::set<std::string> names;
    for (int node : order) {
      for (int read : edges_[static_cast<size_t>(node)]) {
        if (members.count(read) > 0 && done.count(read) == 0 && guesses.count(read) == 0) {
          guesses[read] = newSlot();
        }
      }
      done.insert(node);
    }
    for (const auto& [node, slot] : guesses) guessOf_[key(cells_[static_cast<size_t>(node)])] = slot;
    for (int node : order) {
      const Cell cell = cells_[static_cast<size_t>(node)];
      const Row& row = model_[cell.row];
      emitCell(node);
      guessOf_.erase(key(cell));  // from here on the round's own figure is read
      names.insert(row.label);
      if (row.timing == Timing::Balance) circle.balances.push_back(slotFor(cell));
    }
    for (const auto& [node, slot] : guesses) {
      const Cell cell = cells_[static_cast<size_t>(node)];
      circle.feedback.push_back({slot, slotFor(cell), model_[cell.row].kind == Kind::Money});
    }
    for (const std::string& name : names) circle.rows += (circle.rows.empty() ? "" : ", ") + name;
    circle.end = program_.tape.size();
    program_.circles.push_back(std::move(circle));
  }

  /// Of a circle that a choice closes: an order in which everything that is always read has been computed, and of the
  /// rest as much as there can be. Empty where the circle is closed whatever is chosen.
  std::vector<int> orderIfOpen(const std::vector<int>& component, const std::set<int>& members) {
    // known() would hide a missing figure, by which it is told whether the circle was open.
    const auto hides = [&](int node) { return asksWhetherKnown(*rules_[static_cast<size_t>(node)]); };
    if (std::any_of(component.begin(), component.end(), hides)) return {};
    std::map<int, std::set<int>> always, sometimes;  // what a cell still waits for
    std::map<int, std::vector<int>> readers;
    for (const int node : component) {
      const Cell cell = cells_[static_cast<size_t>(node)];
      for (const Cell read : cellsAlwaysRead(model_, layout(), *rules_[static_cast<size_t>(node)], cell.column)) {
        if (const int other = nodeOf_[key(read)]; members.count(other) > 0) always[node].insert(other);
      }
      for (const int other : edges_[static_cast<size_t>(node)]) {
        if (members.count(other) == 0) continue;
        readers[other].push_back(node);
        if (always[node].count(other) == 0) sometimes[node].insert(other);
      }
    }
    std::set<std::pair<size_t, int>> ready;  // by how much is still missing behind choices, then as declared
    const auto enter = [&](int node) {
      if (always[node].empty()) ready.insert({sometimes[node].size(), node});
    };
    for (const int node : component) enter(node);
    std::vector<int> order;
    std::set<int> placed;
    while (!ready.empty()) {
      const int node = ready.begin()->second;
      ready.erase(ready.begin());
      order.push_back(node);
      placed.insert(node);
      for (const int reader : readers[node]) {
        ready.erase({sometimes[reader].size(), reader});
        always[reader].erase(node);
        sometimes[reader].erase(node);
        if (placed.count(reader) == 0) enter(reader);
      }
    }
    return order.size() == component.size() ? order : std::vector<int>();
  }

  void emitCell(int node) {
    const Cell cell = cells_[static_cast<size_t>(node)];
    nextTemporary_ = 0;
    const std::uint32_t slot = slotFor(cell);
    const std::uint32_t result = emit(*rules_[static_cast<size_t>(node)], cell.column, slot);
    if (result != slot) program_.tape.push_back({Code::Copy, slot, result, result, result});
    program_.computed.push_back(cell);
  }

  /// Emits code for an expression. The outermost operation writes to `target` when it can.
  std::uint32_t emit(const Expr& e, int column, std::int64_t target = -1) {
    switch (e.op) {
      case Op::Number:
        return constant(e.number);
      case Op::Ref:
        return read(cellOf(model_, layout(), e, column));
      case Op::Average: {
        const std::uint32_t sum = write(Code::Add, emit(e.args[0], column), emit(e.args[0], column - 1));
        return write(Code::Multiply, sum, constant(0.5), 0, target);
      }
      case Op::Total: {
        std::uint32_t sum = emit(e.args[0], layout().historyYears);
        for (int c = layout().historyYears + 1; c < layout().columns(); ++c) {
          sum = write(Code::Add, sum, emit(e.args[0], c));
        }
        return sum;
      }
      case Op::Sum: {
        if (e.args.size() == 1) return write(Code::Copy, emit(e.args[0], column), 0, 0, target);
        std::uint32_t sum = emit(e.args[0], column);
        for (size_t i = 1; i < e.args.size(); ++i) {
          const bool last = i + 1 == e.args.size();
          sum = write(Code::Add, sum, emit(e.args[i], column), 0, last ? target : -1);
        }
        return sum;
      }
      case Op::Negate:
        return write(Code::Negate, emit(e.args[0], column), 0, 0, target);
      case Op::Abs:
        return write(Code::Abs, emit(e.args[0], column), 0, 0, target);
      case Op::Round:
        return write(Code::Round, emit(e.args[0], column), 0, 0, target);
      case Op::If: {
        const std::uint32_t condition = emit(e.args[0], column);
        const size_t before = program_.tape.size();
        const std::uint32_t yes = emit(e.args[1], column);
        const size_t length = program_.tape.size() - before;
        if (length >= kWorthSkipping) {
          program_.tape.insert(program_.tape.begin() + static_cast<std::ptrdiff_t>(before),
                               {Code::Skip, 0, condition, static_cast<std::uint32_t>(length), 0});
        }
        return write(Code::Select, condition, yes, emit(e.args[2], column), target);
      }
      default: {
        const std::uint32_t left = emit(e.args[0], column);
        return write(codeOf(e.op), left, emit(e.args[1], column), 0, target);
      }
    }
  }

  static Code codeOf(Op op) {
    switch (op) {
      case Op::Add:
        return Code::Add;
      case Op::Subtract:
        return Code::Subtract;
      case Op::Multiply:
        return Code::Multiply;
      case Op::Divide:
        return Code::Divide;
      case Op::Power:
        return Code::Power;
      case Op::Min:
        return Code::Min;
      case Op::Max:
        return Code::Max;
      case Op::Less:
        return Code::Less;
      case Op::LessEqual:
        return Code::LessEqual;
      case Op::Greater:
        return Code::Greater;
      case Op::GreaterEqual:
        return Code::GreaterEqual;
      case Op::Equal:
      case Op::Is:
        return Code::Equal;
      case Op::And:
        return Code::And;
      case Op::Or:
        return Code::Or;
      case Op::Guard:
        return Code::Guard;
      case Op::Known:
        return Code::Known;
      default:
        std::abort();  // every other operation has a case of its own above
    }
  }

  std::uint32_t write(Code code, std::uint32_t a, std::uint32_t b, std::uint32_t c = 0, std::int64_t target = -1) {
    const std::uint32_t dst = target >= 0 ? static_cast<std::uint32_t>(target) : temporary();
    program_.tape.push_back({code, dst, a, b, c});
    return dst;
  }

  // Temporaries are numbered from kTemporary and moved behind the cells in finish(); each cell
  // starts again from the first, so a handful of them stays in the nearest cache.
  static constexpr std::uint32_t kTemporary = 1u << 30;
  /// A test of the condition costs about as much as this many instructions.
  static constexpr size_t kWorthSkipping = 4;
  static constexpr std::uint32_t kConstant = 1u << 31;

  std::uint32_t temporary() {
    temporaries_ = std::max(temporaries_, nextTemporary_ + 1);
    return kTemporary + nextTemporary_++;
  }

  std::uint32_t constant(double number) {
    const auto [at, fresh] = constantOf_.try_emplace(number, static_cast<std::uint32_t>(program_.constants.size()));
    if (fresh) program_.constants.push_back(number);
    return kConstant + at->second;
  }

  std::uint32_t newSlot() { return program_.slots++; }

  std::uint32_t slotFor(Cell cell) {
    std::int32_t& slot = program_.slotOfCell[key(cell)];
    if (slot < 0) slot = static_cast<std::int32_t>(newSlot());
    return static_cast<std::uint32_t>(slot);
  }

  std::uint32_t read(Cell cell) {
    if (cell.column < 0) return constant(std::numeric_limits<double>::quiet_NaN());
    if (const auto guess = guessOf_.find(key(cell)); guess != guessOf_.end()) return guess->second;
    const bool known = program_.slotOfCell[key(cell)] >= 0;
    const std::uint32_t slot = slotFor(cell);
    if (!known && nodeOf_[key(cell)] < 0) program_.inputs.push_back({cell, slot});
    return slot;
  }

  void finish() {
    const std::uint32_t cells = program_.slots;
    program_.firstTemporary = cells;
    program_.firstConstant = cells + temporaries_;
    program_.slots = program_.firstConstant + static_cast<std::uint32_t>(program_.constants.size());
    const auto settle = [&](std::uint32_t& slot) {
      if (slot >= kConstant) {
        slot = program_.firstConstant + (slot - kConstant);
      } else if (slot >= kTemporary) {
        slot = cells + (slot - kTemporary);
      }
    };
    for (Instruction& i : program_.tape) {
      settle(i.dst);
      settle(i.a);
      settle(i.b);
      settle(i.c);
    }
  }

  const Model& model_;
  Program program_;
  std::vector<Cell> cells_;
  std::vector<const Expr*> rules_;
  std::vector<std::vector<int>> edges_;
  std::vector<int> nodeOf_;
  std::vector<int> index_, low_, stack_;
  std::vector<bool> onStack_;
  int counter_ = 0;
  std::vector<std::vector<int>> components_;
  std::map<size_t, std::uint32_t> guessOf_;
  struct BitLess {  // NaN needs a place in the map too
    bool operator()(double a, double b) const {
      return std::bit_cast<std::uint64_t>(a) < std::bit_cast<std::uint64_t>(b);
    }
  };
  std::map<double, std::uint32_t, BitLess> constantOf_;
  std::uint32_t nextTemporary_ = 0;
  std::uint32_t temporaries_ = 0;
};

}  // namespace

Result<Program> compile(const Model& model, Layout layout) {
  if (layout.historyYears < 1 || layout.forecastYears < 1 || layout.columns() > 60) {
    return fail(ErrorKind::BadInput,
                "a model needs at least one filed year and one forecast year, and 60 at most; "
                "asked for " +
                    std::to_string(layout.historyYears) + " and " + std::to_string(layout.forecastYears),
                model.title);
  }
  return Compiler(model, layout).run();
}

}  // namespace zl::model
