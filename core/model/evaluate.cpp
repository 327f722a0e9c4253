#include "core/model/evaluate.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#if defined(__SANITIZE_THREAD__)
#include <sanitizer/tsan_interface.h>
#endif

#include <algorithm>
#include <atomic>
#include <cmath>
#include <limits>

// One binary serves machines with and without wide vectors. Sanitizers cannot cope with the
// loader's choice among versions, so they get the plain one.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(ZEALOUS_SANITIZE)
#define ZL_VECTOR_VERSIONS __attribute__((target_clones("avx512f", "avx2", "default")))
#else
#define ZL_VECTOR_VERSIONS
#endif

namespace zl::model {
namespace {

constexpr double kNaN = std::numeric_limits<double>::quiet_NaN();

inline double finite(double x) {
  return (x - x == 0.0) ? x : kNaN;
}
inline double truth(bool yes, bool no) {
  return yes ? 1.0 : (no ? 0.0 : kNaN);
}

// min and max must pass a missing operand on, which std::min and std::max do not.
inline double smaller(double a, double b) {
  return a < b ? a : (b <= a ? b : kNaN);
}
inline double larger(double a, double b) {
  return a > b ? a : (b >= a ? b : kNaN);
}

template <int W>
inline __attribute__((always_inline)) void step(const Instruction& in, double* arena) {
  double* d = arena + static_cast<size_t>(in.dst) * W;
  const double* a = arena + static_cast<size_t>(in.a) * W;
  const double* b = arena + static_cast<size_t>(in.b) * W;
  const double* c = arena + static_cast<size_t>(in.c) * W;
#define ZL_LANES(expression)                                            \
  _Pragma("GCC ivdep") for (int i = 0; i < W; ++i) d[i] = (expression); \
  break
  switch (in.code) {
    case Code::Add:
      ZL_LANES(a[i] + b[i]);
    case Code::Subtract:
      ZL_LANES(a[i] - b[i]);
    case Code::Multiply:
      ZL_LANES(finite(a[i] * b[i]));
    case Code::Divide:
      ZL_LANES(finite(a[i] / b[i]));
    case Code::Power:
      ZL_LANES(finite(power(a[i], b[i])));
    case Code::Negate:
      ZL_LANES(-a[i]);
    case Code::Abs:
      ZL_LANES(std::fabs(a[i]));
    case Code::Round:
      ZL_LANES(std::round(a[i]));
    case Code::Min:
      ZL_LANES(smaller(a[i], b[i]));
    case Code::Max:
      ZL_LANES(larger(a[i], b[i]));
    case Code::Less:
      ZL_LANES(truth(a[i] < b[i], a[i] >= b[i]));
    case Code::LessEqual:
      ZL_LANES(truth(a[i] <= b[i], a[i] > b[i]));
    case Code::Greater:
      ZL_LANES(truth(a[i] > b[i], a[i] <= b[i]));
    case Code::GreaterEqual:
      ZL_LANES(truth(a[i] >= b[i], a[i] < b[i]));
    case Code::Equal:
      ZL_LANES(truth(a[i] == b[i], a[i] < b[i] || a[i] > b[i]));
    // Products and maxima of truths pass a missing operand on like any arithmetic.
    case Code::And:
      ZL_LANES(a[i] * b[i]);
    case Code::Or:
      ZL_LANES(larger(a[i], b[i]));
    case Code::Select:
      ZL_LANES(a[i] == 1.0 ? b[i] : (a[i] == 0.0 ? c[i] : kNaN));
    case Code::Guard:
      ZL_LANES(a[i] == 1.0 ? b[i] : kNaN);
    case Code::Known:
      ZL_LANES(a[i] == a[i] ? a[i] : b[i]);
    case Code::Copy:
      ZL_LANES(a[i]);
    case Code::Skip:
      break;  // runSteps passes over what it says
  }
#undef ZL_LANES
}

/// Whether any lane of the block takes the branch that a Skip guards; one without an answer does.
template <int W>
inline __attribute__((always_inline)) bool taken(const Instruction& in, const double* arena) {
  const double* a = arena + static_cast<size_t>(in.a) * W;
  bool any = false;
  for (int i = 0; i < W; ++i) any |= a[i] != 0.0;
  return any;
}

template <int W>
inline __attribute__((always_inline)) void runSteps(const Program& p, size_t begin, size_t end, double* arena) {
  for (size_t i = begin; i < end; ++i) {
    const Instruction& in = p.tape[i];
    if (in.code == Code::Skip) {
      if (!taken<W>(in, arena)) i += in.b;
      continue;
    }
    step<W>(in, arena);
  }
}

struct BlockReport {
  int rounds = 0;
  std::int32_t unsettled[64];
};

template <int W>
inline __attribute__((always_inline)) void runCircle(const Program& p, size_t which, double* arena,
                                                     BlockReport& report) {
  const Circle& circle = p.circles[which];
  bool settled[W] = {};
  if (circle.byChoice) {
    // A figure that nothing stands on may be missing: where none is missed the circle is open, and one round is all.
    for (const Circle::Feedback& f : circle.feedback) std::fill_n(arena + static_cast<size_t>(f.guess) * W, W, kNaN);
    runSteps<W>(p, circle.begin, circle.end, arena);
    bool missed = false;
    for (const Circle::Feedback& f : circle.feedback) {
      const double* now = arena + static_cast<size_t>(f.computed) * W;
      for (int i = 0; i < W; ++i) missed |= now[i] != now[i];
    }
    if (!missed) {
      report.rounds = std::max(report.rounds, 1);
      return;
    }
  }
  for (const Circle::Feedback& f : circle.feedback) {
    std::fill_n(arena + static_cast<size_t>(f.guess) * W, W, 0.0);
  }
  int round = 0;
  bool all = false;
  while (!all && round < kCircleRounds) {
    ++round;
    runSteps<W>(p, circle.begin, circle.end, arena);
    double scale[W] = {};
    for (std::uint32_t balance : circle.balances) {
      const double* x = arena + static_cast<size_t>(balance) * W;
      for (int i = 0; i < W; ++i) scale[i] = std::max(scale[i], std::fabs(x[i]));
    }
    bool still[W];
    std::fill_n(still, W, true);
    for (const Circle::Feedback& f : circle.feedback) {
      const double* guess = arena + static_cast<size_t>(f.guess) * W;
      const double* now = arena + static_cast<size_t>(f.computed) * W;
      for (int i = 0; i < W; ++i) {
        // A figure that is missing stays missing: there is nothing more to wait for.
        const double size = f.money ? scale[i] : std::max(std::fabs(now[i]), std::fabs(guess[i]));
        const bool close = !(std::fabs(now[i] - guess[i]) > kCircleTolerance * size);
        still[i] = still[i] && close;
      }
    }
    all = true;
    for (int i = 0; i < W; ++i) {
      settled[i] = settled[i] || still[i];
      all = all && settled[i];
    }
    // A settled lane keeps its guess, so that its bits do not depend on its neighbours.
    for (const Circle::Feedback& f : circle.feedback) {
      double* guess = arena + static_cast<size_t>(f.guess) * W;
      const double* now = arena + static_cast<size_t>(f.computed) * W;
      for (int i = 0; i < W; ++i) guess[i] = settled[i] ? guess[i] : now[i];
    }
  }
  report.rounds = std::max(report.rounds, round);
  if (all) return;
  for (int i = 0; i < W; ++i) {
    if (settled[i]) continue;
    if (report.unsettled[i] < 0) report.unsettled[i] = static_cast<std::int32_t>(which);
    for (const Circle::Feedback& f : circle.feedback) {
      arena[static_cast<size_t>(f.guess) * W + static_cast<size_t>(i)] = kNaN;
    }
  }
  runSteps<W>(p, circle.begin, circle.end, arena);
}

template <int W>
inline __attribute__((always_inline)) void runTape(const Program& p, double* arena, BlockReport& report) {
  size_t at = 0;
  for (size_t c = 0; c <= p.circles.size(); ++c) {
    const size_t stop = c < p.circles.size() ? p.circles[c].begin : p.tape.size();
    runSteps<W>(p, at, stop, arena);
    if (c < p.circles.size()) {
      runCircle<W>(p, c, arena, report);
      at = p.circles[c].end;
    }
  }
}

ZL_VECTOR_VERSIONS void runOne(const Program& p, double* arena, BlockReport& report) {
  runTape<1>(p, arena, report);
}
ZL_VECTOR_VERSIONS void runFew(const Program& p, double* arena, BlockReport& report) {
  runTape<4>(p, arena, report);
}
ZL_VECTOR_VERSIONS void runNarrow(const Program& p, double* arena, BlockReport& report) {
  runTape<8>(p, arena, report);
}
ZL_VECTOR_VERSIONS void runWide(const Program& p, double* arena, BlockReport& report) {
  runTape<32>(p, arena, report);
}

template <int W>
void runBlock(const Program& p, const LaneInputs& inputs, int firstLane, std::span<const std::uint32_t> outputs,
              std::vector<double>& arena, LaneResults& results, std::atomic<int>& rounds) {
  const int count = std::min(W, inputs.lanes() - firstLane);
  const auto at = [&](std::uint32_t slot) { return arena.data() + static_cast<size_t>(slot) * W; };
  for (size_t i = 0; i < p.inputs.size(); ++i) {
    double* slot = at(p.inputs[i].slot);
    if (!inputs.varies(i)) {
      std::fill_n(slot, W, inputs.at(i, 0));
      continue;
    }
    // Lanes past the last repeat it, so that they cost no extra rounds.
    const double* from = inputs.lanesOf(i).data() + firstLane;
    std::copy_n(from, count, slot);
    std::fill(slot + count, slot + W, from[count - 1]);
  }
  BlockReport report;
  std::fill_n(report.unsettled, W, -1);
  if constexpr (W == 1) {
    runOne(p, arena.data(), report);
  } else if constexpr (W == 4) {
    runFew(p, arena.data(), report);
  } else if constexpr (W == 8) {
    runNarrow(p, arena.data(), report);
  } else {
    runWide(p, arena.data(), report);
  }
  for (size_t o = 0; o < outputs.size(); ++o) {
    std::copy_n(at(outputs[o]), count, results.figures.data() + o * static_cast<size_t>(results.lanes) + firstLane);
  }
  std::copy_n(report.unsettled, count, results.unsettled.data() + firstLane);
  int seen = rounds.load();
  while (report.rounds > seen && !rounds.compare_exchange_weak(seen, report.rounds)) {
  }
}

// The library that shares blocks out among threads is not compiled with the thread sanitizer, which does not see that a
// thread begins after its block was made and that all end before the results are read. These say so; elsewhere they are
// nothing.
#if defined(__SANITIZE_THREAD__)
void handOver(void* at) {
  __tsan_release(at);
}
void takeOver(void* at) {
  __tsan_acquire(at);
}
#else
void handOver(void* /*at*/) {}
void takeOver(void* /*at*/) {}
#endif

template <int W>
void runAll(const Program& p, const LaneInputs& inputs, std::span<const std::uint32_t> outputs, LaneResults& results) {
  std::atomic<int> rounds{0};
  const int blocks = (inputs.lanes() + W - 1) / W;
  const auto work = [&](int begin, int end) {
    std::vector<double> arena(static_cast<size_t>(p.slots) * W, kNaN);
    for (size_t k = 0; k < p.constants.size(); ++k) {
      std::fill_n(arena.data() + (p.firstConstant + k) * W, W, p.constants[k]);
    }
    for (int b = begin; b < end; ++b) runBlock<W>(p, inputs, b * W, outputs, arena, results, rounds);
  };
  if (blocks == 1) {
    work(0, blocks);
  } else {
    // A few blocks are shared out one by one; of many each worker takes several, for it fills a memory of its own
    // first.
    const int grain = blocks <= 8 ? 1 : 8;
    handOver(&results);
    tbb::parallel_for(tbb::blocked_range<int>(0, blocks, grain), [&](const tbb::blocked_range<int>& r) {
      takeOver(&results);
      work(r.begin(), r.end());
      handOver(&rounds);
    });
    takeOver(&rounds);
  }
  results.rounds = rounds.load();
}

}  // namespace

LaneInputs::LaneInputs(const Program& program, int lanes)
    : lanes_(lanes), uniform_(program.inputs.size(), kNaN), varying_(program.inputs.size()) {}

void LaneInputs::set(size_t input, int lane, double figure) {
  std::vector<double>& column = varying_[input];
  if (column.empty()) column.assign(static_cast<size_t>(lanes_), uniform_[input]);
  column[static_cast<size_t>(lane)] = figure;
}

double LaneInputs::at(size_t input, int lane) const {
  return varying_[input].empty() ? uniform_[input] : varying_[input][static_cast<size_t>(lane)];
}

LaneResults evaluate(const Program& program, const LaneInputs& inputs, std::span<const std::uint32_t> outputs) {
  LaneResults results;
  results.lanes = inputs.lanes();
  const auto lanes = static_cast<size_t>(inputs.lanes());
  results.figures.assign(outputs.size() * lanes, kNaN);
  results.unsettled.assign(lanes, -1);
  // A block holds no more than is asked for: each lane of it costs its powers and its share of the memory.
  if (inputs.lanes() == 1) {
    runAll<1>(program, inputs, outputs, results);
  } else if (inputs.lanes() <= 4) {
    runAll<4>(program, inputs, outputs, results);
  } else if (inputs.lanes() <= 8) {
    runAll<8>(program, inputs, outputs, results);
  } else {
    runAll<32>(program, inputs, outputs, results);
  }
  return results;
}

}  // namespace zl::model
