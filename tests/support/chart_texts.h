#pragma once
// Texts within the charts of a window: what lies over another or is cut, by the device that records what is drawn.

#include <set>
#include <string>

class QWidget;

namespace zl::app {

/// A chart or the rail: texts in it are drawn, not laid out.
bool isDrawn(const QWidget* w);
/// Looks at every chart in sight and adds what is wrong, with `where`; how many texts there were. Texts
/// that end in an ellipsis are faults only if `whole`. With a stretch each text is taken to be as many times as wide.
int chartFaults(const QWidget& window, const std::string& where, std::set<std::string>& faults, bool whole,
                double stretch = 1);

}  // namespace zl::app
