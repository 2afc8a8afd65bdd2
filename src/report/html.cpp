#include <anvil/report/document.h>

namespace anvil::report {
namespace {

constexpr const char* style =
    R"(body{font-family:"Anvil Sans",system-ui,sans-serif;color:#23282c;background:#fff;max-width:760px;margin:2rem auto;padding:0 1rem;line-height:1.45;overflow-wrap:anywhere}
h1{font-size:1.7rem;margin:0 0 .3rem}h2{font-size:1.2rem;margin:2rem 0 .5rem;border-bottom:2px solid #b2401a;padding-bottom:.2rem}h3{font-size:1rem;margin:1.2rem 0 .4rem}
.lead{font-size:1.1rem}.small,figcaption{font-size:.85rem;color:#55595d}.caution{border-left:4px solid #9a5b00;padding-left:.8rem}
.scroll{overflow-x:auto}table{border-collapse:collapse;font-size:.85rem;width:100%}th,td{text-align:left;padding:.25rem .5rem;border-bottom:1px solid #d9d5cb;vertical-align:top}
td.n,th.n{text-align:right;font-variant-numeric:tabular-nums;white-space:nowrap}figure{margin:1rem 0}svg{max-width:100%;height:auto})";

struct ToHtml {
    QString& out;

    void operator()(const Heading& h) const {
        out += QStringLiteral("<h%1>%2</h%1>\n").arg(h.level).arg(h.text.toHtmlEscaped());
    }
    void operator()(const Paragraph& p) const {
        static constexpr const char* names[] = {"plain", "lead", "small", "caution"};
        static_assert(std::size(names) == static_cast<std::size_t>(Paragraph::Style::caution) + 1);
        out += QStringLiteral("<p class=\"%1\">%2</p>\n")
                   .arg(QLatin1String(names[static_cast<int>(p.style)]), p.text.toHtmlEscaped());
    }
    void operator()(const Bullets& b) const {
        out += "<ul>\n";
        for (const auto& item : b.items)
            out += "<li>" + item.toHtmlEscaped() + "</li>\n";
        out += "</ul>\n";
    }
    void operator()(const Table& t) const {
        const auto cells = [&](const QStringList& row, const char* tag) {
            out += "<tr>";
            for (qsizetype i = 0; i < row.size(); ++i)
                out += QStringLiteral("<%1%2>%3</%1>")
                           .arg(QLatin1String(tag),
                                QLatin1String(t.right[static_cast<std::size_t>(i)] ? " class=\"n\"" : ""),
                                row[i].toHtmlEscaped());
            out += "</tr>\n";
        };
        out += "<div class=\"scroll\"><table>\n<thead>";
        cells(t.header, "th");
        out += "</thead>\n<tbody>\n";
        for (const auto& row : t.rows)
            cells(row, "td");
        out += "</tbody></table></div>\n";
    }
    void operator()(const Figure& f) const {
        out += "<figure>\n" + QString::fromStdString(chart::toSvg(f.picture, chart::lightPalette())) +
               "<figcaption>" + f.caption.toHtmlEscaped() + "</figcaption></figure>\n";
    }
};

} // namespace

QString toHtml(const Document& document) {
    QString out = QStringLiteral("<!doctype html>\n<html lang=\"en\">\n<head><meta charset=\"utf-8\"><meta "
                                 "name=\"viewport\" content=\"width=device-width\">"
                                 "<title>%1</title>\n<style>%2</style></head>\n<body>\n")
                      .arg(document.title.toHtmlEscaped(), QLatin1String(style));
    for (const auto& block : document.blocks)
        std::visit(ToHtml{out}, block);
    return out + "</body></html>\n";
}

} // namespace anvil::report
