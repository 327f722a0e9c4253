#include "tests/support/source_folder.h"

namespace zl::test {

std::string sourceFolder() {
  return ZEALOUS_SOURCE;
}

}  // namespace zl::test
