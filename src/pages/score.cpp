#include "choices.h"

#include <anvil/words/score_card.h>

namespace anvil::pages {

namespace {

void addWinners(Page& page, const Source& source, const View& view) {
    const auto metric = metricOf(source, view);
    auto winners = words::winnersByCondition(*source.study, source.verdict(metric),
                                             source.sureness ? &source.sureness(metric) : nullptr);
    if (winners.rows.empty()) return;
    page.add(section("First in each condition"));
    page.add(std::move(winners));
}

Offers offersOf(const std::vector<OfferedCriterion>& offered) {
    Offers out{"criteria", {}, "Everything that is known of these options is on the card."};
    for (const auto& [criterion, title] : offered)
        out.offers.push_back({title, {{"addCriterion", "Add to the card", AddCriterion{criterion}}}});
    return out;
}

Offers judgeByEye() {
    return {"byEye",
            {{"What no rig measures can be rated by eye.", {{"judge", "Judge by eye…", Ask::ratings}}}},
            {},
            false};
}

} // namespace

bool hasScore(const Source& source, const View&) {
    if (!source.card || !source.hasCard || source.study->pulls.empty() || source.study->options.size() < 2)
        return false;
    return source.hasCard() || (source.offered && source.offered().size() > 1); // there is something to weigh
}

std::optional<Page> score(const Source& source, const View& view) {
    if (!hasScore(source, view)) return {};
    auto card = source.card(view.weights);
    const auto offered = source.offered ? source.offered() : std::vector<OfferedCriterion>{};
    Page page{"score", source.study->study.title, {}};
    if (!card) {
        page.add(
            paragraph(Paragraph::Style::lead,
                      "Different tests have different winners. Put what matters on one card, and weigh it."));
        page.add(offersOf(offered));
        page.add(judgeByEye());
        addWinners(page, source, view);
        return page;
    }
    page.add(Paragraph{Paragraph::Style::lead, words::winnerSentence(*card)});
    Weights weights{"weights", {}};
    for (const auto& c : card->criteria)
        weights.rows.push_back({words::criterionTitle(c), c.criterion.weight, words::shareText(c.share)});
    page.addBeside(section("What counts, and how much"));
    page.addBeside(std::move(weights));
    page.add(
        Figure{"scoreBars",
               [card = *card](double width, double height) { return chart::scoreBars(card, width, height); },
               "Scores of " + card->title + "."});
    page.add(Bullets{words::cardNotes(*card), "cardNotes", true});
    page.add(words::cardValues(*card, view.units));
    page.add(section("What else could count"));
    page.add(offersOf(offered));
    page.add(judgeByEye());
    page.add(
        paragraph(Paragraph::Style::small,
                  "In each criterion the best has 100 marks and the others their share of it, unless values "
                  "for 0 and 100 are set. Blanks count for nothing: a score is the mean of what is tested."));
    addWinners(page, source, view);
    return page;
}

} // namespace anvil::pages
