#pragma once
// The kits with every role, view and method taken out of their texts: models that mean nothing to the program.

#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <sstream>

#include "services/kits/resources.h"

namespace zl::test {

inline std::shared_ptr<const services::Resources> kitsWithoutMeaning(const std::string& folder) {
  namespace fs = std::filesystem;
  fs::create_directories(folder);
  fs::copy(fs::path((*services::Resources::load())->folder) / "kits", fs::path(folder) / "kits",
           fs::copy_options::recursive);
  for (const char* kit : {"standard", "quick"}) {
    const std::string path = folder + "/kits/" + kit + "/model";
    std::istringstream text(*services::readFile(path));
    std::string line, kept;
    bool dropping = false;
    while (std::getline(text, line)) {
      const bool declares = !line.empty() && line[0] >= 'a' && line[0] <= 'z';
      if (declares) dropping = line.starts_with("means ") || line.starts_with("view ") || line.starts_with("method ");
      if (!dropping) kept += line + "\n";
    }
    std::ofstream(path) << kept;
  }
  const auto resources = services::Resources::loadFrom(folder);
  EXPECT_TRUE(resources) << (resources ? "" : resources.error().text());
  return resources ? *resources : nullptr;
}

}  // namespace zl::test
