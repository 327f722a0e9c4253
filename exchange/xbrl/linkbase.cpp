#include "exchange/xbrl/linkbase.h"

#include <map>

#include "exchange/xml/document.h"

namespace zl::exchange {
namespace {

using xml::attributeNamed;
using xml::localName;

/// "acme-2024.xsd#acme_OtherGains" to "acme:OtherGains"; empty where the id has another form.
std::string conceptOf(std::string_view href) {
  const std::size_t hash = href.find('#');
  if (hash == std::string_view::npos) return {};
  const std::string_view id = href.substr(hash + 1);
  const std::size_t underscore = id.find('_');
  if (underscore == std::string_view::npos || underscore == 0 || underscore + 1 == id.size()) return {};
  return std::string(id.substr(0, underscore)) + ":" + std::string(id.substr(underscore + 1));
}

constexpr size_t kMostLinks = 500'000;

/// What all links of a file may cost together.
class Budget {
 public:
  Budget(const StopCheck& stopped, const std::string& name) : pace_(stopped, name), name_(name) {}
  void step() { pace_.step(); }
  void spend() {
    pace_.step();
    if (++spent_ <= kMostLinks) return;
    throw xml::Stop{Error{ErrorKind::TooLarge, "the linkbase holds more than 500,000 arcs and labels", name_,
                          "Give the linkbases of this filing alone"}};
  }

 private:
  xml::Pace pace_;
  std::string name_;
  size_t spent_ = 0;
};

class LinkReader {
 public:
  LinkReader(pugi::xml_node link, Budget& budget) : link_(link), budget_(budget) {
    for (pugi::xml_node node : link.children()) {
      budget.step();
      const std::string label(attributeNamed(node, "label"));
      if (localName(node.name()) == "loc") concepts_.emplace(label, conceptOf(attributeNamed(node, "href")));
      if (localName(node.name()) == "label") texts_.emplace(label, node);
    }
  }

  void readArcs(const char* arcName, bool calculation, ConceptNetwork& network) const {
    for (pugi::xml_node arc : link_.children()) {
      if (localName(arc.name()) != arcName || std::string_view(arc.attribute("use").value()) == "prohibited") continue;
      const auto parents = concepts_.equal_range(std::string(attributeNamed(arc, "from")));
      const auto children = concepts_.equal_range(std::string(attributeNamed(arc, "to")));
      for (auto p = parents.first; p != parents.second; ++p) {
        for (auto c = children.first; c != children.second; ++c) {
          budget_.spend();
          if (p->second.empty() || c->second.empty()) continue;
          network.arcs.push_back(
              {p->second, c->second, arc.attribute("weight").as_double(1) < 0 ? -1 : 1, calculation});
        }
      }
    }
  }

  void readAnchors(ConceptNetwork& network) const {
    constexpr std::string_view kWiderNarrower = "/wider-narrower";
    for (pugi::xml_node arc : link_.children()) {
      const std::string_view role = attributeNamed(arc, "arcrole");
      if (localName(arc.name()) != "definitionArc" || !role.ends_with(kWiderNarrower) ||
          std::string_view(arc.attribute("use").value()) == "prohibited") {
        continue;
      }
      const auto wider = concepts_.equal_range(std::string(attributeNamed(arc, "from")));
      const auto narrower = concepts_.equal_range(std::string(attributeNamed(arc, "to")));
      for (auto w = wider.first; w != wider.second; ++w) {
        for (auto n = narrower.first; n != narrower.second; ++n) {
          budget_.spend();
          if (!w->second.empty() && !n->second.empty()) network.anchors.emplace(n->second, w->second);
        }
      }
    }
  }

  void readLabels(ConceptNetwork& network) const {
    for (pugi::xml_node arc : link_.children()) {
      if (localName(arc.name()) != "labelArc") continue;
      const auto concepts = concepts_.equal_range(std::string(attributeNamed(arc, "from")));
      const auto texts = texts_.equal_range(std::string(attributeNamed(arc, "to")));
      for (auto c = concepts.first; c != concepts.second; ++c) {
        for (auto t = texts.first; t != texts.second; ++t) {
          budget_.spend();
          const std::string_view role = attributeNamed(t->second, "role");
          if (!role.empty() && role.substr(role.rfind('/') + 1) != "label") continue;
          const bool english = attributeNamed(t->second, "lang").substr(0, 2) == "en";
          std::string pieces;
          std::string& kept = network.labels[c->second];
          if (kept.empty() || english) kept = std::string(xml::trimmed(xml::textOf(t->second, pieces)));
        }
      }
    }
  }

 private:
  pugi::xml_node link_;
  Budget& budget_;
  std::multimap<std::string, std::string> concepts_;  ///< label of a locator -> concept
  std::multimap<std::string, pugi::xml_node> texts_;
};

}  // namespace

Result<ConceptNetwork> readLinkbase(std::string_view content, const std::string& name, const StopCheck& stopped) {
  const Result<std::unique_ptr<xml::Document>> document = xml::parse(content, name, xml::Doctype::Refused);
  if (!document) return tl::unexpected(document.error());
  const pugi::xml_node root = (*document)->tree.document_element();
  if (localName(root.name()) != "linkbase") {
    return fail(ErrorKind::WrongKind,
                "the outermost element is <" + std::string(root.name()).substr(0, 60) + ">, not a linkbase", name);
  }
  ConceptNetwork network;
  try {
    Budget budget(stopped, name);
    for (pugi::xml_node link : root.children()) {
      const std::string_view local = localName(link.name());
      if (local == "calculationLink") LinkReader(link, budget).readArcs("calculationArc", true, network);
      if (local == "presentationLink") LinkReader(link, budget).readArcs("presentationArc", false, network);
      if (local == "definitionLink") LinkReader(link, budget).readAnchors(network);
      if (local == "labelLink") LinkReader(link, budget).readLabels(network);
    }
  } catch (const xml::Stop& failure) {
    return tl::unexpected(failure.error);
  }
  if (network.empty()) {
    return fail(ErrorKind::BadInput, "the linkbase holds no calculation, presentation, labels or anchors", name);
  }
  return network;
}

}  // namespace zl::exchange
