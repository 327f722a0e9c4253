#include "app/frame/glossary.h"

#include <QDir>
#include <QLineEdit>
#include <QStandardPaths>
#include <QTextBrowser>
#include <QVBoxLayout>
#include <span>

#include "app/look/theme.h"

namespace zl::app {
namespace {

/// Words of the pages that are no row of the model.
struct Term {
  const char* word;
  const char* meaning;
};

/// What the keyboard does where the menus do not say it.
constexpr Term kKeys[] = {
    {"Companies",
     "Alt+0 lists the companies of the book; Alt with Page Down or Page Up goes to the next or the one before."},
    {"Pages", "Alt with 1 to 9 goes to a page; Ctrl+F finds a line, driver, page, version, finding or action."},
    {"Views of a page",
     "Where a page has several, they stand in a row of words; Ctrl+Tab and Ctrl+Shift+Tab go round."},
    {"Books",
     "Everything is stored as it is done. Ctrl+S names a book that has no name yet, or moves it; Ctrl+O opens "
     "another."},
    {"A first value",
     "While something is missing it stands above the value rail, with a field or a way to it; Enter takes what is "
     "typed."},
    {"Out of the program",
     "Ctrl+Shift+E saves the table or chart that has the keys: workbook or CSV, drawing or picture. Ctrl+P prints the "
     "page."},
    {"Grids",
     "Arrows move, typing replaces, F2 edits, Ctrl+C and Ctrl+V take cells to and from other programs. Enter does what "
     "the grid is for: adopts a figure, brings a driver to the board, draws a line, takes a peer in or out, opens "
     "the list of a choice. Figures "
     "that do not fit scroll beneath the labels; a shade on either side says that there are more. A label that is cut "
     "shows itself whole on hover."},
    {"The trace",
     "Folded away at the right edge until it is asked for: F6 or a click on the edge opens it beside the page, Ctrl+T "
     "folds it away, and each page keeps its own. Enter walks into what a figure stands on or into what hangs on it, "
     "Backspace walks out again."},
    {"Charts and the value rail",
     "Tab goes to a chart, Shift+F6 to the rail. Arrows go from figure to figure, Home and End to the first and the "
     "last; the trace tells each. Enter on a mark of the rail goes to its page."},
    {"The path board",
     "Left and right choose a year, up and down move its figure by a step, Page Up and Page Down by five. With "
     "Shift the whole stage moves, with Ctrl the long-run level. Escape lets go of a drag."},
    {"Decide next",
     "Ctrl+Shift+D lists from everywhere what nobody has decided, by what it moves. Enter brings a driver to the "
     "board; a "
     "reason typed in its last column takes it as it stands."},
    {"Own rows", "Ctrl+Space offers words that fit, Ctrl+Enter accepts the text."},
    {"A document", "Escape or Backspace goes back to where it was opened from."}};

constexpr Term kTerms[] = {
    {"Sum of parts",
     "Each part of the company as filed, by itself: its profit or revenue of the base year times a multiple, less what "
     "costs of no part are worth, then the way to a share. A way to value that counts in Verdict."},
    {"Sector and deal multiples",
     "Rates by name: 'sector ev-ebitda Machinery' by day, 'deal ev-ebitda Orvane Mills' for what control was paid for. "
     "Each is set beside the subject by what its low, median and high imply."},
    {"Others' valuations",
     "Estimates of value_per_share with the house and its method as the source: marks beside the methods' ranges."},
    {"Peer set",
     "Peers by a name. Of the set in use its members alone count; the others keep their figures and say that they are "
     "not in it."},
    {"Company of the book as a peer",
     "Another company of the same book, with the figures of its own statements, record, prices and estimates: what its "
     "analyst changes shows here."},
    {"Why a multiple differs",
     "The gap to the peers' median, as shares that multiply: what growth, payout, return on equity and the required "
     "return make of it by the multiple that they justify, and what is left unexplained."},
    {"Fit across peers",
     "A multiple by least squares on growth, margin and return of the peers that count, six of them at least: how much "
     "of its spread they tell, what each peer is beyond it, where the subject would be."},
    {"Multiples of peers",
     "Of price or of the firm (enterprise value), of the last twelve months, this fiscal year, the next or the one "
     "after, or a normal year, brought to the subject's months, currency and basis. What is negative or unknown has no "
     "multiple and says why. A dot "
     "counts, a ring does not; Space takes one in or out, and the line beneath says before what that would do."},
    {"Normal year",
     "A figure's mean share of revenue in the last five regular years, times the revenue of the twelve months "
     "compared; "
     "the analyst's own margin goes before the mean. Of peers likewise, from the years that are filed."},
    {"Multiple of your own",
     "Price or firm over any row of the model, of any year: a line among the own rows, with in and out, statistics and "
     "implied values like the shipped ones. Peers tell it by their table, companies of the book by their statements."},
    {"Sets of peers",
     "Those whose members alone count, by name. A set of another company of the book can be shared: its members are "
     "candidates here then, and it follows what is made of it there."},
    {"Own past multiples",
     "By month: the close then times the count of shares then, over the last year that was known, as it was first "
     "filed. "
     "A year counts as known three months after its end. Months beyond 1.5 interquartile ranges outside the quartiles "
     "are shown in their year and count in no statistic. Where closes of peers are in the book, their median of the "
     "same "
     "kind stands beside each month: their count and claims of today over the year that had been filed by then. Enter "
     "makes a figure the exit multiple or a method of its own."},
    {"Exit return",
     "A multiple in the exit year gives a price then; with the dividends until then it gives the price to pay for the "
     "required return, and what today's price returns. Multiple and growth are paths by year; the exit year's counts. "
     "The return is split by log points of revenue, margin, count "
     "and multiple, dividends as the rest."},
    {"Blend",
     "The sum of weights times the values of the methods weighted. A method that has a weight and no value leaves no "
     "blend until its weight is moved. The headline stays the cash value until the blend is chosen."},
    {"Rival",
     "A figure that could stand in the place of a part of the cost of capital, with its date, its source and the value "
     "that the model gives with it. Enter adopts it; its source becomes the reason."},
    {"Beta by regression",
     "Least squares of the share's simple returns on an index's over a window, daily, weekly or monthly, between days "
     "that both have. The band holds the true one in 95 of 100 cases; adjusted is two thirds of it and a third."},
    {"Relevered",
     "Beta without debt times one and debt over equity after tax. Peers' betas are unlevered with their own debt, "
     "their "
     "median is relevered at the weights of the first forecast year."},
    {"Hurdle",
     "The return that the analyst asks for. For equity it takes the place of the cost of equity and is weighted with "
     "debt; for the firm it takes the place of the WACC."},
    {"Economic profit",
     "NOPAT less what the invested capital asks for. Capital and the present value of economic profit are the same "
     "value as the cash flows give, to the last digit; the page shows the gap."},
    {"Flows to shareholders",
     "Free cash flow after interest and borrowing at the cost of equity. Cash and associates, whose income the flow "
     "leaves out, are added at face; no debt is taken off."},
    {"Direct value",
     "What a year brings shareholders, growing in stages, at the required return: the price to pay for that return."},
    {"Dated target",
     "Today's value carried at the cost of equity, less the dividends on the way; with the return in all and a year."},
    {"Stock pay added back",
     "A flow that costs no cash and yet is paid by holders: the present value of the shares issued for it is taken off "
     "equity, at the value that the model gives. What issuing them at today's price would move stands beside it."},
    {"Model year",
     "The terminal rule that runs the model one year further: revenue at the terminal growth, every driver as in the "
     "last "
     "year."},
    {"Dilution at the value",
     "Options and convertibles tested against the value that they dilute, in place of the price: the one value at "
     "which "
     "both agree."},
    {"Proposal",
     "What a driver follows until the analyst decides: worked out from regular history and the market by the rules of "
     "the "
     "kit, told with its grounds, marked by a hollow notch and a thin line. Typing, shaping, adopting or confirming it "
     "with a reason makes it an assumption."},
    {"Placeholder",
     "A round, dated figure of the economy that serves where a book has none of its own. Everything that stands on one "
     "says so; Decide next lists them first."},
    {"Copy",
     "The book as it was before a day's first change, before it was brought up to date, or when a person asked for it; "
     "in the folder beside it that ends in .copies. Opened like a book, a copy can be made the book again; what stood "
     "there is kept."},
    {"Draft",
     "What is being typed and is no edit yet: own rows, reasons, notes, names. It is kept in the book soon after the "
     "last key and comes back with its field."},
    {"Version",
     "The assumptions as they stood, kept under a name with the documents they stood on. Undo leaves it alone; going "
     "back to it is an edit."},
    {"What moved the value",
     "The difference between two values per share, before the floor at zero, split by what differs: each part's mean "
     "effect over all orders in which the parts could be changed (Shapley value). The parts add up."},
    {"Consensus",
     "Analysts' estimates from tables in the book, the latest before the valuation date. A driver that nobody "
     "estimates "
     "itself is worked out from the lines that are, by its own history rule; low and high are the outermost that the "
     "estimates' ends give together."},
    {"Sum of caution",
     "What each choice of base does to value against a neutral one: the median of the driver's regular years, or the "
     "model's preset."},
    {"Own rows",
     "Rows, drivers and inputs of the analyst's own, and other rules for the model's, written in the model language "
     "upon the shipped model and kept in the case. They are tried before they are accepted."},
    {"Ready build",
     "Model text made from what is filed or on record: revenue by parts, by volume and price, debt by tranche. Put in, "
     "it is text of one's own like any other."},
    {"Quick outlook",
     "EBIT less tax, less added revenue over sales to capital: a first value from four drivers. The statements are "
     "history only; what was assumed for the full model is kept."},
    {"At rest", "An assumption whose row the model in use lacks or computes: kept, and of no effect until it is back."},
    {"Published estimates",
     "Base's lines and all values per share, frozen under a name on a day. No edit changes them; what they have "
     "become, "
     "the consensus and the company's guidance stand beside them."},
    {"Guidance", "The company's own word on a line of a year, as a range; its middle is taken where it names none."},
    {"Reached, usual, to come",
     "Of an interim report: the year to date over the forecast of the year, what the year before had reached of its "
     "whole at that date, and the forecast less the year to date."},
    {"Limit of a monitor", "Where it draws its line; typed on Verdict, kept with the case."},
    {"Roll forward",
     "Moves the base year on to the last one filed. What was typed stays with its calendar year; the state before is "
     "kept as a version."},
    {"Stage", "A span of forecast years. Steps have a figure a stage; a stage can be moved as a whole."},
    {"Shapes of a path",
     "Hold: one level. Typed: by year. Steps: by stage. Glide: equal yearly steps to a level. Fade: half the distance "
     "to "
     "a level is gone in each half-life. Recovery: from the base year straight to a level, then level. Cycle: a level "
     "and deviations that repeat. Follow: base's path at a distance, even or widening."},
    {"At its limit", "A path that would leave its driver's range is held at its end and marked with a bar."},
    {"Compound growth", "(last / first)^(1 / years) - 1; both ends must be positive and every year between whole."},
    {"Growth over two years",
     "x of the year over x two years before, less one: an easy comparison does not hide in it."},
    {"Fitted trend", "Least squares of the logarithms on the years; R² says how well one rate describes them all."},
    {"Regular years", "Years that are not flagged exceptional; averages of regular years leave the others out."},
    {"Doubtful end (†)",
     "A span starts or ends in a flagged year, or in one under 75 % or over 125 % of the median of the years around "
     "it."},
    {"Adjusted",
     "A filed flow with the analyst's correction and its reason; EBIT, profit before tax, tax and net income follow "
     "it. "
     "The filed figure is kept beside it; a short bar stands above the adjusted one."},
    {"Restated for splits", "Counts of shares filed before a split, in today's shares."},
    {"Organic growth",
     "Revenue less what deals brought in their first twelve months, over revenue of the year before, less one."},
    {"Mix and within parts",
     "A margin changes because parts gain or lose weight (mix) and because parts earn more or less (within); the two "
     "add up to the change."},
    {"Quality test",
     "One figure beside a threshold that is yours to move. It holds, asks for a look, or is exempt with "
     "a reason; there is no total and no grade."},
    {"Uses of cash",
     "What operating cash flow was spent on; debt raised and cash taken from the till are negative uses."},
    {"One basis",
     "Leases as debt or as rent, stock pay as a cost or added back, research as a cost or as capital: chosen once, for "
     "the subject's EBITDA, EBIT, NOPAT, capital, free cash flow and claims and for its peers' EBITDA and EV. Net "
     "income "
     "and the filed statements stay as filed."},
    {"Peers, beside a quality test",
     "Median of peers' last fiscal years for the same measure on the same basis; the subject itself is not among "
     "them."},
    {"Deepest fall", "The largest drop of the close below its highest before, over all prices in the book."},
    {"Swing of a year",
     "Standard deviation of the last 365 days' close-to-close returns times the root of their count."},
    {"Tie", "Filed figures that must add up, judged with half a unit of the last filed place of each."}};

}  // namespace

QString demoBookPath() {
  const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
  QDir().mkpath(folder);
  return folder + QStringLiteral("/demo.zledger");
}

Glossary::Glossary(model::Model model, const QString& wanted, QWidget* parent)
    : QDialog(parent), model_(std::move(model)) {
  setWindowTitle(tr("Glossary"));
  resize(720, 600);
  auto* layout = new QVBoxLayout(this);
  auto* filter = new QLineEdit(this);
  filter->setObjectName(QStringLiteral("glossaryFilter"));
  filter->setPlaceholderText(tr("Part of a name or definition"));
  layout->addWidget(filter);
  text_ = new QTextBrowser(this);
  text_->setObjectName(QStringLiteral("glossaryText"));
  layout->addWidget(text_);
  connect(filter, &QLineEdit::textChanged, this, &Glossary::fill);
  filter->setText(wanted);
  fill(wanted);
}

void Glossary::fill(const QString& filter) {
  QString html;
  QString group;
  for (const model::Row& row : model_.rows) {
    const QString label = text(row.label);
    const QString help = text(row.help);
    if (!filter.isEmpty() && !label.contains(filter, Qt::CaseInsensitive) &&
        !help.contains(filter, Qt::CaseInsensitive))
      continue;
    if (text(row.group) != group) {
      group = text(row.group);
      html += QStringLiteral("<h3>%1</h3>").arg(group.toHtmlEscaped());
    }
    html += QStringLiteral("<p><b>%1</b> <i>%2, %3</i>")
                .arg(label.toHtmlEscaped(), QString::fromLatin1(model::kindWord(row.kind)),
                     QString::fromLatin1(model::timingWord(row.timing)));
    if (!help.isEmpty()) html += QStringLiteral("<br>") + help.toHtmlEscaped();
    const auto rule = [&](const QString& word, const std::optional<model::Expr>& e) {
      if (e) html += QStringLiteral("<br><small>%1: %2</small>").arg(word, text(expressionText(*e)).toHtmlEscaped());
    };
    if (row.historyFiled) html += QStringLiteral("<br><small>%1</small>").arg(tr("history: filed"));
    rule(tr("history"), row.history);
    rule(tr("first year"), row.first);
    rule(tr("forecast"), row.forecast);
    rule(tr("value"), row.value);
    html += QStringLiteral("</p>");
  }
  const auto section = [&](const QString& title, std::span<const Term> terms) {
    QString words;
    for (const Term& term : terms) {
      const QString word = QString::fromUtf8(term.word);
      const QString meaning = QString::fromUtf8(term.meaning);
      const bool wanted = filter.isEmpty() || title.contains(filter, Qt::CaseInsensitive) ||
                          word.contains(filter, Qt::CaseInsensitive) || meaning.contains(filter, Qt::CaseInsensitive);
      if (wanted) words += QStringLiteral("<p><b>%1</b><br>%2</p>").arg(word.toHtmlEscaped(), meaning.toHtmlEscaped());
    }
    if (!words.isEmpty()) html += QStringLiteral("<h3>%1</h3>").arg(title) + words;
  };
  section(tr("Words of the pages"), kTerms);
  section(tr("Keys"), kKeys);
  text_->setHtml(html.isEmpty() ? tr("Nothing matches.") : html);
}

}  // namespace zl::app
