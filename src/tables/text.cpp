#include <anvil/tables/text.h>

#include "code_pages.h"
#include "numbers.h"
#include <algorithm>
#include <cctype>
#include <cstdint>
#include <cstdlib>
#include <cstring>
#include <memory>
#include <unicase.h>
#include <uninorm.h>

namespace anvil::tables {
namespace {

constexpr std::size_t mostLineBytes = 1'000'000;

std::string fromUtf16(std::string_view bytes, bool bigEndian) {
    std::string out;
    const auto unit = [&](std::size_t i) -> char32_t {
        const auto a = static_cast<unsigned char>(bytes[i]), b = static_cast<unsigned char>(bytes[i + 1]);
        return bigEndian ? static_cast<char32_t>(a << 8 | b) : static_cast<char32_t>(b << 8 | a);
    };
    for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
        char32_t c = unit(i);
        if (c >= 0xD800 && c < 0xDC00 && i + 3 < bytes.size()) {
            const char32_t low = unit(i + 2);
            if (low >= 0xDC00 && low < 0xE000) {
                c = 0x10000 + ((c - 0xD800) << 10) + (low - 0xDC00);
                i += 2;
            }
        }
        appendUtf8(out, c >= 0xD800 && c < 0xE000 ? U'\uFFFD' : c); // half a pair is no character
    }
    return out;
}

/// Eight bytes at a time: logs of 100 MB are common.
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

/// Bytes of the character that begins at `i`, or 0 where none does: no overlong forms, no surrogates, nothing
/// above U+10FFFF (RFC 3629).
std::size_t utf8Length(std::string_view s, std::size_t i) {
    const auto at = [&](std::size_t k) { return static_cast<unsigned char>(s[k]); };
    const auto c = at(i);
    if (c < 0x80) return 1;
    const std::size_t length = c >= 0xC2 && c < 0xE0   ? 2
                               : c >= 0xE0 && c < 0xF0 ? 3
                               : c >= 0xF0 && c < 0xF5 ? 4
                                                       : 0;
    if (length == 0 || i + length > s.size()) return 0;
    for (std::size_t k = 1; k < length; ++k)
        if ((at(i + k) & 0xC0) != 0x80) return 0;
    const auto second = at(i + 1);
    const bool outside = (c == 0xE0 && second < 0xA0) || (c == 0xED && second >= 0xA0) ||
                         (c == 0xF0 && second < 0x90) || (c == 0xF4 && second >= 0x90);
    return outside ? 0 : length;
}

bool validUtf8(std::string_view s) {
    for (std::size_t i = 0; i < s.size();) {
        const auto length = utf8Length(s, i);
        if (length == 0) return false;
        i += length;
    }
    return true;
}

/// Whether a line is too long for a table of numbers; looked at before anything is made of it.
bool hasEndlessLine(std::string_view s) {
    for (std::size_t from = 0; from < s.size();) {
        const void* end = std::memchr(s.data() + from, '\n', s.size() - from);
        const auto to = end ? static_cast<std::size_t>(static_cast<const char*>(end) - s.data()) : s.size();
        if (to - from > mostLineBytes) { // unless it is many that end in CR
            for (auto at = from; at < to;) {
                const auto next = std::min(s.find('\r', at), to);
                if (next - at > mostLineBytes) return true;
                at = next + 1;
            }
        }
        from = to + 1;
    }
    return false;
}

Expected<void> decodeAny(std::string_view bytes, Text& out) {
    if (bytes.empty()) return fail("the file is empty");
    out.encoding = "UTF-8";
    if (bytes.starts_with("\xEF\xBB\xBF")) {
        while (bytes.starts_with("\xEF\xBB\xBF")) // one more of each program that it went through
            bytes.remove_prefix(3);
    } else if (auto wide = fromUtf32(bytes)) {
        out.encoding = "UTF-32";
        out.storage = std::move(*wide);
        out.view = out.storage;
        return {};
    } else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF")) {
        out.encoding = "UTF-16";
        out.storage = fromUtf16(bytes.substr(2), bytes[0] == '\xFE');
        out.view = out.storage;
        return {};
    }
    const auto head = bytes.substr(0, 4096);
    std::size_t zeros[2] = {0, 0}, control = 0;
    for (std::size_t i = 0; i < head.size(); ++i) {
        const auto c = static_cast<unsigned char>(head[i]);
        zeros[i % 2] += c == 0;
        control += c < 32 && c != '\t' && c != '\n' && c != '\r' && c != '\f' && c != 0;
    }
    const std::size_t half = head.size() / 2;
    if (half > 4 && control == 0 && (zeros[0] > half * 7 / 10) != (zeros[1] > half * 7 / 10)) {
        out.encoding = "UTF-16";
        out.storage = fromUtf16(bytes, zeros[0] > zeros[1]);
        out.view = out.storage;
        return {};
    }
    if (control > head.size() / 50 || zeros[0] + zeros[1] == head.size())
        return fail("this is not a text file: a log of numbers in lines is needed");
    if (std::memchr(bytes.data(), 0,
                    bytes.size())) { // a block that was reserved but never written, as after a power cut
        out.storage = bytes;
        std::replace(out.storage.begin(), out.storage.end(), '\0', ' ');
        bytes = out.storage;
    }
    if (isAscii(bytes) || validUtf8(bytes)) {
        out.view = bytes;
        return {};
    }
    auto decoded = fromCodePage(bytes);
    out.encoding = std::move(decoded.encoding);
    out.storage = std::move(decoded.text);
    out.view = out.storage;
    return {};
}

} // namespace

