// The practice bench: what is hidden, and how the tester did.
#include <anvil/project/practice.h>

#include <algorithm>
#include <anvil/plan/run_order.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::project {

double practiceStrength(std::uint64_t seed, int option) {
    sim::Random random(seed);
    double strengths[3] = {1600, 1600 * random.uniform(1.08, 1.2), 0};
    strengths[2] = strengths[1] * random.uniform(1.08, 1.2);
    const int turn = static_cast<int>(random.uniform(0, 6)); // one of the six orders
    const int order[6][3] = {{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}};
    return strengths[order[turn][std::clamp(option, 0, 2)]];
}

Expected<Id> addPracticeStudy(OpenProject& project, std::uint64_t seed) {
    Id made = 0;
    auto entry = project.run(OpenProject::tr("Practice study"), [&](store::Writer& w) {
        domain::Study s;
        s.position = static_cast<int>(project.studies().size());
        s.title = "Practice";
        s.question = "Practice: which of three unknown pins is the strongest?";
        s.plan.practice = true;
        s.plan.replicates = 5;
        s.goal.part = "the pin";
        s.plan.method = "axial-pull";
        s.plan.seed = seed;
        made = w.add(s);
        domain::StudyData data;
        data.study = s;
        data.study.id = made;
        for (int k = 0; k < 3; ++k) {
            domain::Option o;
            o.study = made;
            o.position = k;
            o.name = std::string("Pin ") + static_cast<char>('A' + k);
            o.kind = "pin";
            o.id = w.add(o);
            data.options.push_back(o);
        }
        domain::Condition c;
        c.study = made;
        c.name = "Virtual bench";
        c.id = w.add(c);
        data.conditions.push_back(c);
        data.study.goal.control = data.options[0].id;
        for (auto& piece : domain::missingPieces(data)) {
            piece.batch = "made up";
            piece.id = w.add(piece);
            data.specimens.push_back(piece);
        }
        data.study.plan.runOrder = plan::drawRunOrder(data, seed);
        s.id = made;
        w.change(s, data.study);
    });
    if (!entry) return entry;
    return made;
}

std::vector<std::string> practiceScore(const domain::StudyData& data, const results::Readings& readings,
                                       const results::Verdict& verdict) {
    int read = 0, zeroed = 0, slack = 0, told = 0, even = 0;
    std::vector<double> rates;
    for (const auto& p : data.pulls) {
        const auto r = readings.byPull.find(p.id);
        if (!p.practice || r == readings.byPull.end()) continue;
        ++read;
        zeroed += std::abs(r->second.baseline) <= std::max(4 * r->second.noise, 0.01 * r->second.peak.load);
        slack += r->second.slack.value_or(0) < 0.003;
        told += domain::samePart(p.outcome.part, data.study.goal.part);
        if (r->second.loadRate) rates.push_back(*r->second.loadRate);
    }
    std::vector<std::string> out;
    const auto line = [&](bool good, const std::string& text) {
        out.push_back((good ? "\u2713 " : "\u2717 ") + text);
    };
    if (read == 0) return out;
    line(zeroed == read, fmt::format("{} of {} pulls were zeroed before the load came on.", zeroed, read));
    line(slack == read, fmt::format("The slack was taken up in {} of {}.", slack, read));
    if (!rates.empty()) {
        auto sorted = rates;
        std::sort(sorted.begin(), sorted.end());
        const double middle = sorted[sorted.size() / 2];
        for (const double rate : rates)
            even += std::abs(rate - middle) <= 0.3 * std::abs(middle);
        line(even == static_cast<int>(rates.size()),
             fmt::format("{} of {} were pulled at about the same rate.", even, rates.size()));
    }
    line(told == read,
         fmt::format("What broke was told right in {} of {}: it is always the pin here.", told, read));
    std::size_t least = verdict.groups.empty() ? 0 : verdict.groups.front().values.size();
    for (const auto& g : verdict.groups)
        least = std::min(least, g.values.size());
    line(verdict.groups.size() == 3 && least >= 3,
         fmt::format("{} of 3 pins were pulled, the least often {} times; three are needed at least.",
                     verdict.groups.size(), least));
    if (verdict.groups.size() == 3) {
        int strongest = 0;
        for (int k = 1; k < 3; ++k)
            if (practiceStrength(data.study.plan.seed, k) > practiceStrength(data.study.plan.seed, strongest))
                strongest = k;
        const auto* first = data.option(verdict.groups.front().option);
        const bool right = first && first->position == strongest;
        line(right, right ? fmt::format("The verdict is right: {} is the strongest.", first->name)
                          : fmt::format("The verdict is wrong: it was {}.",
                                        data.options[static_cast<std::size_t>(strongest)].name));
    }
    return out;
}

} // namespace anvil::project
