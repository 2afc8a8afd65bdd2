#include <anvil/tables/log.h>

#include "clock.h"
#include "documents.h"
#include "forms.h"
#include "layout.h"
#include "parse.h"
#include "row_taker.h"
#include "runs.h"
#include "standing.h"
#include <algorithm>
#include <anvil/columns/line.h>
#include <fmt/format.h>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::size_t leastRows = 3;

/// A block of a sheet, laid out and read.
struct Laid {
    Expected<Layout> layout = fail("");
    Columns columns{};
    bool enough() const { return layout && columns.rows >= leastRows; }
};

Laid lay(const Sheet& sheet, const Hints& hints, unsigned threads) {
    Laid out;
    out.layout = layOut(sheet, hints);
    if (!out.layout) return out;
    out.columns = sheet.isParted() ? parseRows(sheet.rows, *out.layout)
                                   : parseColumns(sheet.text, *out.layout, threads);
    return out;
}

/// The sheet as it is or, where nothing can be read so, in the form in which it can.
std::pair<Sheet, Laid> inAnyForm(std::string_view text, const Hints& hints, unsigned threads) {
    std::pair<Sheet, Laid> plain{Sheet{text, {}, 0}, {}};
    plain.second = lay(plain.first, hints, threads);
    if (plain.second.enough()) return plain;
    using Form = std::optional<Rows> (*)(std::string_view);
    bool recognised = false;
    for (const Form form : {&fromJson, &fromTuples, &fromTypeset, &fromOtherHeading, &fromLong,
                            &fromTransposed, &fromPairs, &fromLabelled}) {
        auto rows = form(text);
        if (!rows) continue;
        std::pair<Sheet, Laid> other{Sheet{{}, std::move(*rows), 0}, {}};
        other.second = lay(other.first, hints, threads);
        if (other.second.enough()) return other;
        if (!recognised && !plain.second.layout) plain = std::move(other);
        recognised = true;
    }
    return plain;
}

std::size_t linesIn(std::string_view text) {
    const auto ends = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
    return ends ? ends : static_cast<std::size_t>(std::count(text.begin(), text.end(), '\r'));
}

/// What of a sheet lies behind a block.
Sheet behind(const Sheet& sheet, const Columns& block) {
    const auto at = *block.nextBlock;
    if (sheet.isParted())
        return {{}, {sheet.rows.begin() + static_cast<std::ptrdiff_t>(at), sheet.rows.end()}, 0};
    return {sheet.text.substr(at), {}, sheet.linesBefore + linesIn(sheet.text.substr(0, at))};
}

void toSi(const Layout& layout, Columns& columns, Role role, double unknown) {
    const auto i = layout.find(role);
    if (!i) return;
    const auto& c = layout.columns[*i];
    const double factor = (c.unit ? c.unit->factor : unknown) * c.factor;
    if (factor != 1)
        for (auto& v : columns.values[*i])
            v *= factor;
}

/// What a block says of rows that are no readings goes into the log, with the lines of the file.
void takeProblems(Columns& columns, std::size_t linesBefore, Log& log) {
    for (auto& p : columns.problems)
        if (log.problems.size() < mostProblems)
            log.problems.push_back({p.line + linesBefore, std::move(p.reason)});
    log.rowsLeftOut += columns.rowsLeftOut;
    if (columns.overloadAt && log.overload.empty())
        log.overload = fmt::format("From line {} on it says overload: a peak there is \"at least\".",
                                   columns.overloadAt + linesBefore);
}

Expected<void> refuseTooFew(const Columns& columns, const Log& log) {
    const auto rows = columns.rows;
    if (rows >= leastRows) return {};
    return fail(fmt::format(
        "only {} row{} of numbers: a curve needs at least three{}", rows, rows == 1 ? "" : "s",
        log.problems.empty() ? std::string()
                             : fmt::format(" (line {} {})", log.problems[0].line, log.problems[0].reason)));
}

