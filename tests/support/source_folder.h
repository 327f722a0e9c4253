#pragma once
// Where the project's files are, known to one file of each test program: the others compile to the same
// in any folder.

#include <string>

namespace zl::test {

std::string sourceFolder();

}  // namespace zl::test
