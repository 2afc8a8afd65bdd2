#include <anvil/pages/write.h>

#include <algorithm>
#include <fmt/format.h>

namespace anvil::pages {
namespace {

constexpr const char* style =
    R"(body{font-family:"Anvil Sans",system-ui,sans-serif;color:#23282c;background:#fff;max-width:760px;margin:2rem auto;padding:0 1rem;line-height:1.45;overflow-wrap:anywhere}
h1{font-size:1.7rem;margin:0 0 .3rem}h2{font-size:1.2rem;margin:2rem 0 .5rem;border-bottom:2px solid #a83b16;padding-bottom:.2rem}h3{font-size:1rem;margin:1.2rem 0 .4rem}
.lead{font-size:1.1rem}.small,figcaption{font-size:.85rem;color:#55595d}.caution{border-left:4px solid #9a5b00;padding-left:.8rem}
.scroll{overflow-x:auto}table{border-collapse:collapse;font-size:.85rem;width:100%}th,td{text-align:left;padding:.25rem .5rem;border-bottom:1px solid #d9d5cb;vertical-align:top}
td.n,th.n{text-align:right;font-variant-numeric:tabular-nums;white-space:nowrap}figure{margin:1rem 0}svg{max-width:100%;height:auto})";

std::string escaped(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else if (c == '&')
            out += "&amp;";
        else if (c == '"')
            out += "&quot;";
        else
            out += c;
    }
    return out;
}

struct ToHtml {
    std::string& out;

    void operator()(const Heading& h) const {
        out += fmt::format("<h{0}>{1}</h{0}>\n", h.level, escaped(h.text));
    }
    void operator()(const Paragraph& p) const {
        static constexpr const char* names[] = {"plain", "lead", "small", "caution"};
        static_assert(std::size(names) == static_cast<std::size_t>(Paragraph::Style::caution) + 1);
        out += fmt::format("<p class=\"{}\">{}</p>\n", names[static_cast<int>(p.style)], escaped(p.text));
    }
    void operator()(const Bullets& b) const { list(b.items); }
    void operator()(const words::Table& t) const {
        out += "<div class=\"scroll\"><table>\n<thead><tr>";
        for (const auto& c : t.columns)
            cell("th", c, c.title);
        out += "</tr>\n</thead>\n<tbody>\n";
        for (const auto& row : t.rows) {
            out += "<tr>";
            for (std::size_t i = 0; i < t.columns.size(); ++i)
                cell("td", t.columns[i], row.cells[i]);
            out += "</tr>\n";
        }
        out += "</tbody></table></div>\n";
    }
    void operator()(const Figure& f) const {
        out += "<figure>\n" + chart::toSvg(f.draw(Figure::paperWidth, 0), chart::lightPalette()) +
               "<figcaption>" + escaped(f.caption) + "</figcaption></figure>\n";
    }
    void operator()(const Choice& c) const {
        if (const auto* chosen = c.chosenTitle())
            (*this)(Paragraph{Paragraph::Style::small, fmt::format("{}: {}.", c.title, *chosen)});
    }
    void operator()(const Offers& o) const {
        if (o.offers.empty())
            (*this)(Paragraph{Paragraph::Style::plain, o.none});
        else
            list(o.sentences());
    }
    void operator()(const Weights& w) const { list(w.lines()); }

private:
    void list(const std::vector<std::string>& items) const {
        out += "<ul>\n";
        for (const auto& item : items)
            out += "<li>" + escaped(item) + "</li>\n";
        out += "</ul>\n";
    }
    void cell(const char* tag, const words::TableColumn& column, const std::string& text) const {
        out += fmt::format("<{0}{1}>{2}</{0}>", tag, column.number ? " class=\"n\"" : "", escaped(text));
    }
};

} // namespace

std::string toHtml(const Page& page) {
    auto out = fmt::format("<!doctype html>\n<html lang=\"en\">\n<head><meta charset=\"utf-8\"><meta "
                           "name=\"viewport\" content=\"width=device-width\">"
                           "<title>{}</title>\n<style>{}</style></head>\n<body>\n",
                           escaped(page.title), style);
    for (const auto& block : page.blocks)
        std::visit(ToHtml{out}, block);
    return out + "</body></html>\n";
}

} // namespace anvil::pages
