#include "exchange/workbook/archive.h"

#include <zip.h>

#include <vector>

namespace zl::exchange {
namespace {

constexpr zip_int64_t kMostEntries = 10000;
constexpr std::size_t kLargestEntry = std::size_t{256} << 20;
constexpr std::size_t kLargestTotal = std::size_t{512} << 20;
constexpr std::size_t kBombFrom = std::size_t{1} << 20;
constexpr std::size_t kBombRatio = 1000;

}  // namespace

struct Archive::Impl {
  zip_t* zip = nullptr;
  std::string source;
  std::size_t total = 0;

  Impl() = default;
  Impl(const Impl&) = delete;
  Impl& operator=(const Impl&) = delete;
  ~Impl() {
    if (zip != nullptr) zip_discard(zip);
  }

  [[nodiscard]] tl::unexpected<Error> bad(const std::string& what, const std::string& entry) const {
    return fail(ErrorKind::BadInput, what, source + (entry.empty() ? "" : ", part '" + entry.substr(0, 120) + "'"),
                "Save it again, or give what is in it by itself");
  }
};

Archive::Archive(std::unique_ptr<Impl> impl) : impl_(std::move(impl)) {}
Archive::Archive(Archive&&) noexcept = default;
Archive& Archive::operator=(Archive&&) noexcept = default;
Archive::~Archive() = default;

Result<Archive> Archive::open(std::string_view content, const std::string& source) {
  auto impl = std::make_unique<Impl>();
  impl->source = source;
  zip_error_t error;
  zip_error_init(&error);
  zip_source_t* buffer = zip_source_buffer_create(content.data(), content.size(), 0, &error);
  if (buffer != nullptr) {
    impl->zip = zip_open_from_source(buffer, ZIP_RDONLY, &error);
    if (impl->zip == nullptr) zip_source_free(buffer);
  }
  if (impl->zip == nullptr) {
    const std::string why = zip_error_strerror(&error);
    zip_error_fini(&error);
    return impl->bad("the archive is broken: " + why, "");
  }
  zip_error_fini(&error);
  if (zip_get_num_entries(impl->zip, 0) > kMostEntries)
    return impl->bad("the archive has more than 10,000 entries", "");
  return Archive(std::move(impl));
}

bool Archive::has(const std::string& entry) const {
  return zip_name_locate(impl_->zip, entry.c_str(), 0) >= 0;
}

std::vector<std::string> Archive::names() const {
  std::vector<std::string> names;
  for (zip_int64_t i = 0; i < zip_get_num_entries(impl_->zip, 0); ++i) {
    const char* name = zip_get_name(impl_->zip, static_cast<zip_uint64_t>(i), 0);
    if (name != nullptr && *name != 0 && std::string_view(name).back() != '/') names.emplace_back(name);
  }
  return names;
}

Result<std::string> Archive::read(const std::string& entry) {
  zip_stat_t about;
  if (zip_stat(impl_->zip, entry.c_str(), 0, &about) != 0) return impl_->bad("the part is missing", entry);
  const auto file =
      std::unique_ptr<zip_file_t, int (*)(zip_file_t*)>(zip_fopen(impl_->zip, entry.c_str(), 0), zip_fclose);
  if (!file) return impl_->bad(std::string("the part cannot be read: ") + zip_strerror(impl_->zip), entry);
  std::string text;
  std::vector<char> block(std::size_t{1} << 16);
  while (true) {
    const zip_int64_t read = zip_fread(file.get(), block.data(), block.size());
    if (read < 0) return impl_->bad("the part is damaged", entry);
    if (read == 0) break;
    text.append(block.data(), static_cast<std::size_t>(read));
    impl_->total += static_cast<std::size_t>(read);
    const bool bomb = text.size() > kBombFrom && text.size() / kBombRatio > about.comp_size;
    if (text.size() > kLargestEntry || impl_->total > kLargestTotal || bomb) {
      return fail(ErrorKind::TooLarge, "the part unpacks to more than is read (256 MiB, or 1,000 times its size)",
                  impl_->source + ", part '" + entry.substr(0, 120) + "'", "Split it");
    }
  }
  return text;
}

std::string resolvePart(const std::string& folder, const std::string& target) {
  std::vector<std::string> steps;
  const std::string path = !target.empty() && target[0] == '/' ? target.substr(1) : folder + "/" + target;
  std::size_t at = 0;
  while (at <= path.size()) {
    const std::size_t slash = std::min(path.find('/', at), path.size());
    const std::string step = path.substr(at, slash - at);
    at = slash + 1;
    if (step.empty() || step == ".") continue;
    if (step == "..") {
      if (steps.empty()) return {};
      steps.pop_back();
    } else {
      steps.push_back(step);
    }
  }
  std::string joined;
  for (const std::string& step : steps) joined += (joined.empty() ? "" : "/") + step;
  return joined;
}

}  // namespace zl::exchange
