#pragma once
// What a Book holds. Used inside this folder only.

#include "store/book.h"
#include "store/columns.h"
#include "store/database.h"

namespace zl::store {

struct Book::Impl {
  Database db;
  std::string readOnly;
  std::vector<std::string> notices;
  std::string day;  ///< of the copy that is due before the next change; empty: none

  Impl(const std::string& path, Access access) : db(path, access) {}

  /// Runs `work` on the connection; its failures, and texts that are none, become values.
  template <class F>
  auto run(F work) -> decltype(work(db.raw())) {
    return guarded(db, [&]() -> decltype(work(db.raw())) {
      try {
        return work(db.raw());
      } catch (const NotText& text) {
        return fail(ErrorKind::BadInput, "'" + text.what + "' holds bytes that no text has", db.path(),
                    "Save it as UTF-8, or type it anew");
      }
    });
  }

  std::int64_t head(const std::string& company);
  void makeDueCopy();
};

struct Book::Moment::Inside {
  explicit Inside(std::shared_ptr<Impl> of) : impl(std::move(of)), reading(impl->db, Database::Kind::Read) {}
  std::shared_ptr<Impl> impl;
  Transaction reading;
};

struct Book::Change::Inside {
  explicit Inside(std::shared_ptr<Impl> of) : impl(std::move(of)), writing(impl->db, Database::Kind::Write) {}
  std::shared_ptr<Impl> impl;
  Transaction writing;
};

}  // namespace zl::store
