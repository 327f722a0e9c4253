// One program per reader: -DREADER="Xbrl" picks it from tests/support/readers.h. Content of any
// kind must be read or refused with a message a person can read; anything else stops the program.

#include <cstdint>
#include <cstdlib>
#include <string>

#include "tests/support/readers.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, size_t size) {
  static const zl::test::NamedReader* const reader = [] {
    for (const zl::test::NamedReader& r : zl::test::readers()) {
      if (std::string(r.name) == READER) return &r;
    }
    std::abort();
  }();
  zl::Error error;
  const std::string content(reinterpret_cast<const char*>(data), size);
  if (reader->read(content, error) == nullptr) return 0;
  if (error.what.empty() || error.kind == zl::ErrorKind::Internal || error.text().size() > 1000) std::abort();
  return 0;
}
