#include "app/pages/peer_sets_bar.h"

#include <QHBoxLayout>
#include <QMenu>
#include <algorithm>

#include "app/look/plain_text.h"
#include "app/look/theme.h"
#include "services/edits/peer_edits.h"
#include "services/library/companions.h"

namespace zl::app {
namespace {

constexpr char kAnothers[] = "/";  // no set is called so

}  // namespace

PeerSetsBar::PeerSetsBar(Workbench& bench, QWidget* parent) : QWidget(parent), bench_(bench) {
  auto* sets = new QHBoxLayout(this);
  sets->setContentsMargins(8, 0, 8, 0);
  const auto labelled = [&](const QString& words, QWidget* field, int stretch) {
    auto* label = new PlainLabel(words, this);
    label->setBuddy(field);
    sets->addWidget(label);
    sets->addWidget(field, stretch);
  };
  set_ = new QComboBox(this);
  set_->setObjectName(QStringLiteral("peerSet"));
  set_->setAccessibleName(tr("Peers that count"));
  labelled(tr("Peers that &count"), set_, 0);
  setName_ = new QLineEdit(this);
  setName_->setObjectName(QStringLiteral("peerSetName"));
  setName_->setPlaceholderText(tr("A name keeps those with a ● as a set"));
  setName_->setAccessibleName(tr("Name of a new set"));
  labelled(tr("&Keep as"), setName_, 1);
  ofBook_ = new QComboBox(this);
  ofBook_->setObjectName(QStringLiteral("peerOfBook"));
  ofBook_->setAccessibleName(tr("Companies of this book as peers"));
  labelled(tr("Of this &book"), ofBook_, 0);
  // A long name in a list takes no room from the page.
  constexpr int kShownOfName = 14;
  for (QComboBox* list : {set_, ofBook_}) {
    list->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    list->setMinimumContentsLength(kShownOfName);
  }
  connect(set_, &QComboBox::activated, this, &PeerSetsBar::chooseSet);
  connect(setName_, &QLineEdit::returnPressed, this, &PeerSetsBar::keepSet);
  connect(ofBook_, &QComboBox::activated, this, &PeerSetsBar::chooseFromBook);
}

void PeerSetsBar::refresh(std::vector<Multiple> shown) {
  shown_ = std::move(shown);
  const services::Snapshot& s = bench_.now();
  const Case& c = s.caseOf();
  set_->clear();
  set_->addItem(tr("all candidates"), QString());
  for (const auto& [name, members] : c.peerSets)
    set_->addItem(tr("%1 (%2)").arg(text(name)).arg(members.size()), text(name));
  for (const auto& [name, members] : s.market->bookSets)
    set_->addItem(tr("%1 (%2)").arg(text(name)).arg(members.size()), text(name));
  if (!c.peerSet.empty() && set_->findData(text(c.peerSet)) < 0)
    set_->addItem(tr("%1 (not there any more)").arg(text(c.peerSet)), text(c.peerSet));
  set_->setCurrentIndex(std::max(0, set_->findData(text(c.peerSet))));
  if (bench_.companies().size() > 1) set_->addItem(tr("of another company…"), QLatin1String(kAnothers));
  ofBook_->clear();
  ofBook_->addItem(tr("take in or out…"), QString());
  const std::map<std::string, bool>& peers = s.evidence->bookPeers;
  for (const services::CompanyEntry& company : bench_.companies()) {
    if (company.id == s.company().id) continue;
    const auto found = peers.find(company.id);
    const bool in = found != peers.end() && found->second;
    ofBook_->addItem((in ? QStringLiteral("● ") : QStringLiteral("○ ")) + text(company.name), text(company.id));
  }
  ofBook_->setEnabled(ofBook_->count() > 1);
}

void PeerSetsBar::chooseSet(int index) {
  if (set_->itemData(index).toString() == QLatin1String(kAnothers)) return offerOthers();
  bench_.apply(services::usePeerSet(bench_.settled().caseOf(), set_->itemData(index).toString().toStdString()));
}

/// Sets of the other companies of the book: one that is taken is shared from then on, and counts.
void PeerSetsBar::offerOthers() {
  set_->setCurrentIndex(std::max(0, set_->findData(text(bench_.settled().caseOf().peerSet))));
  const auto sets = bench_.setsOfOthers();
  if (sets.empty()) return bench_.say(tr("No other company of this book has a set of peers"), true);
  auto* menu = new QMenu(this);
  menu->setObjectName(QStringLiteral("peerSetsOfOthers"));
  menu->setAttribute(Qt::WA_DeleteOnClose);
  for (const auto& [company, set] : sets) {
    const std::string name = services::bookSetName(company, set);
    const bool shared = bench_.settled().market->bookSets.count(name) > 0;
    QAction* takes = menu->addAction(shared ? tr("leave %1").arg(text(name)) : tr("take %1").arg(text(name)));
    connect(takes, &QAction::triggered, this, [this, company = company, set = set, name, shared] {
      if (shared && bench_.settled().caseOf().peerSet == name &&
          !bench_.apply(services::usePeerSet(bench_.settled().caseOf(), "")))
        return;
      if (!bench_.shareSet(company, set, !shared, reason_)) return;
      Q_EMIT reasonUsed();
      if (!shared) bench_.apply(services::usePeerSet(bench_.settled().caseOf(), name));
    });
  }
  menu->popup(set_->mapToGlobal(QPoint(0, set_->height())));
}

/// Those that count for any multiple that is shown.
void PeerSetsBar::keepSet() {
  const QString name = setName_->text().trimmed();
  if (name.isEmpty()) return bench_.say(tr("A set has a name"), true);
  if (name.contains(QLatin1Char(kOfAnother))) return bench_.say(tr("The name of a set has no '/'"), true);
  std::set<std::string> members;
  for (const PeerRow& peer : bench_.settled().crossCheck.rows) {
    const bool counts = std::any_of(shown_.begin(), shown_.end(), [&](Multiple m) { return peer.cells.at(m).in; });
    if (counts) members.insert(peer.id);
  }
  if (members.empty()) return bench_.say(tr("No peer counts: a set of none is none"), true);
  if (bench_.apply(services::setPeerSet(bench_.settled().caseOf(), name.toStdString(), members))) setName_->clear();
}

void PeerSetsBar::chooseFromBook(int index) {
  const QString id = ofBook_->itemData(index).toString();
  if (id.isEmpty()) return;
  const std::map<std::string, bool>& peers = bench_.settled().evidence->bookPeers;
  const auto found = peers.find(id.toStdString());
  if (bench_.peerOfBook(id, found == peers.end() || !found->second, reason_)) Q_EMIT reasonUsed();
}

}  // namespace zl::app
