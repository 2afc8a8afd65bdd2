#include "headings.h"
#include "numbers.h"
#include <anvil/tables/log.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>
#include <map>
#include <set>

namespace anvil::tables {
namespace {

using quantity::Dimension;
using quantity::Unit;

constexpr std::size_t headLines = 400;

bool numeric(std::string_view field, char decimal) {
    const auto f = trimmed(field);
    return readNumber(f, decimal) || readGrouped(f, decimal) || clockSeconds(f);
}

struct Shape {
    char delimiter = ',', decimal = '.';
    std::size_t columns = 0, rows = 0, firstRow = 0;
    std::size_t score() const { return rows * std::min<std::size_t>(columns, 3) * 4 + columns; }
};

/// Rows of numbers under one delimiter and decimal mark; at least one field a row must be a number, the rest
/// a number or a word.
Shape tryShape(const std::vector<std::string_view>& lines, char delimiter, char decimal) {
    std::map<std::size_t, Shape> byWidth;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], delimiter);
        std::size_t numbers = 0, filled = 0;
        for (const auto& f : fields) {
            filled += !f.empty();
            numbers += numeric(f, decimal);
        }
        // One word a row, or between cells that are clearly parted as many words as numbers.
        const bool wordy = delimiter != ' ' && numbers >= 2 && 2 * numbers >= filled;
        if (numbers == 0 || (numbers + 1 < filled && !wordy)) continue;
        auto& s = byWidth[fields.size()];
        if (s.rows++ == 0) s.firstRow = i;
        s.columns = std::max(s.columns, numbers);
    }
    Shape best;
    for (auto& [width, s] : byWidth)
        if (s.rows > best.rows) best = s;
    best.delimiter = delimiter;
    best.decimal = decimal;
    return best;
}

/// Sample of one column's numbers, from the head of the file.
std::vector<double> sample(const std::vector<std::string_view>& lines, const Layout& layout,
                           std::size_t column) {
    std::vector<double> out;
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], layout.delimiter);
        if (column >= fields.size()) continue;
        if (const auto v = readNumber(fields[column], layout.decimal)) out.push_back(*v);
    }
    return out;
}

bool steadilyRising(const std::vector<double>& v) {
    if (v.size() < 3) return false;
    std::size_t up = 0;
    for (std::size_t i = 1; i < v.size(); ++i)
        up += v[i] > v[i - 1];
    return up + 1 + v.size() / 50 >= v.size();
}

/// What the commas of a file say about its decimal mark.
struct Commas {
    bool any = false;      ///< there are commas in numbers
    bool decimal = false;  ///< one is not followed by exactly three digits, or leads with a zero: 0,012
    bool grouping = false; ///< one stands with a point (1,250.5) or with another comma (1,250,000)
    bool settled() const { return decimal || grouping; }
};

void weigh(Commas& seen, const std::string& field) {
    const auto at = field.find(',');
    if (at == std::string::npos || !(numeric(field, ',') || numeric(field, '.'))) return;
    seen.any = true;
    const auto rest = std::string_view(field).substr(at + 1);
    if (rest.find_first_of(".,") != std::string_view::npos) {
        seen.grouping = true;
        return;
    }
    const bool leadingZero = field[0] == '0' || field.starts_with("-0") || field.starts_with("+0");
    seen.decimal = seen.decimal || rest.size() != 3 || leadingZero || at > 4;
}

/// The head of the file decides; where it leaves the question open, the rest does.
void decideDecimal(std::string_view text, const std::vector<std::string_view>& head, const Hints& hints,
                   Layout& layout) {
    if (layout.delimiter == ',') return;
    Commas seen;
    for (std::size_t i = layout.firstRow; i < head.size(); ++i)
        for (const auto& f : splitFields(head[i], layout.delimiter))
            weigh(seen, f);
    if (seen.any && !seen.settled() && head.size() == headLines) {
        auto rest =
            text.substr(static_cast<std::size_t>(head.back().data() + head.back().size() - text.data()));
        while (!rest.empty() && !seen.settled()) {
            const auto end = std::min(rest.find_first_of("\r\n"), rest.size());
            if (end > 0)
                for (const auto& f : splitFields(rest.substr(0, end), layout.delimiter))
                    weigh(seen, f);
            rest.remove_prefix(std::min(end + 1, rest.size()));
        }
    }
    if (!seen.any) return;
    layout.grouped = seen.grouping && !seen.decimal;
    layout.decimalUnsure = !seen.settled() && !hints.decimal;
    layout.decimal = layout.grouped ? '.' : ',';
    if (!seen.settled() && hints.decimal == '.') { // the person said: 1,250 is twelve hundred and fifty
        layout.decimal = '.';
        layout.grouped = true;
    }
}

