// replicates, plan.
#include "numbers.h"
#include "output.h"

#include <QDateTime>
#include <anvil/plan/fairness.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <anvil/project/open_project.h>
#include <anvil/project/wall_clock.h>
#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

Expected<Output> replicates(double cv, double difference, double power) {
    if (!(cv > 0)) return fail("The coefficient of variation must be more than 0 %.");
    if (!(difference > 0)) return fail("The difference must be more than 0 %.");
    if (power > 0 && power < 1) power *= 100; // "0.8" is 80 %
    if (!(power >= 1 && power < 100)) return fail("The power must lie between 1 and 100 %, such as 80.");
    const auto n = stats::replicatesFor(cv / 100, difference / 100, power / 100);
    if (!n) return fail("No number of replicates up to 100 000 would show so small a difference.");
    return Output{{{"n_per_group", *n}}, fmt::format("{} of each\n", *n)};
}

/// The squares of a plan for scripts, and a line of each for people.
Json squareRows(const domain::StudyData& data, const results::Readings& readings,
                const results::Verdict& verdict, std::vector<std::vector<std::string>>& rows) {
    Json out = Json::array();
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            const auto room = plan::squareRoom(data, readings, verdict, o.id, c.id);
            const auto& h = room.load;
            int made = 0, pulled = 0;
            for (const auto& s : data.specimens) {
                if (s.option != o.id || s.condition != c.id) continue;
                ++made;
                pulled += std::any_of(data.pulls.begin(), data.pulls.end(),
                                      [&](const auto& x) { return x.specimen == s.id; });
            }
            const auto* square = data.study.plan.square(o.id, c.id);
            const bool known = h.upper > 0;
            out.push_back(
                {{"option", o.name},
                 {"condition", c.name},
                 {"replicates", data.study.plan.replicatesOf(o.id, c.id)},
                 {"struck", square && square->struck},
                 {"made", made},
                 {"pulled", pulled},
                 {"head_room", room.word.empty() ? Json(nullptr) : Json(room.word)},
                 {"expected_N", number(known ? std::optional(h.expected) : std::nullopt)},
                 {"upper_N", number(known ? std::optional(h.upper) : std::nullopt)},
                 {"limit_N", number(h.limit > 0 ? std::optional(h.limit) : std::nullopt)},
                 {"travel_upper_mm",
                  number(room.travel.upper > 0 ? std::optional(1000 * room.travel.upper) : std::nullopt)},
                 {"travel_limit_mm",
                  number(room.travel.limit > 0 ? std::optional(1000 * room.travel.limit) : std::nullopt)}});
            rows.push_back({o.name, c.name, fmt::format("{}", data.study.plan.replicatesOf(o.id, c.id)),
                            fmt::format("{}", made), fmt::format("{}", pulled),
                            room.word.empty() ? "not known" : room.word});
        }
    return out;
}

Json scoreRows(const domain::StudyData& data, const results::Verdict& verdict, std::string& said) {
    Json scores = Json::array();
    for (const auto& score : plan::scoreForecasts(data, verdict)) {
        scores.push_back({{"by", score.by.empty() ? Json(nullptr) : Json(score.by)},
                          {"squares", score.squares},
                          {"inside", score.inside},
                          {"measured_over_expected", score.ratio},
                          {"parts", score.parts},
                          {"parts_right", score.partsRight}});
        said += plan::sentence(score) + "\n";
    }
    return scores;
}

/// The steps of the preparation that are not done yet. Error: the recipe cannot be laid out in time.
Expected<Json> dueRows(const domain::StudyData& data, std::optional<plan::Instant> given, std::string& said) {
    Json due = Json::array();
    const auto now = given ? *given : static_cast<plan::Instant>(QDateTime::currentSecsSinceEpoch());
    const auto steps = project::wallTimetable(data, now);
    if (!steps) return tl::unexpected(steps.error());
    const auto iso = [](plan::Instant at) {
        return at ? Json(QDateTime::fromSecsSinceEpoch(at).toString("yyyy-MM-ddThh:mm:ss").toStdString())
                  : Json(nullptr);
    };
    for (const auto& s : *steps) {
        if (s.done) continue;
        due.push_back({{"step", s.name},
                       {"from", iso(s.earliest)},
                       {"latest", iso(s.latest)},
                       {"state", plan::word(s.state)}});
        said += fmt::format("{}: {}\n", s.name, plan::word(s.state));
    }
    return due;
}

