#pragma once
// A folder of a name that no other program has, and that goes away with everything in it. Process
// numbers are no names: they come back, and programs in different containers have the same ones.

#include <cstdlib>
#include <filesystem>
#include <string>
#include <system_error>

namespace zl::test {

class TemporaryFolder {
 public:
  TemporaryFolder() {
    std::string name = (std::filesystem::temp_directory_path() / "zledger-test-XXXXXX").string();
    if (mkdtemp(name.data()) == nullptr) throw std::system_error(errno, std::generic_category(), name);
    path_ = name;
  }
  ~TemporaryFolder() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
  }
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;

  [[nodiscard]] const std::filesystem::path& path() const { return path_; }
  [[nodiscard]] std::string file(const std::string& name) const { return (path_ / name).string(); }
  /// Everything in it goes, the folder stays.
  void clear() const {
    for (const auto& entry : std::filesystem::directory_iterator(path_)) std::filesystem::remove_all(entry);
  }

 private:
  std::filesystem::path path_;
};

}  // namespace zl::test
