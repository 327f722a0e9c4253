#include "core/model/slice.h"

#include <algorithm>

namespace zl::model {
namespace {

/// Calls `see` with each member of an instruction that names a slot it reads; the others hold a count, or nothing.
template <class Instr, class See>
void eachOperand(Instr& in, const See& see) {
  see(in.a);
  switch (in.code) {
    case Code::Negate:
    case Code::Abs:
    case Code::Round:
    case Code::Copy:
    case Code::Skip:
      return;
    case Code::Select:
      see(in.c);
      [[fallthrough]];
    default:
      see(in.b);
  }
}

class Slicer {
 public:
  /// Without `moved` nothing is known but the inputs.
  Slicer(const Program& whole, std::span<const Cell> wanted, const std::set<RowId>* moved)
      : p_(whole), wanted_(wanted), live_(whole.slots, false), kept_(whole.tape.size(), false) {
    known_.assign(whole.slots, false);
    if (moved != nullptr) tellKnown(*moved);
  }

  Program run() {
    for (const Cell cell : wanted_) {
      if (const std::int32_t slot = p_.slot(cell); slot >= 0) live_[static_cast<size_t>(slot)] = true;
    }
    look();
    number();
    return made();
  }

 private:
  /// Cells that the tape writes and that no moved row reaches.
  void tellKnown(const std::set<RowId>& moved) {
    moves_.assign(p_.slots, false);
    for (const InputCell& input : p_.inputs) moves_[input.slot] = moved.count(input.cell.row) > 0;
    size_t at = 0;
    for (const Circle& group : p_.circles) {
      spread(at, group.begin);
      at = group.end;
      // What one round reaches the next one feeds back.
      if (spread(group.begin, group.end)) moveAll(group);
    }
    spread(at, p_.tape.size());
    for (const Cell cell : p_.computed) {
      const auto slot = static_cast<size_t>(p_.slot(cell));
      known_[slot] = !moves_[slot];
    }
  }

  /// Marks what instructions write that read something marked; whether that is any cell.
  bool spread(size_t begin, size_t end) {
    bool any = false;
    size_t guarded = 0;  // up to here a branch is passed over or not by what is marked
    for (size_t i = begin; i < end; ++i) {
      const Instruction& in = p_.tape[i];
      bool moves = i < guarded;
      eachOperand(in, [&](std::uint32_t slot) { moves = moves || moves_[slot]; });
      if (in.code == Code::Skip) {
        if (moves) guarded = std::max(guarded, i + 1 + in.b);
        continue;
      }
      const bool cell = in.dst < p_.firstTemporary;
      moves_[in.dst] = moves || (cell && moves_[in.dst]);  // a temporary serves another cell now
      any = any || (cell && moves);
    }
    return any;
  }

  void moveAll(const Circle& group) {
    for (size_t i = group.begin; i < group.end; ++i) {
      if (p_.tape[i].code != Code::Skip) moves_[p_.tape[i].dst] = true;
    }
    for (const Circle::Feedback& f : group.feedback) moves_[f.guess] = true;
  }

  /// From the end to the beginning: an instruction is kept when what it writes is read further on.
  void look() {
    size_t circle = p_.circles.size();
    for (size_t i = p_.tape.size(); i > 0;) {
      if (circle > 0 && p_.circles[circle - 1].end == i) {
        const Circle& group = p_.circles[--circle];
        keptCircle_.push_back(isRead(group));
        if (keptCircle_.back()) readFeedback(group);
        while (i > group.begin) lookAt(--i);
        continue;
      }
      lookAt(--i);
    }
    std::reverse(keptCircle_.begin(), keptCircle_.end());
  }

  [[nodiscard]] bool isRead(const Circle& group) const {
    for (size_t i = group.begin; i < group.end; ++i) {
      const Instruction& in = p_.tape[i];
      if (in.code != Code::Skip && in.dst < p_.firstTemporary && live_[in.dst] && !known_[in.dst]) return true;
    }
    return false;
  }

  /// What a round ends with is read by the next one, and by the question whether all has settled.
  void readFeedback(const Circle& group) {
    for (const Circle::Feedback& f : group.feedback) live_[f.computed] = true;
    for (const std::uint32_t balance : group.balances) live_[balance] = true;
  }

  void lookAt(size_t i) {
    const Instruction& in = p_.tape[i];
    if (in.code == Code::Skip) {
      const auto first = kept_.begin() + static_cast<std::ptrdiff_t>(i) + 1;
      kept_[i] = std::find(first, first + in.b, true) != first + in.b;
    } else {
      kept_[i] = live_[in.dst] && !known_[in.dst];
      // Temporaries serve one cell after another. A branch that is passed over leaves one as it was, and nobody reads
      // it.
      if (in.dst >= p_.firstTemporary) live_[in.dst] = false;
    }
    if (!kept_[i]) return;
    eachOperand(in, [this](std::uint32_t slot) { live_[slot] = true; });
  }

