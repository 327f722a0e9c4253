#include <iostream>

#include "cli/run.h"

int main(int argc, char** argv) {
  return zl::cli::run({argv + 1, argv + argc}, std::cout, std::cerr, zl::services::Desk::ofThisMachine());
}
