#include "choices.h"

#include <anvil/chart/over_time.h>
#include <anvil/results/evidence.h>
#include <anvil/words/pull.h>

namespace anvil::pages {

bool hasCreep(const Source& source, const View&) {
    return results::methodOf(source.study->study.plan).key == "creep" &&
           !results::creepOf(*source.study).empty();
}

std::optional<Page> creep(const Source& source, const View& view) {
    if (!hasCreep(source, view)) return {};
    const auto& data = *source.study;
    Page page{"creep", data.study.title, {}};
    Choice time{"time",
                "Time",
                {{"linear", "as it went by", ShowTime{false}}, {"log", "by its logarithm", ShowTime{true}}},
                ""};
    time.chosen = view.logTime ? "log" : "linear";
    page.add(time);
    page.add(
        Figure{"creep",
               [&data, curves = results::creepOf(data), unit = view.units.length,
                log = view.logTime](double width, double height) {
                   return chart::creepLines(data, curves, *unit, {log, width, height > 0 ? height : 360});
               },
               "How each held load moved on; rings and dotted lines after it was taken off"});
    const auto told = results::methodOf(data.study.plan).metrics;
    const std::vector<domain::Metric> metrics(told.begin(), told.end());
    page.add(
        words::pullTable(data, *source.readings, metrics, view.units, source.timing).without({"remarks"}));
    page.add(
        paragraph(Paragraph::Style::small,
                  "Movement since the first reading under load. Creep per decade is the slope "
                  "against the logarithm of the time; a limit that was not reached says \"at least\" the "
                  "time watched."));
    return page;
}

} // namespace anvil::pages
