#include <anvil/columns/text.h>

#include <algorithm>
#include <cctype>
#include <cstdint>
#include <cstdlib>
#include <cstring>
#include <memory>
#include <unicase.h>
#include <uninorm.h>

namespace anvil::columns {

namespace {

/// What a function of the library makes of a text in UTF-8; the text itself where it cannot.
template <class Make> std::string made(std::string_view text, Make make) {
    std::size_t length = 0;
    const std::unique_ptr<std::uint8_t, decltype(&std::free)> out(
        make(reinterpret_cast<const std::uint8_t*>(text.data()), text.size(), &length), &std::free);
    return out ? std::string(reinterpret_cast<const char*>(out.get()), length) : std::string(text);
}

} // namespace

bool isAscii(std::string_view s) {
    std::size_t i = 0;
    std::uint64_t high = 0;
    for (; i + 8 <= s.size(); i += 8) {
        std::uint64_t word = 0;
        std::memcpy(&word, s.data() + i, 8);
        high |= word;
    }
    for (; i < s.size(); ++i)
        high |= static_cast<unsigned char>(s[i]) & 0x80U;
    return (high & 0x8080808080808080U) == 0;
}

std::string_view shortened(std::string_view text, std::size_t most) {
    if (text.size() <= most) return text;
    while (most > 0 && (static_cast<unsigned char>(text[most]) & 0xC0) == 0x80)
        --most;
    return text.substr(0, most);
}

std::string_view trimmed(std::string_view s) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\f'; };
    while (!s.empty() && blank(s.front()))
        s.remove_prefix(1);
    while (!s.empty() && blank(s.back()))
        s.remove_suffix(1);
    if (s.size() >= 2 && s.front() == '"' && s.back() == '"') s = s.substr(1, s.size() - 2);
    return s;
}

std::string lowered(std::string_view text) {
    if (!isAscii(text))
        return made(text, [](const std::uint8_t* s, std::size_t n, std::size_t* length) {
            return u8_tolower(s, n, nullptr, nullptr, nullptr, length);
        });
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return out;
}

std::string composed(std::string_view text) {
    if (isAscii(text)) return std::string(text);
    return made(text, [](const std::uint8_t* s, std::size_t n, std::size_t* length) {
        return u8_normalize(UNINORM_NFC, s, n, nullptr, length);
    });
}

std::vector<std::string> splitFields(std::string_view line, char delimiter) {
    std::vector<std::string> fields;
    if (delimiter == ' ') {
        std::size_t i = 0;
        while (i < line.size()) {
            while (i < line.size() && (line[i] == ' ' || line[i] == '\t'))
                ++i;
            std::size_t j = i;
            while (j < line.size() && line[j] != ' ' && line[j] != '\t')
                ++j;
            if (j > i) fields.emplace_back(line.substr(i, j - i));
            i = j;
        }
        return fields;
    }
    std::string field;
    bool quoted = false, wasQuoted = false;
    const auto finish = [&] {
        fields.emplace_back(wasQuoted ? field : std::string(trimmed(field)));
        field.clear();
        wasQuoted = false;
    };
    for (std::size_t i = 0; i < line.size(); ++i) {
        const char c = line[i];
        if (quoted) {
            if (c == '"' && i + 1 < line.size() && line[i + 1] == '"') {
                field += '"';
                ++i;
            } else if (c == '"') {
                quoted = false;
            } else {
                field += c;
            }
        } else if (c == '"' && trimmed(field).empty()) {
            quoted = wasQuoted = true;
            field.clear();
        } else if (c == delimiter) {
            finish();
        } else if (!wasQuoted || (c != ' ' && c != '\t')) {
            field += c;
        }
    }
    finish();
    return fields;
}

} // namespace anvil::columns
