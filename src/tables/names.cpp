#include <anvil/tables/values.h>

#include <algorithm>
#include <cctype>

namespace anvil::tables {

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
