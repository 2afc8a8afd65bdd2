#include "labelled.h"

#include "headings.h"
#include "numbers.h"
#include <algorithm>
#include <cctype>
#include <map>

namespace anvil::tables {
namespace {

/// A number of a line with the label before it and the unit behind it, or a time stamp.
struct Item {
    std::string label, unit, value;
    bool clock = false;
    bool sameKind(const Item& o) const { return label == o.label && unit == o.unit && clock == o.clock; }
};

bool isNumber(std::string_view word) {
    const auto v = readNumber(word, '.');
    return v &&
           std::isdigit(static_cast<unsigned char>(word.back() == '.' ? word[word.size() - 2] : word.back()));
}

/// Looking a unit up goes through all there are; a log says the same few words again and again.
class UnitWords {
public:
    bool operator()(std::string_view word) {
        if (word.size() > 12) return false; // no unit is as long
        const auto known = m_known.find(word);
        if (known != m_known.end()) return known->second;
        if (m_known.size() > 2000) m_known.clear();
        return m_known.emplace(word, looksLikeUnit(word)).first->second;
    }

private:
    std::map<std::string, bool, std::less<>> m_known;
};

/// "0.6kg" → 0.6 and kg.
std::optional<std::pair<std::string, std::string>> numberWithUnit(std::string_view word, UnitWords& isUnit) {
    const auto end = word.find_last_of("0123456789");
    if (end == std::string_view::npos || end + 1 >= word.size()) return std::nullopt;
    const auto head = word.substr(0, end + 1), tail = word.substr(end + 1);
    if (!isNumber(head) || !isUnit(tail)) return std::nullopt;
    return std::pair(std::string(head), std::string(tail));
}

/// "logger[812]:", as system logs put it before a line.
bool fromProcess(std::string_view word) {
    if (word.ends_with(":")) word.remove_suffix(1);
    const auto open = word.find('[');
    return open != std::string_view::npos && open > 0 && word.ends_with("]") &&
           word.substr(open + 1, word.size() - open - 2).find_first_not_of("0123456789") ==
               std::string_view::npos;
}

/// The numbers of a line; empty where it has none.
std::vector<Item> itemsOf(std::string_view line, UnitWords& isUnit) {
    std::string spaced; // "F=1.2;x=3" → words, a label ends with its mark
    for (std::size_t i = 0; i < line.size(); ++i) {
        const char c = line[i];
        const bool label = i > 0 && std::isalpha(static_cast<unsigned char>(line[i - 1]));
        if (c == ':' && label && i + 1 < line.size() && line[i + 1] != ' ') { // "load:12.5"
            spaced += ": ";
        } else if (c == '=' || c == ';' || c == '\t' || c == ',') {
            if (c == '=') spaced += '=';
            spaced += ' ';
        } else {
            spaced += c;
        }
    }
    const auto words = splitFields(spaced, ' ');
    std::vector<Item> items;
    std::string label;
    for (std::size_t i = 0; i < words.size(); ++i) {
        std::string_view w = words[i];
        std::string stamp(w); // a date before its time of day belongs to it
        if (i + 1 < words.size() && w.size() >= 8 && w.find_first_of("-/.") != std::string_view::npos &&
            clockSeconds(stamp + " " + words[i + 1])) {
            items.push_back({"Time", "", stamp + " " + words[++i], true});
            continue;
        }
        if (clockSeconds(w)) {
            items.push_back({"Time", "", stamp, true});
            continue;
        }
        if (i + 2 < words.size() && w.size() >= 3 && std::isalpha(static_cast<unsigned char>(w[0])) &&
            words[i + 2].find(':') != std::string::npos) { // "Mar 02 14:05:33"
            const auto whole = stamp + " " + words[i + 1] + " " + words[i + 2];
            if (clockSeconds(whole)) {
                items.push_back({"Time", "", whole, true});
                i += 2;
                continue;
            }
        }
        if (fromProcess(w)) { // "bench logger[812]:" says who wrote the line, not what it measures
            label.clear();
            continue;
        }
        if (isNumber(w)) {
            items.push_back({label, "", stamp, false});
            label.clear();
            continue;
        }
        if (const auto both = numberWithUnit(w, isUnit)) {
            items.push_back({label, both->second, both->first, false});
            label.clear();
            continue;
        }
        if (!items.empty() && !items.back().clock && items.back().unit.empty() && label.empty() &&
            isUnit(w)) {
            items.back().unit = std::string(w);
            continue;
        }
        while (!w.empty() && (w.back() == ':' || w.back() == '='))
            w.remove_suffix(1);
        const bool mark = std::none_of(w.begin(), w.end(), [](char c) {
            return std::isalnum(static_cast<unsigned char>(c)) || static_cast<unsigned char>(c) >= 0x80;
        }); // "->"
        if (!mark) label += (label.empty() ? "" : " ") + std::string(w);
    }
    return items;
}

bool alike(const std::vector<Item>& a, const std::vector<Item>& b) {
    return a.size() == b.size() && std::equal(a.begin(), a.end(), b.begin(),
                                              [](const auto& x, const auto& y) { return x.sameKind(y); });
}

std::string joined(const std::vector<Item>& items, const std::string Item::*member) {
    std::string out;
    for (std::size_t i = 0; i < items.size(); ++i)
        out += (i ? "," : "") + csvField(items[i].*member);
    return out;
}

} // namespace

std::optional<std::string> fromLabelled(std::string_view text) {
    constexpr std::size_t headLines = 60;
    UnitWords isUnit;
    std::vector<std::vector<Item>> head;
    for (const auto& line : splitLines(text.substr(0, 1 << 14), headLines))
        if (auto items = itemsOf(line, isUnit); !items.empty()) head.push_back(std::move(items));
    if (head.size() < 5) return std::nullopt;
    // What most lines are like. A label, a unit or a stamp must say more than plain columns would.
    std::size_t best = 0, most = 0;
    for (std::size_t i = 0; i < head.size(); ++i) {
        const auto n = static_cast<std::size_t>(std::count_if(
            head.begin(), head.end(), [&](const auto& other) { return alike(head[i], other); }));
        if (n > most) {
            most = n;
            best = i;
        }
    }
    auto kind = head[best];
    const bool says = std::any_of(kind.begin(), kind.end(), [](const Item& i) {
        return i.clock || !i.label.empty() || !i.unit.empty();
    });
    if (!says || 10 * most < 9 * head.size()) return std::nullopt;
    const auto numbers = static_cast<std::size_t>(
        std::count_if(kind.begin(), kind.end(), [](const Item& i) { return !i.clock; }));
    if (numbers == 0) return std::nullopt;
    auto names = kind;
    for (auto& n : names) {
        if (n.clock) continue;
        if (n.label.empty()) // a bare number behind a stamp, or the first of several, which is one itself
            n.label = numbers == 1 ? "Load" : &n == &names.front() && n.unit.empty() ? "Time" : "Reading";
        if (!n.unit.empty()) n.label += " (" + n.unit + ")";
    }
    std::string out = joined(names, &Item::label) + "\n";
    for (const auto& line : splitLines(text)) {
        const auto items = itemsOf(line, isUnit);
        out += alike(items, kind) ? joined(items, &Item::value) : csvField(line);
        out += '\n';
    }
    return out;
}

} // namespace anvil::tables
