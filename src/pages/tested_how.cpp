#include "tested_how.h"

#include <anvil/domain/rating.h>
#include <anvil/methods/method.h>
#include <anvil/quantity/print.h>
#include <cctype>
#include <fmt/format.h>
#include <set>

namespace anvil::pages {
namespace {

using quantity::withUnit;

/// A rig in a sentence or two.
std::string rigText(const rig::Setup& setup, const quantity::Units& units) {
    const auto& unit = units.of(rig::recordedLoad(setup));
    std::vector<std::string> said;
    if (const auto ratio = rig::ratioOf(setup.path); ratio && !setup.path.empty())
        said.push_back(rig::sentence(*ratio));
    if (const auto limit = rig::limitOf(setup))
        said.push_back(fmt::format("It can show {}.", withUnit(*limit, unit)));
    const auto& record = setup.calibration;
    if (!record.points.empty())
        said.push_back(fmt::format("Calibrated at {} points{}{}.", record.points.size(),
                                   record.from.empty() ? "" : " on " + record.from,
                                   record.until.empty() ? "" : ", good until " + record.until));
    if (!record.checks.empty())
        said.push_back("Last look at a known weight: " + rig::sentence(record.checks.back(), unit));
    if (setup.practice) said.emplace_back("It is a virtual bench.");
    return fmt::format("On {}.{}{}", setup.name, said.empty() ? "" : " ", fmt::join(said, " "));
}

} // namespace

std::vector<std::string> testedHow(const Source& source, const quantity::Units& units) {
    const auto& study = source.study->study;
    const auto& plan = study.plan;
    std::vector<std::string> out;
    if (const auto* method = methods::find(plan.method)) {
        std::string tells(method->measures);
        tells[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(tells[0])));
        auto line = fmt::format("{}: it tells {}", method->title, tells);
        out.push_back(line.ends_with('.') ? line : line + '.');
    }
    if (!study.goal.part.empty())
        out.push_back(fmt::format("The strength asked for is that of {}.", study.goal.part));
    if (plan.speed)
        out.push_back(fmt::format("Pulled at {}.", withUnit(*plan.speed, quantity::unit("mm/s"))));
    if (!plan.connector.empty()) out.push_back(fmt::format("Joined to the rig by: {}.", plan.connector));
    if (plan.joints > 1)
        out.push_back(
            fmt::format("Each piece carries {} joints: the one that fails counts, the others held at "
                        "least that and are listed beside it.",
                        plan.joints));
    if (!plan.ratingWords.empty())
        out.push_back(fmt::format("The steps of the scale: {}.", domain::ratingWordsText(plan.ratingWords)));
    std::set<domain::Id> used;
    for (const auto& p : source.study->pulls)
        used.insert(p.setup);
    for (const auto& [id, setup] : source.setups)
        if (used.contains(id)) out.push_back(rigText(setup, units));
    return out;
}

} // namespace anvil::pages
