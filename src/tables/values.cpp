#include <anvil/tables/values.h>

#include "documents.h"
#include "headings.h"
#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {
namespace {

struct Places {
    std::optional<std::size_t> option, condition, value, unit, state, upper, block, note;
};

std::optional<stats::State> stateFrom(const std::string& text) {
    using stats::State;
    const auto t = lowered(text);
    const auto is = [&](std::initializer_list<const char*> words) {
        return std::any_of(words.begin(), words.end(), [&](const char* w) { return t == w; });
    };
    if (t.empty() ||
        is({"exact", "counts", "=", "ok", "broke", "broken", "failed", "fail", "break", "valid", "—", "-"}))
        return State::exact;
    if (is({"above", "at least", "at_least", ">", "≥", ">=", "off scale", "off_scale", "overload",
            "topped out", "held", "no break", "not broken", "did not break"}))
        return State::above;
    if (is({"below", "at most", "at_most", "<", "≤", "<="})) return State::below;
    if (t == "between") return State::between;
    if (is({"aside", "set aside", "set_aside", "void", "invalid", "excluded", "discard", "discarded"}))
        return State::aside;
    return std::nullopt;
}

/// "Mean", "Max", "Std dev", "Total": a row about the rows, not one of them.
bool isSummary(const std::string& option) {
    static constexpr std::string_view words[] = {
        "mean", "average", "avg", "max", "min",   "maximum",    "minimum", "total", "sum",   "median",
        "std",  "stdev",   "sd",  "cv",  "count", "mittelwert", "summe",   "n",     "range", "moyenne"};
    const auto in = wordsIn(option);
    return !in.empty() && in.size() <= 3 &&
           std::find(std::begin(words), std::end(words), in[0]) != std::end(words);
}

/// One spelling for names that differ in case and blanks only: the first one met.
std::string sameSpelling(const std::string& name, std::map<std::string, std::string>& known) {
    std::string folded;
    for (const auto& w : splitFields(name, ' '))
        folded += (folded.empty() ? "" : " ") + lowered(w);
    std::string clean;
    for (const auto& w : splitFields(name, ' '))
        clean += (clean.empty() ? "" : " ") + w;
    return known.try_emplace(folded, clean).first->second;
}

/// Names stand in the first row of their group only, as merged cells come out: half of the cells are blank.
bool writtenOnce(const std::vector<std::string_view>& lines, char delimiter, std::size_t column) {
    std::size_t rows = 0, blank = 0;
    for (const auto& line : lines) {
        const auto f = splitFields(line, delimiter);
        if (trimmed(line).empty() || column >= f.size()) continue;
        ++rows;
        blank += f[column].empty();
    }
    return 2 * blank >= rows; // the heading counts as one
}

/// 1, 2, 3 … or 1, 2, 3, 1, 2 …: numbers that only count the pulls.
bool countsPulls(const std::vector<std::string_view>& lines, char delimiter, std::size_t column) {
    double last = 0;
    std::size_t rows = 0;
    for (const auto& line : lines) {
        const auto f = splitFields(line, delimiter);
        if (column >= f.size()) continue;
        const auto v = quantity::parseNumber(f[column]);
        if (!v || (*v != 1 && *v != last + 1)) return false;
        last = *v;
        ++rows;
    }
    return rows > 2;
}

bool placeByName(Places& p, std::size_t i, const std::string& header, std::string& unit) {
    const auto [name, inner] = nameAndUnit(header);
    const auto h = lowered(name);
    const auto is = [&](std::initializer_list<const char*> words) {
        return std::any_of(words.begin(), words.end(), [&](const char* w) { return h == w; });
    };
    const auto set = [&](std::optional<std::size_t>& place) {
        if (place) return false;
        place = i;
        return true;
    };
    if (is({"option", "name", "product", "kind", "group", "sample", "material", "item"}))
        return set(p.option);
    if (is({"condition", "setting", "treatment"})) return set(p.condition);
    static constexpr std::string_view valueWords[] = {"value",    "result",  "peak",    "force", "load",
                                                      "strength", "reading", "fmax",    "max",   "maximum",
                                                      "breaking", "break",   "ultimate"};
    const auto words = wordsIn(name);
    if (!words.empty() && !p.value && std::all_of(words.begin(), words.end(), [](const auto& w) {
            return std::find(std::begin(valueWords), std::end(valueWords), w) != std::end(valueWords);
        })) {
        if (!inner.empty()) unit = inner; // of this column, never of a later one
        return set(p.value);
    }
    if (is({"unit", "units"})) return set(p.unit);
    if (!p.value &&
        quantity::findUnit(header, quantity::Dimension::force)) { // headed by nothing but its unit
        unit = header;
        return set(p.value);
    }
    if (is({"state", "standing"})) return set(p.state);
    if (is({"upper", "to"})) return set(p.upper);
    if (is({"block", "batch", "piece"})) return set(p.block);
    if (is({"note", "remark", "comment", "reason"})) return set(p.note);
    return false;
}

} // namespace

