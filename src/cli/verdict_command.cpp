// verdict: everything a study's numbers may say.
#include "output.h"
#include "rows.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImage>
#include <QPainter>
#include <algorithm>
#include <anvil/chart/charts.h>
#include <anvil/chart/painter.h>
#include <anvil/methods/method.h>
#include <anvil/pages/page.h>
#include <anvil/plan/follow_ups.h>
#include <anvil/project/score_commands.h>
#include <anvil/results/needs.h>
#include <anvil/results/pairs_that_matter.h>
#include <anvil/results/sureness.h>
#include <anvil/results/treatment.h>
#include <anvil/results/trends.h>
#include <anvil/words/needs.h>
#include <anvil/words/score_card.h>
#include <anvil/words/sureness.h>
#include <anvil/words/verdict.h>
#include <tuple>

namespace anvil::cli {
namespace {

struct Asked {
    std::string project, study, metric, to;
    bool allPairs = false;
};

const domain::StudyData* studyOf(const project::OpenProject& project, const std::string& title) {
    for (const auto& s : project.studies())
        if (title.empty() || s.study.title == title) return &s;
    return nullptr;
}

Json groupRows(const domain::StudyData& data, const results::Verdict& verdict) {
    Json out = Json::array();
    for (const auto& g : verdict.groups) {
        auto row = groupRow(data, g);
        row["rank"] = g.rank > 0 ? Json(g.rank) : Json(nullptr);
        row["letters"] = g.letters;
        const auto& s = g.summary;
        row["typical"] = number(s.typical);
        row["typical_ci95"] = interval(s.typicalInterval);
        row["typical_basis"] = s.typical ? Json(stats::word(s.typicalBasis)) : Json(nullptr);
        out.push_back(std::move(row));
    }
    return out;
}

Json comparisonRows(const domain::StudyData& data, const results::Verdict& verdict,
                    const std::vector<bool>& given) {
    Json out = Json::array();
    const auto second = results::secondTests(verdict, given);
    for (std::size_t k = 0; k < verdict.pairs.size(); ++k) {
        if (!given[k]) continue;
        out.push_back(pairRow(data, verdict, verdict.pairs[k], second[k]));
        out.back()["ratio_ci_family"] = ratioInterval(stats::overFamily(verdict.pairs[k].comparison));
    }
    return out;
}

Json rankRows(const domain::StudyData& data, const results::Verdict& verdict, const results::Sureness& sure) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < verdict.groups.size(); ++i)
        if (verdict.groups[i].summary.n > 0) order.push_back(i);
    const auto place = [&](std::size_t i) {
        const auto* drawn = sure.placeOf(verdict, i);
        return std::tuple(data.conditionAt(verdict.groups[i].condition).name, !drawn,
                          drawn ? drawn->expected : 0);
    };
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return place(a) < place(b); });
    Json out = Json::array();
    for (const auto i : order)
        out.push_back(rankRow(data, verdict.groups[i], sure.placeOf(verdict, i)));
    return out;
}

/// Whose spread the draws took; of several conditions the pooled one where any took it.
Json spreadOf(const results::Sureness& sure) {
    Json out = nullptr;
    for (const auto& [condition, ranking] : sure.rankings)
        if (out.is_null() || ranking.spread == stats::DrawnSpread::pooled) out = stats::word(ranking.spread);
    return out;
}

Json needRows(const domain::StudyData& data, const results::Verdict& verdict) {
    Json out = Json::array();
    for (const auto& need : results::needsOf(verdict)) {
        const auto& g = verdict.groups[need.group];
        out.push_back({{"option", data.optionAt(g.option).name},
                       {"condition", named(data.conditionAt(g.condition).name)},
                       {"need", number(verdict.goal.need)},
                       {"verdict", results::word(need.verdict)},
                       {"p_next", number(need.nextMeets)}});
    }
    return out;
}

