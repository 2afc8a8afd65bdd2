#include "code_pages.h"

#include <anvil/tables/text.h>
#include <array>
#include <iconv.h>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr std::size_t headBytes = 8192;

class Converter {
public:
    explicit Converter(const char* from) : m_handle(iconv_open("UTF-8", from)) {}
    ~Converter() {
        if (usable()) iconv_close(m_handle);
    }
    Converter(const Converter&) = delete;
    Converter& operator=(const Converter&) = delete;
    bool usable() const {
        return m_handle !=
               reinterpret_cast<iconv_t>(-1); // NOLINT(performance-no-int-to-ptr): the call says so
    }

    /// The text, or nothing where a byte is no character; a character that is cut off at the end is left out.
    std::optional<std::string> operator()(std::string_view bytes) const {
        if (!usable()) return {};
        iconv(m_handle, nullptr, nullptr, nullptr, nullptr);
        std::string out(bytes.size() * 4 + 16, '\0');
        char* in = const_cast<char*>(bytes.data());
        char* to = out.data();
        std::size_t left = bytes.size(), room = out.size();
        if (iconv(m_handle, &in, &left, &to, &room) == static_cast<std::size_t>(-1) && left > 3) return {};
        out.resize(out.size() - room);
        return out;
    }

private:
    iconv_t m_handle;
};

struct Page {
    const char* name;
    const char* title;
    std::array<std::string_view, 10> words; ///< lower case, as headings use them
};

constexpr Page pages[] = {
    {"CP1251",
     "Windows-1251",
     {"врем", "сил", "нагрузк", "усили", "перемещ", "удлин", "образец", "масс", "вес", "время"}},
    {"KOI8-R",
     "KOI8-R",
     {"врем", "сил", "нагрузк", "усили", "перемещ", "удлин", "образец", "масс", "вес", "время"}},
    {"CP866",
     "DOS 866",
     {"врем", "сил", "нагрузк", "усили", "перемещ", "удлин", "образец", "масс", "вес", "время"}},
    {"CP1253",
     "Windows-1253",
     {"χρόν", "χρον", "δύναμ", "δυναμ", "φορτί", "μετατόπ", "μετατοπ", "βάρος", "επιμήκ", "δοκίμ"}},
    {"CP1250",
     "Windows-1250",
     {"siła", "czas [s]", "čas", "síla", "dráha", "erő", "idő", "przesunię", "wydłuż", "zatížen"}},
    {"CP1254", "Windows-1254", {"ağırlık", "yük (", "süre", "kuvvet (", "değiş", "zaman ("}},
    {"SHIFT_JIS", "Shift JIS", {"荷重", "時間", "変位", "試験", "力", "伸び"}},
    {"GB18030", "GB 18030", {"载荷", "时间", "位移", "负荷", "力", "拉力", "试样"}},
    {"BIG5", "Big5", {"載荷", "時間", "位移", "負荷", "力", "拉力", "試樣"}},
    {"EUC-KR", "EUC-KR", {"하중", "시간", "변위", "힘", "시험", "신율"}},
    {"CP850",
     "DOS 850",
     {"verlängerung", "länge", "größe", "déplacement", "température", "durée", "höhe", "zähler",
      "wägezelle"}},
    {"MACINTOSH",
     "Mac Roman",
     {"verlängerung", "länge", "größe", "déplacement", "température", "durée", "höhe", "zähler",
      "wägezelle"}},
};

/// How many of a page's words stand in a text.
std::size_t wordsOf(const Page& page, const std::string& text) {
    const auto lower = lowered(text);
    std::size_t found = 0;
    for (const auto word : page.words)
        found += !word.empty() && lower.find(word) != std::string::npos;
    return found;
}

/// Windows-1252 with what it leaves open read as Latin-1.
std::string western(std::string_view bytes) {
    static constexpr std::array<char32_t, 32> upper{
        0x20AC, 0x81,   0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021, 0x02C6, 0x2030, 0x0160,
        0x2039, 0x0152, 0x8D,   0x017D, 0x8F,   0x90,   0x2018, 0x2019, 0x201C, 0x201D, 0x2022,
        0x2013, 0x2014, 0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0x9D,   0x017E, 0x0178};
    std::string out;
    out.reserve(bytes.size());
    for (const char b : bytes) {
        const auto c = static_cast<unsigned char>(b);
        appendUtf8(out, c >= 0x80 && c < 0xA0 ? upper[c - 0x80U] : c);
    }
    return out;
}

} // namespace

void appendUtf8(std::string& out, char32_t c) {
    const auto byte = [&](unsigned v) { out += static_cast<char>(v); };
    if (c < 0x80) {
        byte(c);
    } else if (c < 0x800) {
        byte(0xC0 | (c >> 6));
        byte(0x80 | (c & 0x3F));
    } else if (c < 0x10000) {
        byte(0xE0 | (c >> 12));
        byte(0x80 | ((c >> 6) & 0x3F));
        byte(0x80 | (c & 0x3F));
    } else {
        byte(0xF0 | (c >> 18));
        byte(0x80 | ((c >> 12) & 0x3F));
        byte(0x80 | ((c >> 6) & 0x3F));
        byte(0x80 | (c & 0x3F));
    }
}

std::optional<std::string> fromUtf32(std::string_view bytes) {
    using namespace std::string_view_literals;
    bool little = bytes.starts_with("\xFF\xFE\0\0"sv), big = bytes.starts_with("\0\0\xFE\xFF"sv);
    const bool marked = little || big;
    if (!marked) { // of each four bytes three are nothing
        const auto head = bytes.substr(0, 4096);
        std::array<std::size_t, 4> zeros{};
        for (std::size_t i = 0; i < head.size(); ++i)
            zeros[i % 4] += head[i] == 0;
        const auto most = head.size() / 4 * 9 / 10;
        if (head.size() < 32) return {};
        little = zeros[1] > most && zeros[2] > most && zeros[3] > most && zeros[0] < most;
        big = zeros[0] > most && zeros[1] > most && zeros[2] > most && zeros[3] < most;
        if (!little && !big) return {};
    }
    std::string out;
    for (std::size_t i = marked ? 4 : 0; i + 3 < bytes.size(); i += 4) {
        char32_t c = 0;
        for (std::size_t k = 0; k < 4; ++k)
            c |= static_cast<char32_t>(static_cast<unsigned char>(bytes[i + (little ? k : 3 - k)]))
                 << (8 * k);
        appendUtf8(out, c > 0x10FFFF || (c >= 0xD800 && c < 0xE000) ? U'\uFFFD' : c);
    }
    return out;
}

Decoded fromCodePage(std::string_view bytes) {
    const Page* best = nullptr;
    std::size_t most = 0;
    for (const auto& page : pages) {
        const auto head = Converter(page.name)(bytes.substr(0, headBytes));
        if (!head) continue;
        if (const auto n = wordsOf(page, *head); n > most) {
            most = n;
            best = &page;
        }
    }
    if (best)
        if (auto all = Converter(best->name)(bytes)) return {std::move(*all), best->title};
    return {western(bytes), "Latin-1"};
}

} // namespace anvil::tables
