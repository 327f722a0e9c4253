#pragma once
// Filed facts that a row reads by itself: a concept that stands on no standard line, or one member
// of an axis (machines, tonnes shipped, a region).

#include <span>
#include <string>
#include <vector>

#include "core/filing/company.h"
#include "core/filing/mapping.h"
#include "core/model/syntax.h"

namespace zl {

/// How a fact's figure is shown, by its unit: money, shares, a figure per share, else a plain number.
Kind kindOfUnit(const std::string& unit);

/// What the facts say by fiscal year; where several documents report one figure the last filed one
/// counts. `kind` says which units fit: money of `currency`, shares, a figure per share, a pure
/// number; a count takes any unit that is no currency (hours, tonnes). Missing where nothing fits.
std::vector<LineCell> factLine(std::span<const Fact> facts, const std::vector<FiscalYear>& years,
                               const model::FactSource& source, Kind kind, const std::string& currency);

/// An operating figure of the company record by fiscal year, in its own unit.
std::vector<LineCell> recordedLine(const Company& company, const std::vector<FiscalYear>& years,
                                   const std::string& name);

}  // namespace zl