Expected<Output> plan(const std::string& path, const std::string& title, const std::string& nowText) {
    const auto given = project::wallInstant(nowText);
    if (!nowText.empty() && !given)
        return fail("\"" + nowText + "\" is not a time: write it as 2026-05-04T09:00:00");
    auto opened = project::OpenProject::open(QString::fromStdString(path), store::Project::Access::readOnly);
    if (!opened) return tl::unexpected(opened.error());
    auto& project = **opened;
    const domain::StudyData* data = nullptr;
    for (const auto& s : project.studies())
        if (!data && (title.empty() || s.study.title == title)) data = &s;
    if (!data)
        return fail(title.empty() ? "The project has no study yet."
                                  : "The project has no study called \"" + title + "\".");
    const auto& p = data->study.plan;
    const auto& verdict = project.verdict(data->study.id, data->study.goal.metric);
    Json findings = Json::array();
    std::vector<std::vector<std::string>> rows{
        {"Option", "Condition", "Planned", "Made", "Pulled", "Head-room"}};
    const auto squares = squareRows(*data, project.readings(data->study.id), verdict, rows);
    Output out;
    out.text = table(rows);
    for (const auto& f : plan::fairness(*data, project.readings(data->study.id))) {
        findings.push_back({{"rule", f.rule},
                            {"sentence", f.sentence},
                            {"accepted", f.accepted ? Json(f.why) : Json(nullptr)}});
        out.text += f.sentence + "\n";
    }
    const auto scores = scoreRows(*data, verdict, out.text);
    const auto due = dueRows(*data, given, out.text);
    if (!due) return tl::unexpected(due.error());
    const auto t = plan::totals(*data);
    out.json = {{"study", data->study.title},
                {"replicates", t.replicates},
                {"squares", squares},
                {"cost", number(t.cost)},
                {"currency", t.currency.empty() ? Json(nullptr) : Json(t.currency)},
                {"pulling_s", number(t.pulling > 0 ? std::optional(t.pulling) : std::nullopt)},
                {"preparation_s", number(t.preparation > 0 ? std::optional(t.preparation) : std::nullopt)},
                {"forecasts", scores},
                {"fairness", findings},
                {"seed", p.runOrder.empty() ? Json(nullptr) : Json(p.seed)},
                {"run_list", p.runOrder},
                {"steps", *due}};
    Json unread = Json::array();
    for (const auto& [pull, why] : project.readings(data->study.id).unreadable) {
        const auto label = data->specimenAt(data->pull(pull)->specimen).label;
        unread.push_back({{"specimen", label}, {"sentence", why}});
        out.text +=
            fmt::format("{}: its curve cannot be read, so it is not among what was pulled. {}\n", label, why);
    }
    if (!unread.empty()) out.json["unread"] = unread;
    for (std::size_t i = 0; i < p.runOrder.size(); ++i)
        out.text += fmt::format("{}. {}\n", i + 1, p.runOrder[i]);
    return out;
}

} // namespace

void addPlanCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    struct Replicates {
        double cv = 0, difference = 0, power = 80;
    };
    const auto asked = std::make_shared<Replicates>();
    auto* r =
        app.add_subcommand("replicates", "How many of each show a difference: two-sided 5 %, equal groups");
    addNumber(*r, "--cv", asked->cv, "spread within a group, in percent of the mean")->required();
    addNumber(*r, "--difference", asked->difference, "difference to be seen, in percent")->required();
    addNumber(*r, "--power", asked->power, "chance of seeing it, in percent");
    commands.emplace_back(r, [asked] { return replicates(asked->cv, asked->difference, asked->power); });

    struct Which {
        std::string path, title, now;
    };
    const auto which = std::make_shared<Which>();
    auto* p = app.add_subcommand("plan", "What a study plans: squares, head-room, fairness, run list");
    p->add_option("PROJECT", which->path)->required();
    p->add_option("--study", which->title, "title; the first study if not given");
    p->add_option("--now", which->now, "the time to judge the preparation by; the clock's if not given");
    commands.emplace_back(p, [which] { return plan(which->path, which->title, which->now); });
}

} // namespace anvil::cli
