#include "choices.h"

#include <algorithm>
#include <anvil/results/evidence.h>
#include <anvil/words/devices.h>

namespace anvil::pages {

bool hasDevices(const Source& source, const View&) {
    return source.table && source.table() && results::methodOf(source.study->study.plan).key == "advantage";
}

std::optional<Page> devices(const Source& source, const View& view) {
    if (!hasDevices(source, view)) return {};
    const auto& data = *source.study;
    Page page{"devices", data.study.title, {}};
    const auto study = results::devicesOf(*source.table());
    const bool reeved = !data.study.plan.reevings.empty();
    if (study) {
        for (auto& line : words::deviceSentences(data, *study))
            page.add(Paragraph{Paragraph::Style::lead, std::move(line)});
        page.add(Figure{
            "devices",
            [devices = study->devices](double width, double) { return chart::deviceLadder(devices, width); },
            "What each device passes on, with twice its standard error each way"});
        page.add(words::deviceTable(*study));
    } else {
        page.add(Paragraph{Paragraph::Style::lead, study.error().message});
    }
    page.add(Offers{
        "reevings",
        {{reeved ? "Over which devices each option's line runs:"
                 : "Say over which devices each option's line runs, and what each of them passes on is told.",
          {{"changeReevings", "Set them…", Ask::reevings}}}},
        {}});
    if (!study) return page;
    page.add(section("Each reeving, and what its devices would give"));
    page.add(words::reevingTable(data, *study));
    if (study->orders.size() > 1) {
        page.add(section("The same devices in every order"));
        page.add(words::orderTable(*study));
    }
    page.add(paragraph(
        Paragraph::Style::small,
        "An advantage of e0 (1 + e1 + e1 e2 + …), e1 nearest to the hand, fitted by least squares to the "
        "means of all reevings."));
    return page;
}

} // namespace anvil::pages