Json trendRow(const domain::StudyData& data, const results::Verdict& verdict) {
    const auto trends = results::trendsOf(data, verdict);
    if (trends.empty()) return nullptr;
    const double step = results::axisStep(data);
    Json options = Json::array();
    for (const auto& t : trends) {
        auto ends = t.slopeInterval;
        if (ends) ends = {ends->first * step, ends->second * step};
        options.push_back(
            {{"option", data.optionAt(t.option).name},
             {"slope_per_unit", number(t.line.slope * step)},
             {"slope_ci95", interval(ends)},
             {"theil_sen", number(t.medianSlope ? std::optional(*t.medianSlope * step) : std::nullopt)},
             {"verdict", results::word(t.verdict)}});
    }
    return {{"axis", data.study.plan.axis}, {"unit", named(results::axisUnit(data))}, {"options", options}};
}

Json treatmentRow(const domain::StudyData& data, const results::Verdict& verdict) {
    const auto all = results::treatmentsOf(data, verdict);
    if (all.empty()) return nullptr;
    const auto& t = all.front();
    return {{"control", data.conditionAt(t.control).name},
            {"treated", data.conditionAt(t.treated).name},
            {"ratio", number(t.pooled.ratio)},
            {"ratio_ci95", interval(t.pooled.ratioInterval)},
            {"p", number(t.pooled.p)},
            {"interaction_p", number(t.pooled.interactionP)},
            {"squares", 2 * t.pooled.options}};
}

/// Scores are of 100, shares from 0 to 1, as chances are.
Json scoreRow(const std::optional<results::CardResult>& card, Output& out) {
    if (!card) return nullptr;
    Json criteria = Json::array(), options = Json::array();
    for (const auto& c : card->criteria)
        criteria.push_back(
            {{"criterion", c.criterion.name}, {"weight", c.criterion.weight}, {"separates", c.separates}});
    const auto marks = [](const std::optional<double>& share) {
        return number(share ? std::optional(100 * *share) : std::nullopt);
    };
    for (std::size_t i = 0; i < card->options.size(); ++i) {
        const auto& s = card->scores[i];
        options.push_back({{"option", card->options[i]},
                           {"score", marks(s.score)},
                           {"tested_weight", s.tested},
                           {"win_share", s.wins},
                           {"worst", marks(s.worst)},
                           {"best", marks(s.best)}});
    }
    out.text += words::winnerSentence(*card) + "\n";
    for (const auto& note : words::cardNotes(*card))
        out.text += note + "\n";
    return {{"card", card->title}, {"criteria", criteria}, {"options", options}};
}

/// The answer as a picture: who leads, and the strength ladder. Error: another kind of file, or it cannot be
/// written.
Expected<void> draw(const domain::StudyData& data, const results::Verdict& verdict,
                    const results::Sureness& sure, const std::string& to) {
    chart::loadFonts();
    constexpr double wide = 900, sharp = 2;
    const auto picture = chart::underSentences(
        words::headlines(data, verdict, &sure),
        chart::ladder(data, verdict, methods::unitFor(*verdict.goal.metric, quantity::unitsFrom("N", "mm")),
                      wide));
    const auto suffix = QFileInfo(QString::fromStdString(to)).suffix().toLower();
    if (suffix == "svg") return writeFile(to, chart::toSvg(picture, chart::lightPalette()));
    if (suffix != "png") return fail(to + ": the answer is drawn as .png or .svg");
    QImage image((QSizeF(picture.width, picture.height) * sharp).toSize(),
                 QImage::Format_ARGB32_Premultiplied);
    image.fill(chart::color(chart::lightPalette(), chart::Ink::paper));
    QPainter painter(&image);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.scale(sharp, sharp);
    chart::paint(painter, picture, chart::lightPalette());
    painter.end();
    QBuffer png;
    png.open(QIODevice::WriteOnly);
    if (!image.save(&png, "PNG")) return fail(to + " cannot be drawn.");
    return writeFile(to, png.data().toStdString());
}

