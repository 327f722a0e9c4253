#include "services/kits/resources.h"

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <set>
#include <sstream>

#include "core/model/parser.h"
#include "core/peers/measures.h"
#include "core/peers/peer.h"
#include "core/text/utf8.h"
#include "exchange/content.h"
#include "store/place.h"
#include "store/whole_file.h"

namespace zl::services {

namespace fs = std::filesystem;

Result<std::string> readFile(const std::string& path) {
  std::error_code error;
  const fs::file_status status = fs::status(path, error);
  if (!fs::exists(status)) return fail(ErrorKind::NotFound, "there is no such file", path);
  if (!fs::is_regular_file(status)) return fail(ErrorKind::WrongKind, "this is not a file", path);
  if (store::isOpenHere(path)) {
    return fail(ErrorKind::WrongKind, "this is the book that is open", path, "Choose a filing or a table");
  }
  const auto size = fs::file_size(path, error);
  if (!error && size > exchange::kLargestFile) {
    return fail(ErrorKind::TooLarge, "the file is larger than 1 GiB", path, "Split it");
  }
  std::ifstream in(path, std::ios::binary);
  std::string content(error ? 0 : static_cast<std::size_t>(size), '\0');
  if (!in || !in.read(content.data(), static_cast<std::streamsize>(content.size()))) {
    return fail(ErrorKind::Storage, "the file cannot be read", path, "Check your rights to it");
  }
  return content;
}

Status writeFile(const std::string& path, const std::string& content) {
  return store::writeWhole(path, content);
}

std::string fileName(const std::string& path) {
  return asUtf8(fs::path(path).filename().string());
}

Result<std::vector<std::string>> filesOf(const std::vector<std::string>& paths) {
  constexpr size_t kMost = 10000;
  std::vector<std::string> files;
  for (const std::string& path : paths) {
    std::error_code error;
    if (!fs::is_directory(path, error)) {
      files.push_back(path);  // reading it says what is wrong with it
      continue;
    }
    std::vector<std::string> below;
    fs::recursive_directory_iterator at(path, error);
    for (; !error && at != fs::recursive_directory_iterator(); at.increment(error)) {
      const bool hidden = at->path().filename().string().front() == '.';
      std::error_code ignored;
      if (hidden && at->is_directory(ignored)) at.disable_recursion_pending();
      if (!hidden && at->is_regular_file(ignored)) below.push_back(at->path().string());
      if (below.size() > kMost)
        return fail(ErrorKind::TooLarge, "the folder holds more than 10,000 files", path, "Name a smaller one");
    }
    if (error) return fail(ErrorKind::Storage, "the folder cannot be read: " + error.message(), path);
    if (below.empty()) return fail(ErrorKind::NotFound, "the folder holds no files", path);
    std::sort(below.begin(), below.end());
    files.insert(files.end(), below.begin(), below.end());
  }
  return files;
}

Result<std::shared_ptr<const Resources>> Resources::load() {
  std::vector<std::string> folders;
  if (const char* set = std::getenv("ZEALOUS_LEDGER_DATA")) folders.emplace_back(set);
  folders.emplace_back(ZEALOUS_INSTALLED_DATA);
  folders.emplace_back(ZEALOUS_SOURCE_DATA);
  for (const std::string& folder : folders) {
    std::error_code ignored;  // a folder that cannot be looked into is passed over like one that is not there
    if (fs::exists(fs::path(folder) / "kits/standard/model", ignored)) return loadFrom(folder);
  }
  return fail(ErrorKind::NotFound, "the product's models and rules are missing", folders.front(),
              "Set ZEALOUS_LEDGER_DATA to the folder that holds kits/");
}

namespace {

std::vector<model::ModelText> textsOf(const ShippedModel& m) {
  std::vector<model::ModelText> texts;
  for (const auto& [source, text] : m.texts) texts.push_back({source, text});
  return texts;
}

/// What ships, and what it reads as.
struct ReadModel {
  ShippedModel shipped;
  model::Model model;
};

/// The models of the kits: the full one, and those that extend it by a text of their own. One of these
/// with a fault rests, and `resting` says why.
Result<std::vector<ReadModel>> shippedModels(const std::string& folder, std::vector<Error>& resting) {
  constexpr const char* kFull = "kits/standard/model";
  const Result<std::string> full = readFile((fs::path(folder) / kFull).string());
  if (!full) return tl::unexpected(full.error());
  std::vector<ReadModel> models{{{"", "", {{kFull, *full}}, {}, {}}, {}}};
  std::set<std::string> others;
  std::error_code error;
  fs::directory_iterator at(fs::path(folder) / "kits", error);
  for (; !error && at != fs::directory_iterator(); at.increment(error)) {
    const std::string name = "kits/" + at->path().filename().string() + "/model";
    std::error_code ignored;  // what cannot be looked at is told of when it is read
    if (name != kFull && fs::exists(at->path() / "model", ignored)) others.insert(name);
  }
  if (error) {
    return fail(ErrorKind::Storage, "the kits cannot be read: " + error.message(), folder + "/kits",
                "Check your rights to the folder");
  }
  const auto named = [](ReadModel& m) -> Status {
    Result<model::Model> parsed = model::parseModel(textsOf(m.shipped));
    if (!parsed) return tl::unexpected(parsed.error());
    m.shipped.name = parsed->name;
    m.shipped.title = parsed->title;
    m.model = std::move(*parsed);
    return {};
  };
  /// Builds are the full model's, and what a kit has of its own in their place.
  const auto withBuilds = [&](ShippedModel& m, const std::string& modelFile) -> Status {
    if (!models.empty() && &m != &models.front().shipped) m.builds = models.front().shipped.builds;
    const std::string file = modelFile.substr(0, modelFile.rfind('/')) + "/builds";
    std::error_code none;
    if (!fs::exists(fs::path(folder) / file, none)) return {};
    const Result<std::string> text = readFile((fs::path(folder) / file).string());
    if (!text) return tl::unexpected(text.error());
    const Result<BuildTexts> builds = BuildTexts::parse(*text, file);
    if (!builds) return tl::unexpected(builds.error());
    m.builds.overlay(*builds);
    return {};
  };
  if (Status s = named(models.front()); !s) return tl::unexpected(s.error());
  if (Status s = withBuilds(models.front().shipped, kFull); !s) return tl::unexpected(s.error());
  for (const std::string& name : others) {
    Result<std::string> text = readFile((fs::path(folder) / name).string());
    ReadModel m{{"", "", {{kFull, *full}, {name, text ? std::move(*text) : std::string()}}, {}, {}}, {}};
    Status usable = text ? named(m) : tl::unexpected(text.error());
    const std::string& called = m.shipped.name;
    if (usable &&
        std::any_of(models.begin(), models.end(), [&](const ReadModel& o) { return o.shipped.name == called; }))
      usable = fail(ErrorKind::Conflict, "there is a model '" + called + "' already", name, "Give it another name");
    if (usable) usable = withBuilds(m.shipped, name);
    if (usable) {
      models.push_back(std::move(m));
    } else {
      resting.push_back(usable.error());
    }
  }
  return models;
}

/// A model's proposals: those of its own kit before those of the full one, as far as it has their drivers.
Status readProposals(const std::string& folder, const std::string& kit, ReadModel& read) {
  ShippedModel& m = read.shipped;
  const model::Model& model = read.model;
  const std::string file = kit + "/proposals";
  std::error_code none;
  if (!fs::exists(fs::path(folder) / file, none)) return {};
  const Result<std::string> text = readFile((fs::path(folder) / file).string());
  if (!text) return tl::unexpected(text.error());
  Result<std::vector<ProposalRule>> rules = parseProposalRules(*text, file);
  if (!rules) return tl::unexpected(rules.error());
  if (m.texts.size() > 1 && m.texts.front().first.starts_with(kit)) {  // what the model does not project needs none
    for (ProposalRule& rule : *rules) {
      std::erase_if(rule.rows, [&](const std::string& name) {
        const model::RowId row = model.find(name);
        return row.known() && model[row].declared == model::Declared::Row;
      });
    }
    std::erase_if(*rules, [](const ProposalRule& rule) { return rule.rows.empty(); });
  }
  if (Status s = checkProposalRules(*rules, model); !s) return s;
  m.proposals.insert(m.proposals.begin(), std::make_move_iterator(rules->begin()),
                     std::make_move_iterator(rules->end()));
  return {};
}

/// The user's own table in place of the shipped one, where there is one without a fault.
Result<Placeholders> readPlaceholders(const std::string& folder, std::vector<Error>& resting) {
  const char* config = std::getenv("XDG_CONFIG_HOME");
  const char* home = std::getenv("HOME");
  const fs::path below = config != nullptr ? fs::path(config) : fs::path(home != nullptr ? home : "") / ".config";
  const fs::path own = below / "zealous-ledger" / "placeholders";
  std::error_code none;
  if (fs::exists(own, none)) {
    const Result<std::string> text = readFile(own.string());
    Result<Placeholders> table = text ? Placeholders::parse(*text, own.string()) : tl::unexpected(text.error());
    if (table) return table;
    resting.push_back(table.error());
  }
  constexpr const char* kShipped = "kits/standard/placeholders";
  const Result<std::string> text = readFile((fs::path(folder) / kShipped).string());
  if (!text) return tl::unexpected(text.error());
  return Placeholders::parse(*text, kShipped);
}

/// Whether peers have the measure, or (with a statistic) the statistic of a multiple.
bool isMeasureOfPeers(const model::Model& m, const model::PeerTie& tie) {
  const std::vector<std::string>& measures = peerMeasures();
  if (tie.statistic.empty()) return std::find(measures.begin(), measures.end(), tie.measure) != measures.end();
  const std::vector<Multiple> multiples = declaredMultiples(m);
  return std::any_of(multiples.begin(), multiples.end(),
                     [&](Multiple multiple) { return tie.measure == multipleName(multiple); }) &&
         std::any_of(std::begin(kValuedStatistics), std::end(kValuedStatistics),
                     [&](const char* statistic) { return tie.statistic == statistic; });
}

/// Text of the own lines as rows of the model; `rules` gains what maps concepts on them.
Result<std::string> ownLineRows(const std::vector<OwnLine>& lines, const std::string& revenue, std::string& rules) {
  std::string text = lines.empty() ? "" : "group \"" + std::string(kOwnLines) + "\"\n";
  for (const OwnLine& line : lines) {
    const bool word = line.name.size() > 4 && line.name.starts_with("own_") &&
                      line.name.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789_") == std::string::npos;
    if (!word || line.label.empty() || line.label.find_first_of("\"\n\r#") != std::string::npos) {
      return fail(ErrorKind::BadInput, "'" + line.label + "' cannot be the name of a line", "own lines",
                  "Use letters, digits and spaces");
    }
    text += "row " + line.name + " \"" + line.label + "\" money " + (line.flow ? "flow" : "balance") +
            "\n  history filed\n";
    text += revenue.empty() ? "  forecast " + line.name + "[-1]\n"
                            : "  forecast if(" + revenue + "[-1] > 0, " + line.name + "[-1] / " + revenue + "[-1] * " +
                                  revenue + ", 0)\n";
    rules += "\n" + line.name + "? = " + line.name + "\n";
  }
  return text;
}

}  // namespace

int ownText(const model::Model& m) {
  const auto own = std::find(m.sources.begin(), m.sources.end(), kOwnRows);
  return own == m.sources.end() ? -1 : static_cast<int>(own - m.sources.begin());
}

bool isOwnRow(const model::Model& m, const model::Row& row) {
  const int own = ownText(m);
  return own > 0 && (row.at.text == own || row.amendedBy == own);
}

const BuildTexts& Resources::builds() const {
  static const BuildTexts kNone;
  const auto used =
      std::find_if(models.begin(), models.end(), [&](const ShippedModel& m) { return m.name == model.name; });
  return used == models.end() ? kNone : used->builds;
}

const std::vector<ProposalRule>& Resources::proposals() const {
  static const std::vector<ProposalRule> kNone;
  const auto used =
      std::find_if(models.begin(), models.end(), [&](const ShippedModel& m) { return m.name == model.name; });
  return used == models.end() ? kNone : used->proposals;
}

Result<std::shared_ptr<const Resources>> withOwn(const std::shared_ptr<const Resources>& shipped, const Case& c) {
  const std::string& rows = ownRowsInUse(c);
  if (c.model == shipped->model.name && c.ownLines.empty() && rows.empty()) return shipped;
  const auto ground = std::find_if(shipped->models.begin(), shipped->models.end(),
                                   [&](const ShippedModel& m) { return m.name == c.model; });
  if (ground == shipped->models.end()) {
    std::string names;
    for (const ShippedModel& m : shipped->models) names += (names.empty() ? "There are: " : ", ") + m.name;
    for (const Error& fault : shipped->resting) names += ". Not in use: " + fault.text();
    return fail(ErrorKind::NotFound, "there is no model '" + c.model + "'", c.company, names);
  }
  auto own = std::make_shared<Resources>(*shipped);
  const Result<std::string> lines =
      ownLineRows(c.ownLines, shipped->model.nameOf(model::Role::Revenue), own->rulesText);
  if (!lines) return tl::unexpected(lines.error());
  std::vector<model::ModelText> texts = textsOf(*ground);
  texts.push_back({"own lines", *lines});
  texts.push_back({kOwnRows, rows});
  Result<model::Model> model = model::parseModel(texts);
  if (!model) return tl::unexpected(model.error());
  own->model = std::move(*model);
  if (!c.ownLines.empty()) {
    Result<MappingRules> rules = MappingRules::parse(own->rulesText, "rules with own lines");
    if (!rules) return tl::unexpected(rules.error());
    own->rules = std::move(*rules);
  }
  return std::shared_ptr<const Resources>(std::move(own));
}

Result<std::shared_ptr<const Resources>> Resources::loadFrom(const std::string& folder) {
  auto resources = std::make_shared<Resources>();
  resources->folder = folder;
  const auto text = [&](const char* name) { return readFile((fs::path(folder) / name).string()); };
  const Result<std::string> rulesText = text("kits/standard/rules");
  const Result<std::string> tiesText = text("kits/standard/ties");
  const Result<std::string> labelsText = text("kits/standard/labels");
  const Result<std::string> partsText = text("kits/standard/parts");
  const Result<std::string> testsText = text("kits/standard/tests");
  for (const Result<std::string>* t : {&rulesText, &tiesText, &labelsText, &partsText, &testsText}) {
    if (!*t) return tl::unexpected(t->error());
  }
  Result<std::vector<ReadModel>> models = shippedModels(folder, resources->resting);
  if (!models) return tl::unexpected(models.error());
  for (ReadModel& m : *models) {
    if (Status s = readProposals(folder, "kits/standard", m); !s) return tl::unexpected(s.error());
    const std::string& last = m.shipped.texts.back().first;
    const std::string kit = last.substr(0, last.rfind('/'));
    if (kit == "kits/standard") continue;
    if (Status s = readProposals(folder, kit, m); !s) resources->resting.push_back(s.error());
  }
  model::Model& model = models->front().model;
  Result<Placeholders> placeholders = readPlaceholders(folder, resources->resting);
  if (!placeholders) return tl::unexpected(placeholders.error());
  Result<MappingRules> rules = MappingRules::parse(*rulesText, "kits/standard/rules");
  if (!rules) return tl::unexpected(rules.error());
  Result<std::vector<Tie>> ties = parseTies(*tiesText, "kits/standard/ties");
  if (!ties) return tl::unexpected(ties.error());
  Result<std::vector<ContainedCost>> contained = parseContained(*tiesText, *ties, "kits/standard/ties");
  if (!contained) return tl::unexpected(contained.error());
  Result<std::vector<SummedBalance>> summed = parseSums(*tiesText, *ties, "kits/standard/ties");
  if (!summed) return tl::unexpected(summed.error());
  Result<std::vector<TieWithLines>> solved = parseSolved(*tiesText, *ties, "kits/standard/ties");
  if (!solved) return tl::unexpected(solved.error());
  Result<std::vector<TieWithLines>> completed = parseComplete(*tiesText, *ties, "kits/standard/ties");
  if (!completed) return tl::unexpected(completed.error());
  Result<std::vector<UntoldRest>> untold = parseUntold(*tiesText, *ties, "kits/standard/ties");
  if (!untold) return tl::unexpected(untold.error());
  Result<std::vector<HoldingLine>> holding = parseHolding(*tiesText, *ties, "kits/standard/ties");
  if (!holding) return tl::unexpected(holding.error());
  Result<std::vector<MovingBalance>> moving = parseMoving(*tiesText, *ties, "kits/standard/ties");
  if (!moving) return tl::unexpected(moving.error());
  Result<LabelRules> labels = LabelRules::parse(*labelsText, "kits/standard/labels");
  if (!labels) return tl::unexpected(labels.error());
  Result<PartRules> parts = PartRules::parse(*partsText, "kits/standard/parts");
  if (!parts) return tl::unexpected(parts.error());
  Result<std::vector<QualityTest>> tests = parseQualityTests(*testsText, "kits/standard/tests");
  if (!tests) return tl::unexpected(tests.error());
  for (const QualityTest& test : *tests) {
    for (const std::string& read : {test.row, test.covers}) {
      const model::RowId row = model.find(read);
      const bool known = row.known() && (model[row].historyFiled || model[row].history.has_value());
      if (known || read.empty()) continue;
      return fail(ErrorKind::BadInput, "the test '" + test.name + "' reads '" + read + "', which history does not know",
                  "kits/standard/tests");
    }
  }
  for (const model::Row& row : model.rows) {
    if (!row.peers || isMeasureOfPeers(model, *row.peers)) continue;
    return fail(
        ErrorKind::BadInput,
        "peers have no '" + row.peers->measure + " " + row.peers->statistic + "', which '" + row.name + "' asks for",
        "kits/standard/model");
  }
  const auto isLine = [&](const std::string& line) {
    const model::RowId row = model.find(line);
    return row.known() && model[row].historyFiled;
  };
  for (const LabelRule& rule : labels->rules()) {
    if (isLine(rule.line)) continue;
    return fail(ErrorKind::BadInput, "there is no standard line '" + rule.line + "'", "kits/standard/labels");
  }
  for (const std::string& line : parts->lines()) {
    if (isLine(line)) continue;
    return fail(ErrorKind::BadInput, "there is no standard line '" + line + "'", "kits/standard/parts");
  }
  for (ReadModel& m : *models) resources->models.push_back(std::move(m.shipped));
  resources->rulesText = *rulesText;
  resources->tests = std::move(*tests);
  resources->placeholders = std::move(*placeholders);
  resources->parts = std::move(*parts);
  resources->labels = std::move(*labels);
  resources->model = std::move(model);
  resources->rules = std::move(*rules);
  resources->ties = std::move(*ties);
  resources->shapes = {std::move(*contained), std::move(*solved),  std::move(*completed), std::move(*summed),
                       std::move(*untold),    std::move(*holding), std::move(*moving)};
  resources->lines = LineTree(resources->ties);
  return std::shared_ptr<const Resources>(std::move(resources));
}

}  // namespace zl::services