Expected<void> decode(std::string_view bytes, Text& out) {
    if (auto ok = decodeAny(bytes, out); !ok) return ok;
    if (hasEndlessLine(out.view))
        return fail("a line of it is longer than 1 MB: a log of numbers in lines is needed");
    return {};
}

std::string_view shortened(std::string_view text, std::size_t most) {
    if (text.size() <= most) return text;
    while (most > 0 && (static_cast<unsigned char>(text[most]) & 0xC0) == 0x80)
        --most;
    return text.substr(0, most);
}

std::string noFormula(std::string_view text) {
    std::string out(text);
    const auto first = text.find_first_not_of(" \t\r\n");
    const auto lead = first == std::string_view::npos ? '\0' : text[first];
    if (lead == '=' || lead == '@' || ((lead == '+' || lead == '-') && !readNumber(text.substr(first), '.')))
        out.insert(0, 1, '\'');
    return out;
}

std::string csvField(std::string_view text) {
    const auto out = noFormula(text);
    if (out.find_first_of(",;\"\r\n\t") == std::string::npos) return out;
    std::string quoted = "\"";
    for (const char c : out)
        quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
    return quoted + '"';
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

namespace {

/// What a function of the library makes of a text in UTF-8; the text itself where it cannot.
template <class Make> std::string made(std::string_view text, Make make) {
    std::size_t length = 0;
    const std::unique_ptr<std::uint8_t, decltype(&std::free)> out(
        make(reinterpret_cast<const std::uint8_t*>(text.data()), text.size(), &length), &std::free);
    return out ? std::string(reinterpret_cast<const char*>(out.get()), length) : std::string(text);
}

} // namespace

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

std::vector<std::string_view> splitLines(std::string_view text, std::size_t most) {
    std::vector<std::string_view> lines;
    std::size_t i = 0;
    while (i < text.size() && lines.size() < most) {
        const std::size_t end = std::min(text.find_first_of("\r\n", i), text.size());
        lines.push_back(text.substr(i, end - i));
        i = end + 1;
        if (end + 1 < text.size() && text[end] == '\r' && text[end + 1] == '\n') ++i;
    }
    return lines;
}

} // namespace anvil::tables
