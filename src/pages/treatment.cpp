#include "choices.h"

#include <anvil/words/effects.h>

namespace anvil::pages {

std::optional<Page> treatment(const Source& source, const View& view) {
    const auto& data = *source.study;
    const auto& verdict = source.verdict(metricOf(source, view));
    const auto results = results::treatmentsOf(data, verdict);
    if (results.empty()) return {};
    Page page{"treatment", data.study.title, {}};
    page.add(metricChoice(source, view));
    for (const auto& result : results) {
        auto said = words::sentences(data, verdict, result);
        page.add(Paragraph{Paragraph::Style::lead, said.front()});
        said.erase(said.begin());
        page.add(Bullets{std::move(said), "treatmentSentences", true});
        page.add(Figure{"forest",
                        [rows = words::forestRows(data, result)](double width, double height) {
                            return chart::forest(rows, width, height);
                        },
                        "Effect of " + data.conditionAt(result.treated).name + " on each option."});
        page.add(words::treatmentTable(data, result));
    }
    page.add(paragraph(
        Paragraph::Style::small,
        "Typical values on a ratio scale, each option weighted by its pulls. Squares with pulls that say "
        "only \"at least\" count by the distribution fitted to them."));
    return page;
}

} // namespace anvil::pages
