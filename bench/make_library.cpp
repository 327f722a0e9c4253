// make-library BOOK COUNT: a book of many companies to look at.

#include <cstdio>
#include <cstdlib>

#include "bench/many_companies.h"

int main(int count, char** words) {
  if (count != 3) {
    std::fputs("make-library BOOK COUNT\n", stderr);
    return 2;
  }
  const zl::Status made = zl::bench::makeLibrary(words[1], std::atoi(words[2]));
  if (!made) std::fprintf(stderr, "%s\n", made.error().text().c_str());
  return made ? 0 : 1;
}
