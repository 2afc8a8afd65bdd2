// A study of three pieces with a load path, for the tests of what may break and what is next.
#pragma once

#include <anvil/domain/model.h>
#include <string>

namespace anvil::domain {

inline StudyData threePieces() {
    StudyData d;
    d.study.goal.part = "the fitting";
    d.study.plan.chain = {{"Fitting", 4000, 0.1, true, ""}, {"Net wire", 5000, 0.1, false, ""}};
    d.study.plan.connector = "8 mm shackle";
    for (int i = 1; i <= 3; ++i) {
        Specimen s;
        s.id = i;
        s.label = "A1-" + std::to_string(i);
        d.specimens.push_back(s);
    }
    return d;
}

} // namespace anvil::domain