/// 0,5,12,3 under two names: decimal commas between commas.
Expected<void> refuseSplitDecimals(const std::vector<std::string_view>& lines, const Layout& layout,
                                   std::size_t width) {
    if (layout.firstRow == 0 || layout.delimiter != ',') return {};
    const auto names = splitFields(lines[layout.firstRow - 1], ',');
    const bool words = names.size() > 1 && std::none_of(names.begin(), names.end(), [](const auto& n) {
                           return n.empty() || readNumber(n, '.');
                       });
    if (!words || width <= names.size() || width > 2 * names.size() || width == names.size() + 1) return {};
    return fail(fmt::format("its rows have {} fields where the heading names {}: decimal commas "
                            "cannot be told from the commas between columns",
                            width, names.size()));
}

/// The cells of a heading line, laid out like the rows: names of several words joined where blanks part the
/// columns, and a blank cell put before names that leave out the row numbers, or behind them where the rows
/// end in a delimiter. Empty: it is none.
std::vector<std::string> headingCells(std::string_view line, const Layout& layout, std::size_t width,
                                      bool endsBlank) {
    auto bare = trimmed(line);
    for (const std::string_view mark : {"#", "//", ";", "%"})
        if (bare.starts_with(mark) && !(mark == ";" && layout.delimiter == ';'))
            bare = trimmed(bare.substr(mark.size()));
    auto cells = splitFields(bare, layout.delimiter);
    if (layout.delimiter == ' ') { // "Time (s) Force (N)"
        std::vector<std::string> joined;
        for (auto& c : cells)
            if (!joined.empty() && (c.front() == '(' || c.front() == '['))
                joined.back() += " " + c;
            else
                joined.push_back(std::move(c));
        for (auto& c : joined) // quoted names of several words are beyond blanks
            std::erase(c, '"');
        cells = std::move(joined);
    }
    if (cells.size() + 1 == width) cells.insert(endsBlank ? cells.end() : cells.begin(), std::string());
    if (cells.size() != width) return {};
    const bool numbers =
        std::any_of(cells.begin(), cells.end(), [&](const auto& c) { return numeric(c, layout.decimal); });
    return numbers ? std::vector<std::string>{} : cells;
}

/// The headings of the columns: of up to four lines above the numbers the one that says most by its words and
/// units, with a line of units below it if there is one. Empty: there are none.
std::vector<Heading> headingsAbove(const std::vector<std::string_view>& lines, Layout& layout,
                                   std::size_t width) {
    const bool endsBlank = splitFields(lines[layout.firstRow], layout.delimiter).back().empty();
    std::vector<std::vector<std::string>> above; // nearest first
    std::vector<std::size_t> at;                 // and the lines they stand in
    const bool blankBetween =
        layout.firstRow + 1 < lines.size() && trimmed(lines[layout.firstRow + 1]).empty();
    for (std::size_t i = layout.firstRow; i-- > 0 && above.size() < 4;) {
        if (trimmed(lines[i]).empty() && blankBetween) continue;
        auto cells = headingCells(lines[i], layout, width, endsBlank);
        if (cells.empty()) break;
        above.push_back(std::move(cells));
        at.push_back(i);
    }
    if (above.empty()) return {};
    const auto isUnits = [](const std::vector<std::string>& row) {
        std::size_t units = 0, filled = 0;
        for (auto cell : row) {
            if (cell.size() > 2 && (cell.front() == '(' || cell.front() == '['))
                cell = cell.substr(1, cell.size() - 2);
            filled += !cell.empty();
            units += !cell.empty() && (looksLikeUnit(cell) || lowered(cell) == "hh:mm:ss");
        }
        return filled > 0 && units == filled;
    };
    std::size_t best = 0, bestScore = 0;
    std::vector<Heading> out;
    for (std::size_t k = 0; k < above.size(); ++k) {
        const bool unitsBelow = k > 0 && isUnits(above[k - 1]);
        std::vector<Heading> headings;
        std::size_t score = 1;
        for (std::size_t i = 0; i < width; ++i) {
            headings.push_back(readHeading(above[k][i], unitsBelow ? above[k - 1][i] : std::string()));
            score += 4 * (headings.back().role != Role::ignore) + 2 * (headings.back().unit != nullptr);
        }
        if (score > bestScore) {
            bestScore = score;
            best = k;
            out = std::move(headings);
        }
    }
    layout.headerLine = std::string(trimmed(lines[at[best]]));
    return out;
}

