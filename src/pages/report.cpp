#include "tested_how.h"

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/plan/fairness.h>
#include <anvil/plan/forecasts.h>
#include <anvil/quantity/print.h>
#include <anvil/results/corrections.h>
#include <anvil/results/evidence.h>
#include <anvil/words/corrections.h>
#include <anvil/words/pull.h>
#include <anvil/words/ranked.h>
#include <anvil/words/verdict.h>
#include <anvil/words/why.h>
#include <fmt/format.h>

namespace anvil::pages {

std::vector<std::string> cautions() {
    return {"Stretched ropes, wires and springs store energy, and brittle parts fly: stand out of the line "
            "of pull, shield the specimen, protect eyes and hands.",
            "These results compare specimens tested here, in this way, once. They are no rating and no "
            "certificate, and one pull says nothing about repeated load.",
            "For lifting, life support, structures or vehicles follow local codes and the maker's "
            "instructions, and ask a licensed or competent person."};
}

bool reportOffers(std::string_view page) {
    static constexpr std::string_view toldOtherwise[] = {"answer", "pairs", "table"};
    return std::find(std::begin(toldOtherwise), std::end(toldOtherwise), page) == std::end(toldOtherwise);
}

namespace {

constexpr std::size_t mostMetrics = 3; // more columns would leave no room for what was said

/// The sections of a report, one after the other.
class Composer {
public:
    Composer(const Source& from, const View& view)
        : source(from), units(view.units), data(*from.study), metric(data.study.goal.metric),
          verdict(from.verdict(metric)), m_page{"report", data.study.title, {}} {}
    Page done() {
        title();
        corrected();
        found();
        ranked();
        otherPages();
        curves();
        pulls();
        expected();
        cautionsOfStudy();
        workedOut();
        end();
        return std::move(m_page);
    }

private:
    template <class B> void add(B block) { m_page.add(std::move(block)); }

