// A study made in a few words, for the tests of what is made of it.
#pragma once

#include <anvil/results/verdict.h>
#include <initializer_list>
#include <string>

namespace anvil::results {

/// A study of typed peaks: options A, B … in conditions, one list of values a square.
struct Maker {
    StudyData data;
    Readings readings;
    Id next = 100;

    Maker() { data.study.id = 1; }
    Maker& option(const char* name) {
        data.options.push_back({});
        data.options.back().id = static_cast<Id>(data.options.size());
        data.options.back().name = name;
        return *this;
    }
    Maker& condition(const char* name) {
        data.conditions.push_back({});
        data.conditions.back().id = static_cast<Id>(10 + data.conditions.size());
        data.conditions.back().name = name;
        return *this;
    }
    Pull& pull(Id option, Id condition, double value, Standing standing = Standing::counts) {
        Specimen s;
        s.id = next++;
        s.option = option;
        s.condition = condition;
        s.label = "P" + std::to_string(s.id);
        data.specimens.push_back(s);
        Pull p;
        p.id = next++;
        p.specimen = s.id;
        p.standing = standing;
        p.reason = standing == Standing::counts ? "" : "because";
        p.typed = TypedValue{metric("peak"), value, value, ""};
        data.pulls.push_back(p);
        return data.pulls.back();
    }
    Maker& square(Id option, Id condition, std::initializer_list<double> values) {
        for (const double v : values)
            pull(option, condition, v);
        return *this;
    }
    Verdict verdict(Metric metric = Metric()) const {
        return evaluate(data, readings, goalFor(data.study.goal, metric));
    }
};

} // namespace anvil::results