/// The runs of one block, put behind those that the log has. `only`: the file has no other block.
Expected<void> takeBlock(const Layout& layout, Columns& columns, std::size_t linesBefore, bool only,
                         Log& log) {
    takeProblems(columns, linesBefore, log);
    dropRegularBreaks(columns);
    if (columns.otherUnitAt)
        return fail(fmt::format("another unit stands beside the load from line {} on: cut the file there",
                                columns.otherUnitAt + linesBefore));
    leaveOutMarked(layout, columns, log);
    log.rowsMarked += columns.rowsMarked;
    const auto* load = layout.column(Role::load);
    const auto* travel = layout.column(Role::travel);
    log.forceUnitKnown = log.forceUnitKnown && load->unit;
    log.displacementUnitKnown = log.displacementUnitKnown && (!travel || travel->unit);
    toSi(layout, columns, Role::load, 1);
    toSi(layout, columns, Role::travel, 0.001);
    sortByLabel(layout, columns);
    if (auto ok = readClock(layout, columns, log); !ok) return ok;
    leaveOutSums(layout, columns, log);
    if (auto ok = refuseTooFew(columns, log); !ok) return ok;
    fillBlankTravel(layout, columns, log);
    if (auto ok = refuseCutsUnderLoad(layout, columns); !ok) return ok;
    for (auto& run : runsOf(layout, std::move(columns), only, log))
        log.runs.push_back(std::move(run));
    return {};
}

/// What is other in a later block: the unit of its load, or more.
std::string whatIsOther(const Layout& first, const Layout& next) {
    const auto *a = first.column(Role::load), *b = next.column(Role::load);
    const bool sameNames =
        std::equal(first.columns.begin(), first.columns.end(), next.columns.begin(), next.columns.end(),
                   [](const Column& x, const Column& y) { return x.header == y.header && x.role == y.role; });
    const auto *t = first.column(Role::time), *u = next.column(Role::time);
    if (sameNames && b->unit && a->unit != b->unit && (!t || t->unit == u->unit))
        return fmt::format("its load is in {}", b->unit->symbol);
    return "its columns are others, as the heading there says";
}

/// The block that begins at another heading. Nothing where it holds no curve: a table of results behind one.
Expected<bool> takeNext(const Sheet& sheet, Laid& next, Log& log) {
    if (!next.layout && next.layout.error().wants == Wants::columns)
        return fail(fmt::format("from line {} on it has another heading, and there {}", sheet.linesBefore + 1,
                                next.layout.error().message),
                    Wants::columns);
    if (!next.enough()) {
        const auto rows = next.columns.rows + next.columns.rowsLeftOut;
        log.rowsLeftOut += rows;
        log.notes.push_back(fmt::format("What stands from line {} on, under another heading, holds no curve.",
                                        sheet.linesBefore + 1));
        return false;
    }
    log.notes.push_back(
        fmt::format("From line {} on {}.", sheet.linesBefore + 1, whatIsOther(log.layout, *next.layout)));
    if (auto ok = takeBlock(*next.layout, next.columns, sheet.linesBefore, false, log); !ok)
        return tl::unexpected(ok.error());
    return true;
}

void numberRuns(Log& log) {
    for (std::size_t i = 0; i < log.runs.size(); ++i)
        if (log.runs[i].label.empty())
            log.runs[i].label = log.runs.size() == 1 ? "" : fmt::format("{}", i + 1);
}

Expected<Log> readText(std::string_view text, const std::string& encoding, const Hints& hints,
                       unsigned threads) {
    constexpr std::size_t mostBlocks = 10'000;
    auto [sheet, first] = inAnyForm(text, hints, threads);
    if (!first.layout) return tl::unexpected(first.layout.error());
    Log log;
    log.layout = *first.layout;
    log.notes = first.layout->notes;
    log.encoding = encoding;
    log.forceUnitKnown = log.displacementUnitKnown = true;
    std::vector<std::pair<Sheet, Laid>> others;
    const auto* columns = &first.columns;
    for (const auto* at = &sheet; columns->nextBlock && others.size() < mostBlocks;) {
        auto next = behind(*at, *columns);
        auto laid = lay(next, hints, threads);
        others.emplace_back(std::move(next), std::move(laid));
        at = &others.back().first;
        columns = &others.back().second.columns;
    }
    const bool only =
        std::none_of(others.begin(), others.end(), [](const auto& o) { return o.second.enough(); });
    if (auto ok = takeBlock(*first.layout, first.columns, 0, only, log); !ok)
        return tl::unexpected(ok.error());
    for (auto& [at, laid] : others)
        if (auto ok = takeNext(at, laid, log); !ok) return tl::unexpected(ok.error());
    if (log.runs.empty()) return fail("no run in it has three rows of numbers");
    numberRuns(log);
    return log;
}