    /// A section with a line for each; none where there are none.
    void section(const char* title, std::vector<std::string> lines, int level = 2) {
        if (lines.empty()) return;
        add(Heading{level, title});
        add(Bullets{std::move(lines)});
    }
    void title() {
        add(Heading{1, data.study.title});
        if (!data.study.question.empty()) add(Paragraph{Paragraph::Style::lead, data.study.question});
        add(Paragraph{Paragraph::Style::small,
                      fmt::format("{}, {}. {} pulls on {} options in {} condition{}.", source.project,
                                  source.date, data.pulls.size(), data.options.size(), data.conditions.size(),
                                  data.conditions.size() == 1 ? "" : "s")});
    }
    void found() {
        add(Heading{2, "What was found"});
        auto headlines =
            words::headlines(data, verdict, source.sureness ? &source.sureness(metric) : nullptr);
        if (headlines.empty()) {
            add(Paragraph{Paragraph::Style::plain,
                          "No pull has been recorded yet, so there is nothing to rank."});
            return;
        }
        add(Bullets{std::move(headlines)});
        if (const auto page = verdict.empty() ? std::nullopt : answer(source, {units}))
            for (const auto& block : page->blocks)
                if (std::holds_alternative<Figure>(block)) m_page.blocks.push_back(block);
        if (auto limits = words::limitsOfResults(data, verdict); !limits.empty())
            add(Bullets{std::move(limits)});
    }
    /// What was published before and is another now, before anything else is read.
    void corrected() {
        const auto* table = source.table ? source.table() : nullptr;
        if (!table) return;
        std::vector<std::string> lines;
        for (const auto& c : results::correctionsOf(*table, metric))
            lines.push_back(words::sentence(data, c, methods::unitFor(*metric, units)));
        section("Corrections", std::move(lines));
    }
    /// The pages of the verdict that the report does not tell of otherwise, but for those left out by hand.
    void otherPages() {
        const auto& leftOut = data.study.telling.leftOut;
        for (const auto& entry : registry()) {
            if (!reportOffers(entry.key) ||
                std::find(leftOut.begin(), leftOut.end(), entry.key) != leftOut.end())
                continue;
            auto page = entry.make(source, {units});
            if (!page) continue;
            add(Heading{2, std::string(entry.title)});
            for (auto& block : page->blocks)
                addFromPage(std::move(block));
        }
    }
    /// What can be chosen is left out. What could be done too, with the heading above it, but for what an
    /// offer says of the results.
    void addFromPage(Block block) {
        if (std::holds_alternative<Choice>(block)) return;
        const auto* offers = std::get_if<Offers>(&block);
        if (!offers) return m_page.blocks.push_back(std::move(block));
        if (offers->tells) return add(Bullets{offers->sentences(), offers->key, true});
        if (!m_page.blocks.empty())
            if (const auto* heading = std::get_if<Heading>(&m_page.blocks.back());
                heading && heading->level == 3)
                m_page.blocks.pop_back();
    }
    /// What every metric gives that any pull tells.
    void ranked() {
        auto metrics = results::metricsOf(data);
        if (std::find(metrics.begin(), metrics.end(), metric) == metrics.end()) metrics.push_back(metric);
        for (const auto& m : metrics) {
            const auto& v = source.verdict(m);
            if (v.empty()) continue;
            add(Heading{2, std::string(m->title)});
            for (const auto& c : data.conditions) {
                if (v.inCondition(c.id).empty()) continue;
                if (data.conditions.size() > 1) add(Heading{3, c.name});
                add(words::rankedTable(data, v, methods::unitFor(*m, units), c.id)
                        .without({"mean_minus_3sd", "drop_high_low"}));
            }
            if (m == metric) compared();
        }
    }
    /// Pairs of the deciding metric, and what would settle more.
    void compared() {
        if (auto page = pairs(source, {units}))
            for (auto& block : page->blocks)
                if (!std::holds_alternative<Choice>(block)) m_page.blocks.push_back(std::move(block));
        section("What would settle more", words::next(data, verdict), 3);
    }
    void curves() {
        bool headed = false;
        for (const auto& o : data.options)
            for (const auto& c : data.conditions) {
                auto chart = overlayOf(source, o.id, c.id, units, 300);
                if (chart.traces.empty()) continue;
                if (!headed) add(Heading{2, "Curves"});
                headed = true;
                chart.legend = true;
                add(Figure{"curves",
                           [chart = std::move(chart)](double width, double) {
                               return chart::curves(chart, width, 250);
                           },
                           o.name + ", " + c.name});
            }
    }
    /// The metrics a table of pulls has columns for: those that any pull tells, the deciding one always.
    std::vector<domain::Metric> columns() const {
        std::vector<domain::Metric> out;
        for (const auto& m : results::metricsOf(data))
            if (!source.verdict(m).empty()) out.push_back(m);
        if (out.size() > mostMetrics) out.resize(mostMetrics);
        if (std::find(out.begin(), out.end(), metric) == out.end()) {
            if (out.size() == mostMetrics) out.pop_back();
            out.push_back(metric);
        }
        return out;
    }
    void pulls() {
        section("How it was tested", testedHow(source, units));
        add(Heading{2, "Every pull"});
        add(words::pullTable(data, *source.readings, columns(), units, source.timing));
        words::Table steady;
        for (const auto& p : data.pulls) {
            const auto* s = data.specimen(p.specimen);
            if (!s || p.outcome.marks.empty() || !source.steady) continue;
            auto one = words::steadyTable(s->label, source.steady(p.id), units);
            if (steady.columns.empty()) steady = {one.key, one.columns, {}};
            std::move(one.rows.begin(), one.rows.end(), std::back_inserter(steady.rows));
        }
        if (steady.rows.empty()) return;
        add(Heading{2, "Every channel at the marked instants"});
        add(Paragraph{Paragraph::Style::small,
                      "Each over the second before its mark; s is the spread within it, the share "
                      "is of what the force channels beside the rig's own carry together."});
        add(std::move(steady));
    }
    /// Forecasts, and how fair it was.
    void expected() {
        std::vector<std::string> forecasts, fair;
        for (const auto& score : plan::scoreForecasts(data, verdict))
            forecasts.push_back(plan::sentence(score));
        section("What was expected", std::move(forecasts));
        for (const auto& f : plan::fairness(data, *source.readings))
            fair.push_back(f.sentence +
                           (f.accepted ? fmt::format(" Accepted, because {}.", f.why) : " Open."));
        section("How fair it was", std::move(fair));
    }
    void cautionsOfStudy() {
        if (data.study.plan.cautions.empty()) return;
        add(Heading{2, "Cautions of this study"});
        for (const auto& c : data.study.plan.cautions)
            add(Paragraph{Paragraph::Style::caution, c});
    }
    void workedOut() {
        section(
            "How it was worked out",
            {"Every curve is read by the same rule: zero from the unloaded start, spikes of up to three "
             "samples bridged, the peak is the greatest sample. Raw samples are kept unchanged.",
             "s is the standard deviation with n − 1; the interval is Student's t at 95 %. Where a group "
             "holds "
             "an \"at least\", mean and s are those of the law fitted to all its values (log-normal where no "
             "other is chosen), and the "
             "interval follows from the density of location and spread; with bounds alone the mean is \"at "
             "least\".",
             fmt::format(
                 "Pairs are compared by Welch's t-test, by the paired t-test where every block holds "
                 "one piece of each, and by 20 000 draws of both means where a side holds bounds; "
                 "p-values by Holm within a condition. \"The same\" means within {}, by two one-sided "
                 "tests.",
                 quantity::percent(data.study.goal.margin)),
             "The chance to be best is the share of 20 000 draws of all means in which it comes first.",
             "The 90/95 floor is what 90 % of all such pieces exceed, with 95 % confidence: mean − k·s with "
             "the "
             "factor of the normal law, or from the fitted law where values are bounds.",
             "Void pulls and those set aside are listed with their reason and are in no mean."});
    }
    void end() {
        if (!data.study.note.empty()) add(Paragraph{Paragraph::Style::plain, data.study.note});
        add(Heading{2, "Cautions"});
        for (auto& c : cautions())
            add(Paragraph{Paragraph::Style::caution, std::move(c)});
    }

    const Source& source;
    const quantity::Units& units;
    const domain::StudyData& data;
    domain::Metric metric;
    const results::Verdict& verdict;
    Page m_page;
};

} // namespace

Page report(const Source& source, const View& view) { return Composer(source, view).done(); }

} // namespace anvil::pages