Why whyOf(const Heading& h) {
    if (h.load == LoadClaim::unitOnly) return Why::unit;
    return h.unit ? Why::nameAndUnit : Why::name;
}

std::string listed(const Layout& layout, const std::vector<std::size_t>& columns) {
    std::string out;
    for (const auto i : columns)
        out += (out.empty() ? "" : ", ") + fmt::format("\"{}\"", layout.columns[i].header);
    return out;
}

/// The step a column is written with, in SI units: its last decimal.
double writtenStep(const std::vector<std::string_view>& lines, const Layout& layout, std::size_t column) {
    int most = 0;
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], layout.delimiter);
        if (column >= fields.size() || !readNumber(fields[column], layout.decimal)) continue;
        const auto mark = fields[column].find(layout.decimal);
        if (mark != std::string::npos)
            most = std::max(most, static_cast<int>(fields[column].size() - mark - 1));
    }
    return std::pow(10.0, -most) * layout.columns[column].unit->factor;
}

/// Of columns that show one load in several units the one with the finest steps; nothing where they differ by
/// more than rounding, or stand still.
std::optional<std::size_t> oneLoadInManyUnits(const std::vector<std::string_view>& lines,
                                              const Layout& layout, const std::vector<std::size_t>& loads) {
    struct Shown {
        std::vector<double> values;
        double step = 0;
    };
    std::vector<Shown> all;
    for (const auto i : loads) {
        if (!layout.columns[i].unit) return {};
        Shown shown{sample(lines, layout, i), writtenStep(lines, layout, i)};
        std::set<double> distinct;
        for (auto& v : shown.values)
            distinct.insert(v = layout.columns[i].unit->toSi(v));
        if (distinct.size() < 10) return {};
        all.push_back(std::move(shown));
    }
    std::size_t finest = 0;
    for (std::size_t k = 1; k < all.size(); ++k) {
        if (all[k].values.size() != all[0].values.size()) return {};
        for (std::size_t i = 0; i < all[0].values.size(); ++i)
            if (std::abs(all[k].values[i] - all[0].values[i]) > 0.51 * (all[k].step + all[0].step)) return {};
        if (all[k].step < all[finest].step) finest = k;
    }
    return loads[finest];
}

/// Whether the stamps of a column say more than the day.
bool tellsTimeOfDay(const std::vector<std::string_view>& lines, const Layout& layout, std::size_t column) {
    for (std::size_t i = layout.firstRow; i < lines.size(); ++i) {
        const auto fields = splitFields(lines[i], layout.delimiter);
        if (column < fields.size() && !fields[column].empty())
            return fields[column].find(':') != std::string::npos;
    }
    return false;
}