/// What is said of a verdict, in rows and in lines.
void tell(Output& out, const domain::StudyData& data, const results::Verdict& verdict,
          const results::Sureness& sure) {
    Json next = Json::array(), odd = Json::array(), cautions = Json::array(), headlines = Json::array();
    for (const auto& line : words::headlines(data, verdict, &sure)) {
        headlines.push_back(line);
        out.text += line + "\n";
    }
    const auto& unit = quantity::siUnit(verdict.goal.metric->dimension);
    for (const auto& need : results::needsOf(verdict))
        out.text += words::sentence(data, verdict, need, unit) + "\n";
    for (const auto& o : sure.odd)
        odd.push_back({{"specimen", data.specimenAt(o.specimen).label},
                       {"sentence", words::sentence(data, verdict, o)}});
    for (const auto& line : words::sentences(data, verdict, sure.odd))
        out.text += line + "\n";
    for (const auto& f : plan::followUps(data, verdict, &sure)) {
        next.push_back({{"action", plan::word(f.remedy)}, {"sentence", f.sentence}});
        out.text += f.sentence + " (" + plan::effortText(f) + ")\n";
    }
    for (const auto& caution : pages::cautions())
        cautions.push_back(caution);
    out.json["headlines"] = headlines;
    out.json["cautions"] = cautions;
    out.json["next"] = next;
    out.json["needs"] = needRows(data, verdict);
    out.json["odd"] = odd;
}

Expected<Output> verdictOf(const Asked& asked) {
    auto opened =
        project::OpenProject::open(QString::fromStdString(asked.project), store::Project::Access::readOnly);
    if (!opened) return tl::unexpected(opened.error());
    auto& project = **opened;
    const auto* data = studyOf(project, asked.study);
    if (!data)
        return fail(asked.study.empty() ? "The project has no study yet."
                                        : "The project has no study called \"" + asked.study + "\".");
    auto metric = data->study.goal.metric;
    if (!asked.metric.empty()) {
        const auto found = domain::metricFromKey(asked.metric, data->study.plan.method);
        if (!found) return fail("There is no metric with the key \"" + asked.metric + "\" in this study.");
        metric = *found;
    }
    const auto& verdict = project.verdict(data->study.id, metric);
    const auto& sure = project.sureness(data->study.id, metric);
    if (!asked.to.empty())
        if (const auto drawn = draw(*data, verdict, sure, asked.to); !drawn)
            return tl::unexpected(drawn.error());
    const auto& unit = quantity::siUnit(metric->dimension);
    Output out;
    const auto given = results::pairsGiven(verdict, data->options.size(), asked.allPairs);
    out.json = {{"study", data->study.title},
                {"method", named(data->study.plan.method)},
                {"metric", std::string(metric->key)},
                {"unit", named(std::string(unit.symbol))},
                {"sense", domain::key(verdict.goal.sense)},
                {"groups", groupRows(*data, verdict)},
                {"comparisons", comparisonRows(*data, verdict, given)},
                {"ranking", rankRows(*data, verdict, sure)},
                {"spread", spreadOf(sure)}};
    if (const auto leftOut = std::count(given.begin(), given.end(), false); leftOut > 0)
        out.json["comparisons_left_out"] = leftOut; // of more than 60 options only
    tell(out, *data, verdict, sure);
    out.json["trend"] = trendRow(*data, verdict);
    out.json["treatment"] = treatmentRow(*data, verdict);
    out.json["score"] = scoreRow(project::cardOf(project, data->study.id, {}), out);
    return out;
}

} // namespace

void addVerdictCommand(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands) {
    const auto asked = std::make_shared<Asked>();
    auto* v =
        app.add_subcommand("verdict", "What the numbers of a study say: who leads, how sure, what next");
    v->add_option("PROJECT", asked->project)->required();
    v->add_option("--study", asked->study, "title; the first study if not given");
    v->add_option("--metric", asked->metric,
                  "key of the metric to rank by; the one that decides if not given");
    v->add_option("--to", asked->to, "the answer as a picture: page.png or page.svg");
    v->add_flag("--all-pairs", asked->allPairs,
                "every pair of more than 60 options, not only those that matter");
    commands.emplace_back(v, [asked] { return verdictOf(*asked); });
}

} // namespace anvil::cli
