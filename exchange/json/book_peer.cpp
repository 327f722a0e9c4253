#include "exchange/json/book_peer.h"

#include "exchange/json/case_members.h"

namespace zl::exchange {
namespace {

constexpr const char* kBookPeerFormat = "zealous-ledger-book-peer";

}  // namespace

std::string bookPeerText(const BookPeer& peer) {
  Json json{{"format", kBookPeerFormat},
            {"version", peer.set.empty() ? 1 : 2},  // 1 knew no sets
            {"company", peer.company},
            {"in", peer.in},
            {"said", toJson(peer.said)}};
  if (!peer.set.empty()) json["set"] = peer.set;
  return textOf(json, 1);
}

Result<BookPeer> bookPeerFrom(const std::string& text, const std::string& source) {
  const Result<Json> json = parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  try {
    ObjectReader r(*json, source);
    if (r.text("format") != kBookPeerFormat) r.fault("this names no peer of the book");
    if (const int version = r.whole("version"); version < 1 || version > 2)
      r.fault("a peer of the book has version " + std::to_string(version) + "; this program reads 1 and 2");
    BookPeer peer;
    peer.company = r.text("company");
    peer.set = r.optionalText("set");
    peer.in = r.truth("in");
    peer.said = provenanceOf(r);
    r.finish();
    return peer;
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
