#include <anvil/tables/names.h>

#include <algorithm>
#include <anvil/quantity/digits.h>
#include <anvil/tables/text.h>
#include <cctype>
#include <regex>
#include <set>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::string_view countWords[] = {"r",       "rep",   "run",       "n",        "no",     "nr",
                                           "#",       "test",  "pull",      "no.",      "nr.",    "n°",
                                           "nº",      "piece", "trial",     "specimen", "sample", "probe",
                                           "versuch", "essai", "replicate", "p",        "t"};
constexpr std::string_view conditions[] = {
    "dry",     "wet",    "salt",  "salted",     "soaked", "cold",    "hot",       "warm",      "frozen",
    "aged",    "unaged", "new",   "old",        "used",   "control", "treated",   "untreated", "oiled",
    "greased", "clean",  "dirty", "heated",     "indoor", "outdoor", "weathered", "uv",        "humid",
    "ambient", "room",   "baked", "annealed",   "cured",  "uncured", "sanded",    "primed",    "trocken",
    "nass",    "feucht", "kalt",  "warm",       "sec",    "mouillé", "humide",    "froid",     "chaud",
    "before",  "after",  "blank", "as-received"};
/// Words a logger puts before every name.
constexpr std::string_view empty[] = {
    "test",   "pull",  "data",    "log",     "export", "file",   "run",    "sample", "specimen", "results",
    "result", "curve", "messung", "versuch", "logger", "record", "output", "bench",  "rig",      "lab"};

template <std::size_t n> bool in(const std::string& word, const std::string_view (&words)[n]) {
    const auto w = lowered(word);
    return std::find(std::begin(words), std::end(words), w) != std::end(words);
}

/// "wet", "salt-soaked", "-20C", "24h", "60 °C".
bool isCondition(const std::string& word) {
    static const std::regex exposure(R"(-?\d+([.,]\d+)?\s*(°?[CF]|deg[CF]|h|hrs?|hours|d|days?|weeks?|%?RH))",
                                     std::regex::icase);
    if (std::regex_match(word, exposure)) return true;
    std::string part;
    for (const char c : word + "-") {
        if (c != '-' && c != ' ') {
            part += c;
            continue;
        }
        if (in(part, conditions)) return true;
        part.clear();
    }
    return false;
}

bool digits(std::string_view s) {
    return !s.empty() && s.size() <= 4 &&
           std::all_of(s.begin(), s.end(), [](unsigned char c) { return std::isdigit(c); });
}

/// The number a word counts with: "03", "r2", "run12", "n°2"; nothing for "M8".
std::optional<int> counted(const std::string& word) {
    const auto head = word.find_first_of("0123456789");
    if (head == std::string::npos || !digits(std::string_view(word).substr(head))) return {};
    auto prefix = word.substr(0, head);
    while (!prefix.empty() && (prefix.back() == ' ' || prefix.back() == '-'))
        prefix.pop_back();
    if (!prefix.empty() && !in(prefix, countWords)) return {};
    return quantity::wholeNumber(std::string_view(word).substr(head));
}

std::string trimmedBy(const std::string& s, std::string_view marks) {
    const auto from = s.find_first_not_of(marks);
    if (from == std::string::npos) return {};
    return s.substr(from, s.find_last_not_of(marks) - from + 1);
}

/// Without what says when and by whom it was made.
std::string cleaned(std::string stem) {
    static const std::regex copies(R"(^(copy of|kopie von|copie de)\s+|\s*-?\s*(copy|kopie)\b)",
                                   std::regex::icase);
    static const std::regex dates(
        R"((^|[^0-9])(19|20)\d\d[-_.]?(0[1-9]|1[0-2])[-_.]?(0[1-9]|[12]\d|3[01])([T_ -]*\d\d[-_.:h]?\d\d([-_.:m]?\d\d)?s?)?(?![0-9]))");
    static const std::regex days(R"((^|[^0-9.])\d{1,2}\.\d{1,2}\.\d{2,4}(?![0-9]))");
    static const std::regex bracketed(R"(\s*\((\d{1,4})\))");
    stem = std::regex_replace(stem, copies, " ");
    stem = std::regex_replace(stem, dates, "$1");
    stem = std::regex_replace(stem, days, "$1");
    return std::regex_replace(stem, bracketed, stem.find('_') != std::string::npos ? "_$1" : " $1");
}

std::vector<std::string> split(const std::string& text, char mark) {
    std::vector<std::string> out;
    for (std::size_t i = 0; i <= text.size();) {
        const auto end = std::min(text.find(mark, i), text.size());
        if (auto word = trimmedBy(text.substr(i, end - i), " _-"); !word.empty())
            out.push_back(std::move(word));
        i = end + 1;
    }
    return out;
}

struct Words {
    std::vector<std::string> words;
    int number = 0; ///< at the end; 0: none
};

