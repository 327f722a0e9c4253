#pragma once
// What the standard kit says of filed rows: labels, ties as a tree of lines, parts.

#include <fstream>
#include <iterator>
#include <string>

#include "core/structure/placing.h"
#include "tests/support/source_folder.h"

namespace zl::test {

struct KitTexts {
  static std::string text(const char* name) {
    std::ifstream in(sourceFolder() + "/kits/standard/" + name);
    return std::string(std::istreambuf_iterator<char>(in), {});
  }
  LabelRules labels = *LabelRules::parse(text("labels"), "labels");
  LineTree lines{*parseTies(text("ties"), "ties")};
  PartRules parts = *PartRules::parse(text("parts"), "parts");
};

}  // namespace zl::test
