#include <anvil/words/devices.h>

#include <anvil/quantity/print.h>
#include <anvil/words/values.h>
#include <fmt/format.h>
#include <fmt/ranges.h>

namespace anvil::words {
namespace {

std::string percentOf(double share) { return fmt::format("{:.1f} %", 100 * share); }

/// Of a name that begins a sentence.
std::string capital(std::string name) {
    if (!name.empty() && name[0] >= 'a' && name[0] <= 'z') name[0] = static_cast<char>(name[0] - 'a' + 'A');
    return name;
}

} // namespace

std::string devicesText(const methods::Reeving& reeving) {
    auto text = fmt::format("{}", fmt::join(reeving.devices, ", "));
    return reeving.redirect.empty() ? text
                                    : fmt::format("{}; led round at the hand by {}", text, reeving.redirect);
}

std::vector<std::string> deviceSentences(const domain::StudyData& data, const results::DeviceStudy& study) {
    std::vector<std::string> out;
    std::vector<const methods::DeviceEfficiency*> told, open;
    for (const auto& d : study.devices)
        (d.efficiency ? told : open).push_back(&d);
    if (told.size() > 1)
        out.push_back(fmt::format("{} passes on {} of what it gets, {} only {}.",
                                  capital(told.front()->device), percentOf(*told.front()->efficiency),
                                  told.back()->device, percentOf(*told.back()->efficiency)));
    else if (told.size() == 1)
        out.push_back(fmt::format("{} passes on {} of what it gets.", told.front()->device,
                                  percentOf(*told.front()->efficiency)));
    for (const auto* d : open)
        out.push_back(fmt::format(
            "{} cannot be told{}: these reevings never part them. Measure one in which they stand "
            "otherwise.",
            d->device, d->notApartFrom.empty() ? std::string() : " apart from " + listed(d->notApartFrom)));
    if (study.orders.size() > 1 && study.orders.front().advantage > study.orders.back().advantage * 1.001)
        out.push_back(fmt::format(
            "The best device belongs nearest to the hand: the devices of {} give {} as {}, and {} as {}.",
            data.optionAt(study.longest).name, quantity::significant(study.orders.front().advantage, 3),
            fmt::format("{}", fmt::join(study.orders.front().devices, ", ")),
            quantity::significant(study.orders.back().advantage, 3),
            fmt::format("{}", fmt::join(study.orders.back().devices, ", "))));
    return out;
}

Table deviceTable(const results::DeviceStudy& study) {
    Table t{"devices",
            {{"device", "Device"},
             {"efficiency", "Passes on", true},
             {"se", "Standard error", true},
             {"remark", "Remark"}},
            {}};
    for (const auto& d : study.devices)
        t.rows.push_back({{d.device, d.efficiency ? percentOf(*d.efficiency) : "cannot be told",
                           d.standardError ? percentOf(*d.standardError) : "–",
                           !d.notApartFrom.empty() ? "not apart from " + listed(d.notApartFrom)
                           : d.atLimit             ? "at the end of what can be: look at the readings"
                                                   : ""},
                          0});
    return t;
}

Table reevingTable(const domain::StudyData& data, const results::DeviceStudy& study) {
    Table t{"reevings",
            {{"option", "Option"},
             {"condition", "Condition"},
             {"devices", "Devices from the hand on"},
             {"n", "Pulls", true},
             {"measured", "Measured", true},
             {"predicted", "By its devices", true}},
            {}};
    for (const auto& r : study.reevings)
        t.rows.push_back(
            {{data.optionAt(r.option).name, data.conditionAt(r.condition).name, devicesText(r.hauled.reeving),
              fmt::format("{}", r.pulls), quantity::significant(r.hauled.advantage, 3),
              r.predicted ? quantity::significant(*r.predicted, 3) : "–"},
             0});
    return t;
}

Table orderTable(const results::DeviceStudy& study) {
    Table t{"orders", {{"devices", "Devices from the hand on"}, {"advantage", "Advantage", true}}, {}};
    for (const auto& o : study.orders)
        t.rows.push_back(
            {{fmt::format("{}", fmt::join(o.devices, ", ")), quantity::significant(o.advantage, 3)}, 0});
    return t;
}

} // namespace anvil::words
