// Sheets of the plan for paper: run list, shopping and cutting.
#include <anvil/plan/replication.h>
#include <anvil/quantity/print.h>
#include <anvil/report/document.h>
#include <anvil/tables/text.h>

#include <algorithm>
#include <fmt/format.h>

namespace anvil::report {
namespace {

QString text(const std::string& s) { return QString::fromStdString(s); }

} // namespace

Document runListDocument(const domain::StudyData& data) {
    const auto& plan = data.study.plan;
    Document d;
    d.title = QStringLiteral("Run list: %1").arg(text(data.study.title));
    d.blocks.push_back(Heading{1, d.title});
    d.blocks.push_back(Paragraph{Paragraph::Style::lead, text(data.study.question)});
    d.blocks.push_back(
        Paragraph{Paragraph::Style::small, plan.runOrder.empty()
                                               ? QStringLiteral("No order has been drawn yet.")
                                               : QStringLiteral("Random blocks from seed %1%2.")
                                                     .arg(plan.seed)
                                                     .arg(plan.reordered ? ", changed by hand" : "")});
    for (const auto& c : plan.cautions)
        d.blocks.push_back(Paragraph{Paragraph::Style::caution, text(c)});
    Table t;
    t.header = {"No.", "Piece", "Option", "Condition", "Batch", "Peak", "What broke, remarks"};
    t.right = {true, false, false, false, false, false, false};
    int n = 0;
    for (const auto& label : plan.runOrder)
        for (const auto& s : data.specimens)
            if (s.label == label)
                t.rows.push_back({QString::number(++n), text(label), text(data.optionAt(s.option).name),
                                  text(data.conditionAt(s.condition).name), text(s.batch),
                                  QStringLiteral("                    "), QString()});
    if (!t.rows.empty()) d.blocks.push_back(std::move(t));
    for (const auto& c : cautions())
        d.blocks.push_back(Paragraph{Paragraph::Style::caution, c});
    return d;
}

std::string stockCsv(const domain::StudyData& data) {
    std::string out = "what,needed,made,unit_cost,cost,currency\n";
    const auto number = [](const std::optional<double>& v) {
        return v ? quantity::shortest(*v) : std::string();
    };
    for (const auto& l : plan::stock(data))
        out += fmt::format("{},{},{},{},{},{}\n", tables::csvField(l.what), l.needed, l.made,
                           number(l.unitCost), number(l.cost), tables::csvField(l.currency));
    return out;
}

Document stockDocument(const domain::StudyData& data) {
    Document d;
    d.title = QStringLiteral("Shopping and cutting: %1").arg(text(data.study.title));
    d.blocks.push_back(Heading{1, d.title});
    Table t;
    t.header = {"What", "Needed", "Made already", "Each", "Together"};
    t.right = {false, true, true, true, true};
    for (const auto& l : plan::stock(data)) {
        const auto money = [&](const std::optional<double>& v) {
            return v ? text(quantity::fixed(*v, 2) + (l.currency.empty() ? "" : " " + l.currency))
                     : QStringLiteral("–");
        };
        t.rows.push_back({text(l.what), QString::number(l.needed), QString::number(l.made), money(l.unitCost),
                          money(l.cost)});
    }
    if (t.rows.empty())
        d.blocks.push_back(Paragraph{Paragraph::Style::plain, "The plan eats nothing yet."});
    else
        d.blocks.push_back(std::move(t));
    if (const auto total = plan::totals(data); total.cost)
        d.blocks.push_back(Paragraph{Paragraph::Style::lead,
                                     QStringLiteral("Together %1 %2.")
                                         .arg(text(quantity::fixed(*total.cost, 2)), text(total.currency))});
    return d;
}

} // namespace anvil::report