Expected<void> assignByHeadings(const std::vector<std::string_view>& lines, Layout& layout,
                                const std::vector<Heading>& headings, const Hints& hints) {
    auto best = LoadClaim::unlikely;
    std::vector<std::size_t> loads;
    for (std::size_t i = 0; i < headings.size(); ++i) {
        auto& c = layout.columns[i];
        const auto& h = headings[i];
        if (!h.name.empty()) c.header = h.name;
        c.written = h.written;
        if (h.unit) c.unit = h.unit;
        if (c.words) continue; // says in words what the numbers are
        if (h.load > best) {
            best = h.load;
            loads.clear();
        }
        if (h.load == best && best > LoadClaim::unlikely) loads.push_back(i);
    }
    for (std::size_t i = 0; i < headings.size(); ++i) {
        const auto role = headings[i].role;
        if (role == Role::ignore || role == Role::load) continue;
        if (const auto taken = layout.find(role); taken && role != Role::run) {
            // Elapsed seconds beside a stamp of whole ones are the better clock.
            const bool better = role == Role::time && layout.columns[*taken].clock &&
                                !layout.columns[i].clock && headings[i].unit && !headings[*taken].unit;
            if (!better) continue;
            layout.columns[*taken].role = Role::ignore;
        }
        layout.columns[i].role = role;
        layout.columns[i].why = whyOf(headings[i]);
    }
    if (!layout.find(Role::time)) // whatever it is called: "Date" that holds date and time is the clock
        for (std::size_t i = 0; i < headings.size(); ++i)
            if (auto& c = layout.columns[i];
                c.clock && c.role == Role::ignore && tellsTimeOfDay(lines, layout, i)) {
                c.role = Role::time;
                c.why = Why::numbers;
                break;
            }
    for (std::size_t i = 0; i < headings.size(); ++i) // words beside the numbers tell the runs apart
        if (layout.columns[i].role == Role::ignore && layout.columns[i].words &&
            tellsWhat(layout.columns[i].header)) {
            layout.columns[i].role = Role::run;
            layout.columns[i].tells = whatItTells(layout.columns[i].header);
        }
    if (!hints.load.empty()) return {}; // the person says which
    if (loads.size() > 1)
        if (const auto finest = oneLoadInManyUnits(lines, layout, loads)) {
            for (const auto i : loads)
                if (i != *finest)
                    layout.notes.push_back(fmt::format("\"{} ({})\" shows the same load in another unit.",
                                                       layout.columns[i].header,
                                                       layout.columns[i].unit->symbol));
            loads = {*finest};
        }
    if (loads.size() > 1)
        return fail(fmt::format("more than one column could be the load ({}): {}", listed(layout, loads),
                                asksForColumns),
                    Wants::columns);
    if (loads.empty()) return {};
    const auto& h = headings[loads[0]];
    if (h.unknownUnit)
        return fail(fmt::format("nobody here knows the unit \"{}\" of \"{}\": write one such as N, kN, kgf "
                                "or lbf into the heading",
                                h.unitText, h.name));
    layout.columns[loads[0]].role = Role::load;
    layout.columns[loads[0]].why = whyOf(h);
    return {};
}

/// A row number: every step is one.
bool counts(const std::vector<double>& v) {
    for (std::size_t i = 1; i < v.size(); ++i)
        if (v[i] != v[i - 1] + 1) return false;
    return v.size() > 2;
}

/// Without headings: one column is the load; of two a steadily rising one is the time; more are asked about,
/// but for a time first and one of the others that only rises, which is the way.
Expected<void> assignByBehaviour(const std::vector<std::string_view>& lines, Layout& layout,
                                 const Hints& hints) {
    auto& columns = layout.columns;
    if (columns.size() == 1) {
        columns[0].role = Role::load;
        columns[0].why = Why::onlyOne;
        return {};
    }
    if (!hints.load.empty() || !hints.time.empty()) return {};
    std::vector<std::size_t> rising, others;
    for (std::size_t i = 0; i < columns.size(); ++i)
        (columns[i].clock || steadilyRising(sample(lines, layout, i)) ? rising : others).push_back(i);
    const bool counter =
        !rising.empty() && !columns[rising[0]].clock && counts(sample(lines, layout, rising[0]));
    if (columns.size() == 2 && rising.size() == 1) {
        columns[rising[0]].role = Role::time;
        columns[others[0]].role = Role::load;
        columns[0].why = columns[1].why = Why::numbers;
        return {};
    }
    if (columns.size() == 3 && !rising.empty() && rising[0] == 0 && !counter) {
        columns[0].role = Role::time;
        columns[1].role = Role::load;
        columns[2].role = Role::travel;
        for (auto& c : columns)
            c.why = Why::numbers;
        const auto falls = [&](std::size_t i) { // goes back by more than a tenth of its range
            const auto v = sample(lines, layout, i);
            double top = v.empty() ? 0 : v[0], low = top, back = 0;
            for (const double x : v) {
                top = std::max(top, x);
                low = std::min(low, x);
                back = std::max(back, top - x);
            }
            return back > 0.1 * (top - low);
        };
        if (falls(1) == falls(2) || falls(2)) // the way only grows, the load lets go
            return fail(
                fmt::format("there is no heading, and which of its columns is the load cannot be told: {}",
                            asksForColumns),
                Wants::columns);
        return {};
    }
    return fail(fmt::format("there is no heading, and which of its {} columns is the load cannot be told: {}",
                            columns.size(), asksForColumns),
                Wants::columns);
}