  /// New numbers for the slots that are left: cells, then temporaries, then literals, as compile() has them.
  void number() {
    used_.assign(p_.slots, false);
    for (size_t i = 0; i < p_.tape.size(); ++i) {
      if (!kept_[i]) continue;
      const Instruction& in = p_.tape[i];
      if (in.code != Code::Skip) used_[in.dst] = true;
      eachOperand(in, [this](std::uint32_t slot) { used_[slot] = true; });
    }
    for (size_t c = 0; c < p_.circles.size(); ++c) {
      if (!keptCircle_[c]) continue;
      for (const Circle::Feedback& f : p_.circles[c].feedback) used_[f.guess] = used_[f.computed] = true;
      for (const std::uint32_t balance : p_.circles[c].balances) used_[balance] = true;
    }
    for (const Cell cell : wanted_) {
      if (const std::int32_t slot = p_.slot(cell); slot >= 0) used_[static_cast<size_t>(slot)] = true;
    }
    to_.assign(p_.slots, 0);
    std::uint32_t next = 0;
    for (std::uint32_t slot = 0; slot < p_.slots; ++slot) {
      if (slot == p_.firstTemporary) firstTemporary_ = next;
      if (slot == p_.firstConstant) firstConstant_ = next;
      to_[slot] = next;
      if (used_[slot]) ++next;
    }
    if (p_.firstConstant == p_.slots) firstConstant_ = next;
    if (p_.firstTemporary == p_.slots) firstTemporary_ = next;
    slots_ = next;
  }

  [[nodiscard]] Program made() const {
    Program slice;
    slice.layout = p_.layout;
    slice.firstTemporary = firstTemporary_;
    slice.firstConstant = firstConstant_;
    slice.slots = slots_;
    std::vector<size_t> place(p_.tape.size() + 1, 0);
    for (size_t i = 0; i < p_.tape.size(); ++i) place[i + 1] = place[i] + (kept_[i] ? 1 : 0);
    for (size_t i = 0; i < p_.tape.size(); ++i) {
      if (!kept_[i]) continue;
      // What is no operand is nought, and so names a slot: the kernel makes its address.
      Instruction in = p_.tape[i];
      eachOperand(in, [this](std::uint32_t& slot) { slot = to_[slot]; });
      if (in.code == Code::Skip) {
        in.b = static_cast<std::uint32_t>(place[i + 1 + in.b] - place[i + 1]);
      } else {
        in.dst = to_[in.dst];
      }
      slice.tape.push_back(in);
    }
    for (size_t c = 0; c < p_.circles.size(); ++c) {
      if (!keptCircle_[c]) continue;
      Circle circle = p_.circles[c];
      circle.begin = place[circle.begin];
      circle.end = place[circle.end];
      for (Circle::Feedback& f : circle.feedback) {
        f.guess = to_[f.guess];
        f.computed = to_[f.computed];
      }
      for (std::uint32_t& balance : circle.balances) balance = to_[balance];
      slice.circles.push_back(std::move(circle));
    }
    for (const InputCell& input : p_.inputs) {
      if (used_[input.slot]) slice.inputs.push_back({input.cell, to_[input.slot]});
    }
    for (const Cell cell : p_.computed) {
      const auto slot = static_cast<size_t>(p_.slot(cell));
      if (known_[slot] && used_[slot]) slice.inputs.push_back({cell, to_[slot]});
    }
    for (size_t k = 0; k < p_.constants.size(); ++k) {
      if (used_[p_.firstConstant + k]) slice.constants.push_back(p_.constants[k]);
    }
    slice.slotOfCell.reserve(p_.slotOfCell.size());
    for (const std::int32_t slot : p_.slotOfCell) {
      const bool left = slot >= 0 && used_[static_cast<size_t>(slot)];
      slice.slotOfCell.push_back(left ? static_cast<std::int32_t>(to_[static_cast<size_t>(slot)]) : -1);
    }
    for (const Cell cell : p_.computed) {
      if (slice.slot(cell) >= 0 && !known_[static_cast<size_t>(p_.slot(cell))]) slice.computed.push_back(cell);
    }
    return slice;
  }

  const Program& p_;
  std::span<const Cell> wanted_;
  std::vector<bool> moves_;       ///< by slot: a moved row reaches it
  std::vector<bool> known_;       ///< by slot: computed by the whole, and an input of the part
  std::vector<bool> live_;        ///< read by what comes after the place that is looked at
  std::vector<bool> kept_;        ///< by instruction
  std::vector<bool> keptCircle_;  ///< by circular group
  std::vector<bool> used_;
  std::vector<std::uint32_t> to_;
  std::uint32_t firstTemporary_ = 0, firstConstant_ = 0, slots_ = 0;
};

}  // namespace

Program sliceFor(const Program& whole, std::span<const Cell> wanted) {
  return Slicer(whole, wanted, nullptr).run();
}

Program sliceFor(const Program& whole, std::span<const Cell> wanted, const std::set<RowId>& moved) {
  return Slicer(whole, wanted, &moved).run();
}

}  // namespace zl::model