namespace {

Expected<ValueTable> valuesIn(const Text& text) {
    const auto lines = splitLines(text.view);
    char delimiter = ',';
    std::size_t most = 0;
    for (const char d : {'\t', ';', ','}) {
        std::size_t count = 0;
        for (std::size_t i = 0; i < std::min<std::size_t>(lines.size(), 50); ++i)
            count += splitFields(lines[i], d).size() >= 2;
        if (count > most) {
            most = count;
            delimiter = d;
        }
    }
    if (most == 0)
        return fail("no columns can be told apart in it: a table of option, condition and value is needed");
    ValueTable table;
    Places places;
    std::string headerUnit;
    bool started = false;
    std::string lastOption, lastCondition;
    std::optional<bool> once;
    const auto merged = [&] {
        return once ? *once : *(once = writtenOnce(lines, delimiter, *places.option));
    };
    std::map<std::string, std::string> options, conditions; // as first spelled
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (trimmed(lines[i]).empty()) continue;
        if (const auto bare = trimmed(lines[i]); bare.starts_with("#") || bare.starts_with("//"))
            continue; // a remark
        const auto f = splitFields(lines[i], delimiter);
        if (!started) {
            started = true;
            Places named;
            bool any = false;
            const bool heading = std::none_of(f.begin(), f.end(), [](const auto& cell) {
                return quantity::parseNumber(cell) || quantity::parseEntry(cell);
            });
            for (std::size_t k = 0; k < f.size() && heading; ++k)
                any = placeByName(named, k, f[k], headerUnit) || any;
            if (any && (!named.option || !named.value))
                return fail(
                    fmt::format("the heading has no column named {}", named.option ? "value" : "option"));
            if (any) {
                places = named;
                continue;
            }
            places.option = 0;
            places.value = f.size() == 2 ? 1 : 2;
            if (f.size() >= 3 && !countsPulls(lines, delimiter, 1)) places.condition = 1;
            if (f.size() >= 4) places.unit = 3;
            if (f.size() >= 5) places.state = 4;
        }
        const auto at = [&](const std::optional<std::size_t>& place) {
            return place && *place < f.size() ? f[*place] : std::string();
        };
        const auto bad = [&](std::string why) { table.problems.push_back({i + 1, std::move(why)}); };
        ValueRow row;
        row.line = i + 1;
        row.option = at(places.option);
        row.condition = at(places.condition);
        row.block = at(places.block);
        row.note = at(places.note);
        row.asTyped = at(places.value);
        if (isSummary(row.option) && !table.rows.empty()) {
            bad(fmt::format("is a summary (\"{}\"), not a result", shortened(row.option, 40)));
            continue;
        }
        if (row.option.empty() && !row.asTyped.empty() && merged()) {
            row.option = lastOption;
            if (row.condition.empty()) row.condition = lastCondition;
        }
        if (row.option.empty()) {
            bad("has no option");
            continue;
        }
        lastCondition = row.condition;
        lastOption = row.option = sameSpelling(row.option, options);
        row.condition = sameSpelling(row.condition, conditions);
        if (row.asTyped.empty()) {
            bad("has no value");
            continue;
        }
        std::string unitText = at(places.unit);
        if (unitText.empty()) unitText = headerUnit;
        if (!unitText.empty()) {
            auto u = quantity::findUnit(unitText, quantity::Dimension::force);
            if (!u) u = quantity::findUnit(unitText);
            if (!u) {
                bad(u.error().message);
                continue;
            }
            row.unit = *u;
        }
        const auto state = stateFrom(at(places.state));
        if (!state) {
            bad(fmt::format("\"{}\" is not a standing: use exact, above, below, between or aside",
                            at(places.state)));
            continue;
        }
        row.value.state = *state;
        if (const auto plain = quantity::parseNumber(row.asTyped)) {
            row.value.value = *plain;
        } else {
            auto entry = quantity::parseEntry(row.asTyped,
                                              row.unit ? std::optional(row.unit->dimension) : std::nullopt,
                                              row.unit ? row.unit : &quantity::unit("N"));
            if (entry && entry->unit->dimension == quantity::Dimension::mass) // a load given in kg
                entry = quantity::parseEntry(row.asTyped, quantity::Dimension::force, row.unit);
            if (!entry) {
                bad(entry.error().message);
                continue;
            }
            if (!row.unit && entry->unit->symbol != "N")
                row.unit = entry->unit;
            else if (!row.unit && row.asTyped.find('N') != std::string::npos)
                row.unit = entry->unit;
            const auto shown = [&](double si) { return row.unit ? row.unit->fromSi(si) : si; };
            row.value.value = shown(entry->si);
            row.value.upper = shown(entry->upperSi);
            if (*state == stats::State::exact && entry->doubt == quantity::Doubt::above)
                row.value.state = stats::State::above;
            if (*state == stats::State::exact && entry->doubt == quantity::Doubt::below)
                row.value.state = stats::State::below;
            if (*state == stats::State::exact && entry->doubt == quantity::Doubt::between)
                row.value.state = stats::State::between;
        }
        if (row.value.state == stats::State::between && !at(places.upper).empty()) {
            const auto upper = quantity::parseNumber(at(places.upper));
            if (!upper || *upper < row.value.value) {
                bad(fmt::format("\"{}\" cannot be the upper bound of {}", at(places.upper), row.asTyped));
                continue;
            }
            row.value.upper = *upper;
        } else if (row.value.state == stats::State::between && row.value.upper < row.value.value) {
            bad("says between but gives no upper bound");
            continue;
        }
        table.hasConditions = table.hasConditions || !row.condition.empty();
        table.rows.push_back(std::move(row));
    }
    if (table.rows.empty())
        return fail(table.problems.empty() ? std::string("there are no rows of results in it")
                                           : fmt::format("no row can be used: line {} {}",
                                                         table.problems[0].line, table.problems[0].reason));
    return table;
}

} // namespace