std::string names(const std::vector<std::string>& sheets) {
    std::string out;
    for (const auto& s : sheets)
        out += (out.empty() ? "" : ", ") + fmt::format("\"{}\"", shortened(s, 60));
    return out;
}

Expected<Log> readSheet(const TextSheet& sheet, const std::string& kind, const Hints& hints,
                        unsigned threads) {
    auto log = readText(sheet.text, kind, hints, threads);
    if (log) log->sheet = sheet.name;
    return log;
}

/// Whether two logs have the same columns for the same things.
bool sameColumns(const Layout& a, const Layout& b) {
    return std::equal(a.columns.begin(), a.columns.end(), b.columns.begin(), b.columns.end(),
                      [](const Column& x, const Column& y) {
                          return x.header == y.header && x.role == y.role && x.unit == y.unit;
                      });
}

/// The runs of further sheets behind those of the first, each under its sheet's name.
Log joined(std::vector<Log>& read, const std::vector<std::string>& sheets) {
    auto all = std::move(read.front());
    all.sheet.clear();
    for (auto& run : all.runs)
        run.label = sheets[0] + (run.label.empty() ? "" : " " + run.label);
    for (std::size_t k = 1; k < read.size(); ++k) {
        for (auto& run : read[k].runs) {
            run.label = sheets[k] + (run.label.empty() ? "" : " " + run.label);
            all.runs.push_back(std::move(run));
        }
        all.rowsLeftOut += read[k].rowsLeftOut;
        all.rowsMarked += read[k].rowsMarked;
        for (auto& p : read[k].problems)
            if (all.problems.size() < mostProblems) all.problems.push_back(std::move(p));
        if (all.overload.empty()) all.overload = read[k].overload;
    }
    all.notes.push_back(fmt::format("Its sheets {} are runs of their own.", names(sheets)));
    return all;
}

/// The sheet that is asked for, the only one that holds a curve, or all of them where they are alike: a run
/// each.
Expected<Log> readDocument(const Document& doc, const Hints& hints, unsigned threads) {
    std::vector<std::string> all;
    for (std::size_t i = 0; i < doc.sheets.size(); ++i) {
        all.push_back(doc.sheets[i].name);
        if (!hints.sheet.empty() &&
            (lowered(doc.sheets[i].name) == lowered(hints.sheet) || fmt::format("{}", i + 1) == hints.sheet))
            return readSheet(doc.sheets[i], doc.kind, hints, threads);
    }
    if (!hints.sheet.empty())
        return fail(fmt::format("there is no sheet \"{}\"; the sheets are {}", hints.sheet, names(all)));
    std::vector<Log> read;
    std::vector<std::string> with, without;
    Expected<Log> first = fail("");
    for (const auto& sheet : doc.sheets) {
        if (doc.sheets.size() > 1 && (sheet.hidden || tellsDerived(sheet.name))) { // "Average" is no pull
            without.push_back(sheet.name);
            continue;
        }
        auto log = readSheet(sheet, doc.kind, hints, threads);
        (log ? with : without).push_back(sheet.name);
        if (log)
            read.push_back(std::move(*log));
        else if (&sheet == &doc.sheets.front())
            first = tl::unexpected(log.error());
    }
    if (read.empty()) return first;
    for (const auto& other : read)
        if (!sameColumns(read.front().layout, other.layout))
            return fail(
                fmt::format("several of its sheets could be meant ({}): {}", names(with), asksForSheet),
                Wants::sheet);
    auto log = read.size() > 1 ? joined(read, with) : std::move(read.front());
    if (!without.empty()) log.notes.push_back(fmt::format("Nothing was read from {}.", names(without)));
    return log;
}

} // namespace

Expected<Log> readLog(std::string_view bytes, const Hints& hints, unsigned threads) {
    const auto loose = unpacked(bytes);
    if (!loose) return tl::unexpected(loose.error());
    if (*loose) bytes = **loose;
    const auto document = openDocument(bytes);
    if (!document) return tl::unexpected(document.error());
    if (*document) return readDocument(**document, hints, threads);
    Text text;
    if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
    return readText(text.view, text.encoding, hints, threads);
}

} // namespace anvil::tables
