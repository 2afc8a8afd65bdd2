// Pieces with typed pulls in every square of a study, through the project.
#pragma once

#include <anvil/project/open_project.h>
#include <functional>

namespace anvil::project {

/// `replicates` of each option in the first condition, labelled P1, P2 …; `value` of the n-th, from 1, in N.
inline Expected<Id> addTypedPulls(OpenProject& project, Id study, int replicates,
                                  const std::function<double(int)>& value, const char* batch = "") {
    const auto& data = *project.study(study);
    return project.run("Values", [&](store::Writer& w) {
        int n = 0;
        for (const auto& o : data.options)
            for (int r = 1; r <= replicates; ++r) {
                domain::Specimen s;
                s.study = study;
                s.option = o.id;
                s.condition = data.conditions.front().id;
                s.replicate = r;
                s.label = "P" + std::to_string(++n);
                s.batch = batch;
                domain::Pull p;
                p.specimen = w.add(s);
                p.performedAt = "2026-03-0" + std::to_string(r) + "T10:00:00";
                p.typed = domain::TypedValue{domain::Metric(), value(n), value(n), ""};
                w.add(p);
            }
    });
}

} // namespace anvil::project
