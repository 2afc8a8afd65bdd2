#include <anvil/pages/write.h>

#include <algorithm>
#include <fmt/format.h>

namespace anvil::pages {
namespace {

/// Columns a text takes on a terminal: its code points.
std::size_t width(std::string_view text) {
    return static_cast<std::size_t>(
        std::count_if(text.begin(), text.end(), [](char c) { return (c & 0xC0) != 0x80; }));
}

std::string padded(const std::string& text, std::size_t to, bool right) {
    const std::string space(to - std::min(to, width(text)), ' ');
    return right ? space + text : text + space;
}

struct ToText {
    std::string& out;

    void operator()(const Heading& h) const {
        out += h.text + "\n";
        if (h.level < 3) out += std::string(width(h.text), h.level == 1 ? '=' : '-') + "\n";
        out += "\n";
    }
    void operator()(const Paragraph& p) const {
        out += (p.style == Paragraph::Style::caution ? "! " : "") + p.text + "\n\n";
    }
    void operator()(const Bullets& b) const { list(b.items); }
    void operator()(const words::Table& t) const {
        std::vector<std::size_t> widths;
        for (std::size_t k = 0; k < t.columns.size(); ++k) {
            widths.push_back(width(t.columns[k].title));
            for (const auto& row : t.rows)
                widths[k] = std::max(widths[k], width(row.cells[k]));
        }
        const auto line = [&](const auto& cell) {
            std::string text;
            for (std::size_t k = 0; k < t.columns.size(); ++k)
                text += (k ? "  " : "") + padded(cell(k), widths[k], t.columns[k].number);
            text.erase(text.find_last_not_of(' ') + 1);
            out += text + "\n";
        };
        line([&](std::size_t k) { return t.columns[k].title; });
        for (const auto& row : t.rows)
            line([&](std::size_t k) { return row.cells[k]; });
        out += "\n";
    }
    void operator()(const Figure& f) const { out += "[" + f.caption + "]\n\n"; }
    void operator()(const Choice& c) const {
        if (const auto* chosen = c.chosenTitle()) out += fmt::format("{}: {}.\n\n", c.title, *chosen);
    }
    void operator()(const Offers& o) const {
        if (o.offers.empty())
            out += o.none + "\n\n";
        else
            list(o.sentences());
    }
    void operator()(const Weights& w) const { list(w.lines()); }

private:
    void list(const std::vector<std::string>& items) const {
        for (const auto& item : items)
            out += "- " + item + "\n";
        out += "\n";
    }
};

} // namespace

std::string toText(const Page& page) {
    std::string out;
    for (const auto& block : page.blocks)
        std::visit(ToText{out}, block);
    while (out.ends_with("\n\n"))
        out.pop_back();
    return out;
}

} // namespace anvil::pages