Expected<ValueTable> readValues(std::string_view bytes, const std::string& sheet) {
    const auto loose = unpacked(bytes);
    if (!loose) return tl::unexpected(loose.error());
    if (*loose) bytes = **loose;
    const auto document = openDocument(bytes);
    if (!document) return tl::unexpected(document.error());
    Text text;
    if (!*document) {
        if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
        return valuesIn(text);
    }
    std::vector<std::string> with;
    Expected<ValueTable> found = fail(""), first = fail("");
    for (std::size_t i = 0; i < (*document)->sheets.size(); ++i) {
        const auto& s = (*document)->sheets[i];
        const bool named = lowered(s.name) == lowered(sheet) || fmt::format("{}", i + 1) == sheet;
        if (!sheet.empty() && !named) continue;
        text.view = s.text;
        auto table = valuesIn(text);
        if (with.empty() && !first) first = table;
        if (!table) continue;
        if (with.empty()) found = std::move(table);
        with.push_back(s.name);
    }
    if (with.size() > 1)
        return fail(fmt::format("several of its sheets hold results (\"{}\" and \"{}\"): {}", with[0],
                                with[1], asksForSheet));
    if (with.size() == 1) return found;
    if (!first && first.error().message.empty()) return fail(fmt::format("there is no sheet \"{}\"", sheet));
    return first;
}

