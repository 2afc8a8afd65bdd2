#include <anvil/methods/method.h>

#include <algorithm>
#include <cctype>

namespace anvil::methods {
namespace {

/// Lower-case words of letters and digits; other letters than a to z stay as they are.
std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> out;
    bool inside = false;
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        const bool part = byte >= 0x80 || std::isalnum(byte);
        if (part && !inside) out.emplace_back();
        if (part) out.back() += static_cast<char>(byte < 0x80 ? std::tolower(byte) : byte);
        inside = part;
    }
    return out;
}

bool beginsOne(const std::vector<std::string>& words, const std::string& start) {
    return std::any_of(words.begin(), words.end(), [&](const auto& w) { return w.starts_with(start); });
}

/// How well one word fits: 3 in the title, 2 among its words, 1 in what it measures; 0: not at all.
int fitOf(const Method& method, const std::string& word) {
    if (beginsOne(wordsOf(method.title), word)) return 3;
    if (beginsOne(wordsOf(method.words), word)) return 2;
    if (beginsOne(wordsOf(method.measures), word)) return 1;
    for (const auto& m : method.metrics)
        if (beginsOne(wordsOf(m.title), word)) return 1;
    return 0;
}

} // namespace

std::vector<const Method*> search(std::string_view text) {
    const auto words = wordsOf(text);
    std::vector<std::pair<int, const Method*>> found;
    for (const auto* method : all()) {
        int fit = 0;
        const bool fits = std::all_of(words.begin(), words.end(), [&](const std::string& word) {
            const int one = fitOf(*method, word);
            fit += one;
            return one > 0;
        });
        if (fits) found.emplace_back(fit, method);
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<const Method*> out;
    out.reserve(found.size());
    for (const auto& [fit, method] : found)
        out.push_back(method);
    return out;
}

} // namespace anvil::methods