Expected<void> applyHint(Layout& layout, const std::string& hint, Role role) {
    if (hint.empty()) return {};
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        auto& c = layout.columns[i];
        if (lowered(c.header) != lowered(hint) && lowered(c.written) != lowered(hint) &&
            fmt::format("{}", i + 1) != hint)
            continue;
        if (const auto old = layout.find(role); old && *old != i) layout.columns[*old].role = Role::ignore;
        c.role = role;
        c.why = Why::person;
        const auto wanted = role == Role::load   ? Dimension::force
                            : role == Role::time ? Dimension::time
                                                 : Dimension::length;
        const bool display =
            role == Role::load && c.unit &&
            (c.unit->dimension == Dimension::stress || c.unit->dimension == Dimension::voltage);
        if (c.unit && c.unit->dimension != wanted && !display)
            c.unit = nullptr; // the person knows better what it is
        return {};
    }
    std::string names;
    for (const auto& c : layout.columns)
        names += (names.empty() ? "" : ", ") + c.header;
    return fail(fmt::format("there is no column \"{}\"; the columns are {}", hint, names));
}

/// A column of units beside the numbers: it is the load's, where the load names none itself.
void assignUnits(const std::vector<std::string_view>& lines, Layout& layout) {
    const auto force = layout.find(Role::load);
    if (!force || layout.columns[*force].unit) return;
    const auto first = splitFields(lines[layout.firstRow], layout.delimiter);
    for (std::size_t i = *force + 1; i < layout.columns.size() && i < first.size(); ++i) {
        auto& c = layout.columns[i];
        const auto u = quantity::findUnit(first[i], Dimension::force);
        if (!c.words || c.role != Role::ignore || first[i].empty() || !u) continue;
        c.role = Role::unit;
        layout.columns[*force].unit = *u;
        return;
    }
}

/// A column of words that says of each row whether it is one: "status", "quality", "valid".
void assignStanding(Layout& layout) {
    for (auto& c : layout.columns) {
        if (!c.words || c.role != Role::ignore) continue;
        const auto words = wordsIn(c.header);
        static constexpr std::string_view standing[] = {"status",  "state", "valid", "validity",
                                                        "quality", "flag",  "ok",    "check"};
        if (std::any_of(words.begin(), words.end(), [](const auto& w) {
                return std::find(std::begin(standing), std::end(standing), w) != std::end(standing);
            })) {
            c.role = Role::standing;
            return;
        }
    }
}

/// Where the rig reads a pressure or volts, the only column in a unit of that is the load's.
void takeDisplay(Layout& layout, const Hints& hints) {
    if (hints.loadKind != Dimension::stress && hints.loadKind != Dimension::voltage) return;
    std::optional<std::size_t> only;
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        const auto* unit = layout.columns[i].unit;
        if (!unit || unit->dimension != hints.loadKind || layout.columns[i].role != Role::ignore) continue;
        if (only) return;
        only = i;
    }
    if (!only) return;
    layout.columns[*only].role = Role::load;
    layout.columns[*only].why = Why::unit;
}

