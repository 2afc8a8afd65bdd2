#include <anvil/tables/text.h>

#include "code_pages.h"
#include <algorithm>
#include <anvil/columns/number.h>
#include <cstdint>
#include <cstring>

namespace anvil::tables {

using namespace columns;

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

/// Start and end of a text, as devices put them around each line.
bool framesLines(unsigned char c) { return c == 2 || c == 3; }

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
        control += c < 32 && c != '\t' && c != '\n' && c != '\r' && c != '\f' && c != 0 && !framesLines(c);
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
    // A block that was reserved but never written, as after a power cut, and what frames a device's lines.
    const auto blank = [](char c) { return c == 0 || framesLines(static_cast<unsigned char>(c)); };
    if (std::any_of(bytes.begin(), bytes.end(), blank)) {
        out.storage = bytes;
        std::replace_if(out.storage.begin(), out.storage.end(), blank, ' ');
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
