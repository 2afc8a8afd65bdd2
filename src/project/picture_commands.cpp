#include <anvil/project/picture_commands.h>

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/project/entry_commands.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace anvil::project {
namespace {

using quantity::Dimension;

constexpr std::string_view modeKey = "mode";

bool isMeasurable(Dimension dimension) {
    constexpr std::array all{Dimension::length, Dimension::angle, Dimension::area};
    return std::find(all.begin(), all.end(), dimension) != all.end();
}

/// The field with a new text among others, its own leg only.
std::vector<domain::FieldText> with(std::vector<domain::FieldText> fields, const std::string& key,
                                    const std::string& text) {
    const auto at = std::find_if(fields.begin(), fields.end(), [&](const auto& f) { return f.key == key; });
    if (at == fields.end())
        fields.push_back({key, text});
    else
        at->text = text;
    return fields;
}

Expected<void> enterMode(OpenProject& project, const domain::Pull& pull, const QString& what, double share) {
    if (!(share >= 0 && share <= 1)) return fail("A share of a failure is 0 to 100 %.");
    share = std::round(1000 * share) / 1000; // no outline is better than that
    return project.changePull(pull.id, what, [&](domain::Pull& p) {
        p.outcome.shares = {{p.outcome.mode, share}};
        if (share < 1) p.outcome.shares.push_back({"otherwise", 1 - share});
    });
}

const quantity::Unit* siOf(Dimension d) { return &quantity::siUnit(d); }

} // namespace

std::vector<MeasuredField> measuredFields(const domain::StudyData& data, const domain::Specimen& piece,
                                          const domain::Pull* pull) {
    std::vector<MeasuredField> out;
    const int legs = results::legCount(data, piece);
    for (const auto& input : results::methodOf(data, piece).inputs) {
        const bool typed = input.form == methods::Form::one || input.form == methods::Form::repeated;
        if (!pull && input.of == methods::Of::specimen) continue;
        for (const auto dimension : {std::optional(input.dimension), input.orElse}) {
            if (!dimension || !isMeasurable(*dimension)) continue;
            if (typed) out.push_back({std::string(input.key), std::string(input.title), *dimension});
            for (int leg = 1; input.form == methods::Form::perLeg && leg <= legs; ++leg)
                out.push_back({fmt::format("{}.{}", input.key, leg),
                               fmt::format("{}, leg {}", input.title, leg), *dimension});
        }
    }
    if (pull && !pull->outcome.mode.empty())
        out.push_back(
            {std::string(modeKey), fmt::format("Share of \"{}\"", pull->outcome.mode), Dimension::ratio});
    return out;
}

Expected<void> setMarks(OpenProject& project, Id attachment, const methods::PictureMarks& marks) {
    for (const auto& study : project.studies())
        for (const auto& a : study.attachments)
            if (a.id == attachment) {
                const auto before = a;
                auto changed = a;
                changed.marks = marks;
                auto done = project.run(OpenProject::tr("Measured on %1").arg(QString::fromStdString(a.name)),
                                        [&](store::Writer& w) { w.change(before, changed); });
                return done ? Expected<void>{} : tl::unexpected(done.error());
            }
    return fail("There is no such picture any more.");
}

Expected<void> enterMeasured(OpenProject& project, Id id, const std::string& key, const std::string& text) {
    const auto* data = project.studyOfPull(id);
    const auto* pull = data ? data->pull(id) : nullptr;
    if (!pull) return fail("There is no such pull any more.");
    const auto piece = data->specimenAt(pull->specimen);
    const auto what =
        OpenProject::tr("%1: %2").arg(QString::fromStdString(piece.label), QString::fromStdString(text));
    if (key == modeKey) {
        const auto share = quantity::parseEntry(text, Dimension::ratio);
        return share ? enterMode(project, *pull, what, share->si) : tl::unexpected(share.error());
    }
    const auto& method = results::methodOf(*data, piece);
    const auto* input = methods::inputNamed(method, key);
    if (!input) return fail(fmt::format("{} does not ask for \"{}\".", method.title, key));
    const auto entry = methods::entryOf(*input, text);
    if (!entry) return tl::unexpected(entry.error());
    if (input->of == methods::Of::specimen)
        return project.changeSpecimen(piece.id, what, [&](domain::Specimen& s) {
            s.inputs = with(s.inputs, key, quantity::print(*entry));
        });
    auto changed = *pull;
    changed.outcome.entered.fields = with(pull->outcome.entered.fields, key, quantity::print(*entry));
    if (const auto follows = results::measured(*data, changed, nullptr); !follows)
        return tl::unexpected(follows.error());
    const bool formOnly = !pull->curve && !pull->typed && pull->standing == domain::Standing::counts;
    if (!formOnly) return project.changePull(id, what, [&](domain::Pull& p) { p.outcome = changed.outcome; });
    const auto made =
        addEntry(project, {pull->specimen, pull->id, changed.outcome.entered.fields, siOf, pull->outcome.part,
                           pull->note, pull->performedAt, pull->operatorName});
    return made ? Expected<void>{} : tl::unexpected(made.error());
}

} // namespace anvil::project