Expected<const quantity::Unit*> unify(std::vector<ValueRow>& rows) {
    const auto* first = rows.empty() ? nullptr : rows.front().unit;
    for (auto& r : rows) {
        if (!r.unit != !first)
            return fail(
                fmt::format("line {} has {} unit although line {} has {}: give all rows a unit or none",
                            r.line, r.unit ? "a" : "no", rows.front().line, first ? "one" : "none"));
        if (!first || r.unit == first) continue;
        const auto value = quantity::convert(r.value.value, *r.unit, *first),
                   upper = quantity::convert(r.value.upper, *r.unit, *first);
        if (!value) return fail(fmt::format("line {}: {}", r.line, value.error().message));
        r.value.value = *value;
        r.value.upper = *upper;
        r.unit = first;
    }
    return first;
}

std::vector<std::string> wordsOf(const std::string& fileName) {
    std::string stem = fileName;
    if (const auto slash = stem.find_last_of("/\\"); slash != std::string::npos)
        stem = stem.substr(slash + 1);
    if (const auto dot = stem.find_last_of('.'); dot != std::string::npos && dot > 0)
        stem = stem.substr(0, dot);
    const std::string marks = stem.find('_') != std::string::npos   ? "_"
                              : stem.find(' ') != std::string::npos ? " "
                                                                    : "-";
    std::vector<std::string> words;
    std::size_t i = 0;
    while (i <= stem.size()) {
        const auto end = std::min(stem.find_first_of(marks, i), stem.size());
        if (end > i) words.push_back(stem.substr(i, end - i));
        i = end + 1;
    }
    return words;
}

NameParts partsOf(const std::string& fileName, const NamePattern& pattern) {
    auto words = wordsOf(fileName);
    NameParts parts;
    const auto digits = [](const std::string& w) {
        return !w.empty() && w.size() <= 4 &&
               std::all_of(w.begin(), w.end(), [](unsigned char c) { return std::isdigit(c); });
    };
    if (words.size() > 1) {
        std::string last = words.back();
        const auto head = last.find_first_of("0123456789");
        const auto prefix = lowered(last.substr(0, head == std::string::npos ? 0 : head));
        if (head != std::string::npos &&
            (prefix == "r" || prefix == "rep" || prefix == "run" || prefix == "n" || prefix == "#" ||
             prefix.empty()) &&
            digits(last.substr(head))) {
            parts.replicate = std::stoi(last.substr(head));
            words.pop_back();
        }
    }
    const auto join = [&](const std::vector<std::size_t>& places) {
        std::string out;
        for (const auto p : places)
            if (p < words.size()) out += (out.empty() ? "" : " ") + words[p];
        std::replace(out.begin(), out.end(), '-', ' ');
        return out;
    };
    parts.option = join(pattern.option);
    parts.condition = join(pattern.condition);
    return parts;
}

std::optional<std::vector<std::size_t>> learn(const std::string& fileName, const std::string& corrected) {
    const auto words = wordsOf(fileName);
    const auto plain = [](std::string s) {
        std::replace(s.begin(), s.end(), '-', ' ');
        return lowered(s);
    };
    for (std::size_t from = 0; from < words.size(); ++from) {
        std::string joined;
        std::vector<std::size_t> places;
        for (std::size_t to = from; to < words.size(); ++to) {
            joined += (joined.empty() ? "" : " ") + words[to];
            places.push_back(to);
            if (plain(joined) == plain(corrected)) return places;
        }
    }
    return std::nullopt;
}

} // namespace anvil::tables