Words read(const std::string& fileName) {
    Words out;
    std::string path = composed(fileName);
    std::replace(path.begin(), path.end(), '\\', '/');
    auto parts = split(path, '/');
    if (parts.empty()) return out;
    std::string stem = parts.back();
    parts.pop_back();
    if (path.starts_with('/')) parts.clear(); // of a whole path only the name says something
    for (auto& folder : parts) {
        folder = trimmedBy(cleaned(std::move(folder)), " _-");
        std::replace(folder.begin(), folder.end(), '_', ' ');
        if (!folder.empty()) out.words.push_back(std::move(folder));
    }
    if (const auto dot = stem.find_last_of('.');
        dot != std::string::npos && dot > 0 && stem.size() - dot <= 6)
        stem = stem.substr(0, dot);
    stem = trimmedBy(cleaned(std::move(stem)), " _-");
    const char mark = stem.find('_') != std::string::npos   ? '_'
                      : stem.find(' ') != std::string::npos ? ' '
                                                            : '-';
    auto words = split(stem, mark);
    for (std::size_t i = 0; i + 1 < words.size(); ++i) // "run 3" is one
        if (in(words[i], countWords) && digits(words[i + 1])) {
            words[i] += words[i + 1];
            words.erase(words.begin() + static_cast<std::ptrdiff_t>(i) + 1);
        }
    const bool alone = words.size() == 1 && out.words.empty();
    if (!words.empty() && (!alone || digits(words[0])))
        if (const auto n = counted(words.back())) {
            out.number = *n;
            words.pop_back();
        }
    out.words.insert(out.words.end(), words.begin(), words.end());
    return out;
}

} // namespace

bool soundsLikeCondition(const std::string& word) { return isCondition(word); }

std::vector<std::string> wordsOf(const std::string& fileName) { return read(fileName).words; }

NameParts partsOf(const std::string& fileName, const NamePattern& pattern) {
    const auto [words, number] = read(fileName);
    const auto join = [&words = words](const std::vector<std::size_t>& places) {
        std::string out;
        for (const auto p : places)
            if (p < words.size()) out += (out.empty() ? "" : " ") + words[p];
        std::replace(out.begin(), out.end(), '-', ' ');
        return out;
    };
    return {join(pattern.option), join(pattern.condition), number};
}

namespace {

/// The words of files that came together, by their places.
struct Together {
    std::vector<std::vector<std::string>> all;
    std::vector<std::size_t> varying,
        shared; ///< places whose words differ, and those that are the same in all

    std::string wordAt(std::size_t file, std::size_t place) const {
        return place < all[file].size() ? lowered(all[file][place]) : std::string();
    }
    bool allConditions(std::size_t place) const {
        return std::all_of(all.begin(), all.end(), [&](const auto& words) {
            return place >= words.size() || isCondition(words[place]);
        });
    }
};

Together togetherOf(const std::vector<std::string>& fileNames) {
    Together out;
    std::size_t longest = 0;
    for (const auto& f : fileNames) {
        out.all.push_back(wordsOf(f));
        longest = std::max(longest, out.all.back().size());
    }
    for (std::size_t i = 0; i < longest; ++i) {
        std::set<std::string> different;
        for (std::size_t file = 0; file < out.all.size(); ++file)
            different.insert(out.wordAt(file, i));
        (different.size() > 1 ? out.varying : out.shared).push_back(i);
    }
    auto& varying = out.varying;
    for (std::size_t k = varying.size(); k-- > 1;) // a folder that says again what the name says
        for (std::size_t i = 0; i < k; ++i) {
            bool same = true;
            for (std::size_t file = 0; file < out.all.size() && same; ++file)
                same = out.wordAt(file, varying[i]) == out.wordAt(file, varying[k]);
            if (!same) continue;
            varying.erase(varying.begin() + static_cast<std::ptrdiff_t>(i));
            break;
        }
    return out;
}

/// One name, or the same for all: its first word, and a condition if it names one.
NamePattern patternOfOne(Together names) {
    NamePattern out;
    auto& shared = names.shared;
    std::erase_if(shared, [&](std::size_t i) { return shared.size() > 1 && in(names.all[0][i], empty); });
    if (shared.empty()) return out;
    out.condition.clear();
    if (shared.size() > 2 && names.allConditions(shared.back())) {
        out.condition = {shared.back()};
        shared.pop_back();
        out.option = shared;
    } else {
        out.option = {shared[0]};
        if (shared.size() > 1) out.condition = {shared[1]};
    }
    return out;
}

/// One word varies: it is the condition if it is a word for one, and then what they share is the option.
NamePattern patternByOneWord(Together names) {
    NamePattern out;
    auto& shared = names.shared;
    std::erase_if(shared, [&](std::size_t i) { return in(names.all[0][i], empty); });
    if (names.allConditions(names.varying[0]) && !shared.empty()) {
        out.option = shared;
        out.condition = names.varying;
        return out;
    }
    out.option = names.varying;
    out.condition.clear();
    if (!shared.empty() && names.allConditions(shared.back())) out.condition = {shared.back()};
    return out;
}

} // namespace

NamePattern patternOf(const std::vector<std::string>& fileNames) {
    auto names = togetherOf(fileNames);
    if (names.varying.empty()) return patternOfOne(std::move(names));
    if (names.varying.size() == 1) return patternByOneWord(std::move(names));
    NamePattern out;
    auto& varying = names.varying;
    const auto condition = std::find_if(varying.begin(), varying.end(),
                                        [&](std::size_t place) { return names.allConditions(place); });
    out.condition = {condition != varying.end() ? *condition : varying.back()};
    std::erase(varying, out.condition[0]);
    out.option = varying;
    return out;
}

std::optional<std::vector<std::size_t>> learn(const std::string& fileName, const std::string& corrected) {
    const auto words = wordsOf(fileName);
    const auto plain = [](std::string s) {
        std::replace(s.begin(), s.end(), '-', ' ');
        return lowered(composed(s));
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