/// A clock without a name is the time; the only column with a name that says nothing ("value", "field1") the
/// load.
void takeNeutral(Layout& layout, const std::vector<Heading>& headings) {
    std::optional<std::size_t> only;
    for (std::size_t i = 0; i < headings.size(); ++i) {
        auto& c = layout.columns[i];
        if (c.words) return; // it may say of each row what that shows
        if (c.role != Role::ignore) continue;
        if (c.clock) {
            if (!layout.find(Role::time)) {
                c.role = Role::time;
                c.why = Why::numbers;
            }
            continue;
        }
        if (headings[i].against) continue;
        if (!saysNothing(c.header) || headings[i].unit || headings[i].unknownUnit || only) return;
        only = i;
    }
    if (!only) return;
    layout.columns[*only].role = Role::load;
    layout.columns[*only].why = Why::onlyOne;
    layout.notes.push_back(
        fmt::format("\"{}\" is taken as the load: nothing else can be it.", layout.columns[*only].header));
}

} // namespace

std::optional<std::size_t> Layout::find(Role role) const {
    for (std::size_t i = 0; i < columns.size(); ++i)
        if (columns[i].role == role) return i;
    return std::nullopt;
}

Expected<Layout> detect(std::string_view text, const Hints& hints) {
    const auto lines = splitLines(text.substr(0, std::size_t{1} << 17), headLines);
    Shape best;
    for (const auto& [delimiter, decimal] : std::array<std::pair<char, char>, 9>{{{'\t', '.'},
                                                                                  {'\t', ','},
                                                                                  {';', '.'},
                                                                                  {';', ','},
                                                                                  {',', '.'},
                                                                                  {'|', '.'},
                                                                                  {'|', ','},
                                                                                  {' ', '.'},
                                                                                  {' ', ','}}}) {
        const auto s = tryShape(lines, delimiter, decimal);
        if (s.score() > best.score()) best = s;
    }
    if (best.rows == 0) return fail("there are no rows of numbers in it");
    Layout layout;
    layout.delimiter = best.delimiter;
    layout.decimal = best.decimal;
    layout.firstRow = best.firstRow;
    decideDecimal(text, lines, hints, layout);
    const auto first = splitFields(lines[layout.firstRow], layout.delimiter);
    layout.columns.resize(first.size());
    for (std::size_t i = 0; i < first.size(); ++i) {
        layout.columns[i].header = fmt::format("column {}", i + 1);
        layout.columns[i].clock = !readNumber(first[i], layout.decimal) && clockSeconds(first[i]);
        layout.columns[i].words = !first[i].empty() && !numeric(first[i], layout.decimal);
    }
    if (auto ok = refuseSplitDecimals(lines, layout, first.size()); !ok) return tl::unexpected(ok.error());
    const auto headings = headingsAbove(lines, layout, first.size());
    if (!headings.empty()) {
        if (auto ok = assignByHeadings(lines, layout, headings, hints); !ok)
            return tl::unexpected(ok.error());
    } else if (auto ok = assignByBehaviour(lines, layout, hints); !ok) {
        return tl::unexpected(ok.error());
    }
    assignUnits(lines, layout);
    assignStanding(layout);
    if (auto ok = applyHint(layout, hints.time, Role::time); !ok) return tl::unexpected(ok.error());
    if (auto ok = applyHint(layout, hints.travel, Role::travel); !ok) return tl::unexpected(ok.error());
    if (auto ok = applyHint(layout, hints.load, Role::load); !ok) return tl::unexpected(ok.error());
    if (!layout.find(Role::load)) takeDisplay(layout, hints);
    if (!layout.find(Role::load)) takeNeutral(layout, headings);
    if (!layout.find(Role::load)) {
        std::string list;
        for (const auto& c : layout.columns)
            list += (list.empty() ? "" : ", ") + c.header;
        if (layout.columns.size() == 1 && (headings.empty() || !(headings[0].against || headings[0].unit))) {
            layout.columns[0].role = Role::load;
            layout.columns[0].why = Why::onlyOne;
        } else {
            return fail(
                fmt::format("no column looks like a force (the columns are {}): {}", list, asksForColumns),
                Wants::columns);
        }
    }
    const auto setUnit = [&](Role role, const Unit* u) {
        if (const auto i = layout.find(role); i && u && !layout.columns[*i].unit)
            layout.columns[*i].unit = u; // what the file says stands
    };
    setUnit(Role::load, hints.forceUnit);
    setUnit(Role::travel, hints.displacementUnit);
    setUnit(Role::time, hints.timeUnit);
    return layout;
}

} // namespace anvil::tables
