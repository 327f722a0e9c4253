#include "exchange/json/book_peer.h"

#include "exchange/json/case_members.h"

namespace zl::exchange {
namespace {

constexpr const char* kBookPeerFormat = "zealous-ledger-book-peer";

}  // namespace

std::string bookPeerText(const BookPeer& peer) {
  return textOf(
      Json{
          {"format", kBookPeerFormat}, {"version", 1}, {"company", peer.company}, {"in", peer.in}, {"said", toJson(peer.said)}},
      1);
}

Result<BookPeer> bookPeerFrom(const std::string& text, const std::string& source) {
  const Result<Json> json = parseJson(text, source);
  if (!json) return tl::unexpected(json.error());
  try {
    ObjectReader r(*json, source);
    if (r.text("format") != kBookPeerFormat || r.whole("version") != 1) r.fault("this names no peer of the book");
    BookPeer peer;
    peer.company = r.text("company");
    peer.in = r.truth("in");
    peer.said = provenanceOf(r);
    r.finish();
    return peer;
  } catch (const JsonFault& fault) {
    return tl::unexpected(fault.error);
  }
}

}  // namespace zl::exchange
