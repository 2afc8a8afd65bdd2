#include <anvil/project/input_commands.h>

#include "hear.h"
#include <anvil/project/plan_commands.h>
#include <anvil/results/evidence.h>
#include <anvil/results/inputs.h>

namespace anvil::project {

Expected<void> tellOfStudy(OpenProject& project, Id study, const methods::Input& input,
                           const std::string& text, const UnitOf& unitOf) {
    const auto* data = project.study(study);
    if (!data) return fail("There is no such study any more.");
    auto fields = results::withText(data->study.plan.inputs, input, text, unitOf);
    if (!fields) return tl::unexpected(fields.error());
    if (*fields == data->study.plan.inputs) return {};
    hear(project, study, results::methodOf(data->study.plan), *fields, data->study.plan.inputs);
    return changePlan(project, study,
                      OpenProject::tr("%1 of every piece").arg(QString::fromUtf8(input.title.data())),
                      [&](domain::Plan& p) { p.inputs = *fields; });
}

Expected<void> tellOfPiece(OpenProject& project, Id specimen, const methods::Input& input,
                           const std::string& text, const UnitOf& unitOf) {
    const auto* data = project.studyOfSpecimen(specimen);
    if (!data) return fail("There is no such piece any more.");
    const auto& piece = data->specimenAt(specimen);
    auto fields = results::withText(piece.inputs, input, text, unitOf);
    if (!fields) return tl::unexpected(fields.error());
    if (*fields == piece.inputs) return {};
    hear(project, data->study.id, results::methodOf(*data, piece), *fields, piece.inputs);
    return project.changeSpecimen(specimen,
                                  OpenProject::tr("%1: %2").arg(QString::fromStdString(piece.label),
                                                                QString::fromUtf8(input.title.data())),
                                  [&](domain::Specimen& s) { s.inputs = *fields; });
}

} // namespace anvil::project
