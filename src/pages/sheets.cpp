// Sheets of the plan for paper: run list, shopping and cutting.
#include <anvil/pages/page.h>
#include <anvil/pages/sheets.h>
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>
#include <anvil/tables/text.h>

#include <algorithm>
#include <fmt/format.h>

namespace anvil::pages {

Page runList(const domain::StudyData& data) {
    const auto& plan = data.study.plan;
    Page page{"run list", "Run list: " + data.study.title, {}};
    page.add(Heading{1, page.title});
    page.add(Paragraph{Paragraph::Style::lead, data.study.question});
    page.add(Paragraph{Paragraph::Style::small,
                       plan.runOrder.empty() ? "No order has been drawn yet."
                                             : fmt::format("Random blocks from seed {}{}.", plan.seed,
                                                           plan.reordered ? ", changed by hand" : "")});
    for (const auto& c : plan.cautions)
        page.add(Paragraph{Paragraph::Style::caution, c});
    words::Table t{"run list",
                   {{"number", "No.", true},
                    {"specimen", "Piece"},
                    {"option", "Option"},
                    {"condition", "Condition"},
                    {"batch", "Batch"},
                    {"peak", "Peak"},
                    {"remarks", "What broke, remarks"}},
                   {}};
    const std::string roomToWrite(20, ' ');
    for (const auto& label : plan.runOrder)
        for (const auto& s : data.specimens)
            if (s.label == label)
                t.rows.push_back({{std::to_string(t.rows.size() + 1), label, data.optionAt(s.option).name,
                                   data.conditionAt(s.condition).name, s.batch, roomToWrite, ""},
                                  s.id});
    if (!t.rows.empty()) page.add(std::move(t));
    for (auto& c : cautions())
        page.add(Paragraph{Paragraph::Style::caution, std::move(c)});
    return page;
}

std::string stockCsv(const domain::StudyData& data) {
    std::string out = "what,needed,made,unit_cost,cost,currency,supply\n";
    const auto number = [](const std::optional<double>& v) {
        return v ? quantity::shortest(*v) : std::string();
    };
    for (const auto& l : plan::stock(data))
        out += fmt::format("{},{},{},{},{},{},{}\n", tables::csvField(l.what), l.needed, l.made,
                           number(l.unitCost), number(l.cost), tables::csvField(l.currency),
                           tables::csvField(l.supply));
    return out;
}

Page stock(const domain::StudyData& data) {
    Page page{"stock", "Shopping and cutting: " + data.study.title, {}};
    page.add(Heading{1, page.title});
    words::Table t{"stock",
                   {{"what", "What"},
                    {"needed", "Needed", true},
                    {"made", "Made already", true},
                    {"each", "Each", true},
                    {"together", "Together", true},
                    {"supply", "Where it is got"}},
                   {}};
    for (const auto& l : plan::stock(data)) {
        const auto money = [&](const std::optional<double>& v) {
            return v ? quantity::fixed(*v, 2) + (l.currency.empty() ? "" : " " + l.currency)
                     : std::string("–");
        };
        t.rows.push_back({{l.what, std::to_string(l.needed), std::to_string(l.made), money(l.unitCost),
                           money(l.cost), l.supply},
                          0});
    }
    if (t.rows.empty())
        page.add(Paragraph{Paragraph::Style::plain, "The plan eats nothing yet."});
    else
        page.add(std::move(t));
    if (const auto total = plan::totals(data); total.cost)
        page.add(Paragraph{Paragraph::Style::lead,
                           fmt::format("Together {} {}.", quantity::fixed(*total.cost, 2), total.currency)});
    return page;
}

} // namespace anvil::pages
