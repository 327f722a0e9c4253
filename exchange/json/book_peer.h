#pragma once
// That a company of the same book is a peer, or a set of its peers is shared, or neither any more, as a document of its
// own: it comes and goes with its edit, and the newest of a company or set stands.

#include <string>

#include "core/outlook/case.h"
#include "core/quantity/error.h"

namespace zl::exchange {

struct BookPeer {
  std::string company;  ///< id in the same book
  std::string set;      ///< of that company's peers; empty: the company itself is the peer
  bool in = true;
  Provenance said;
  friend bool operator==(const BookPeer&, const BookPeer&) = default;
};

std::string bookPeerText(const BookPeer& peer);
Result<BookPeer> bookPeerFrom(const std::string& text, const std::string& source);

}  // namespace zl::exchange
