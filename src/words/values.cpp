#include <anvil/words/values.h>

#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::words {

using quantity::withUnit;

std::string meanText(const stats::Summary& s, const quantity::Unit& unit) {
    using stats::TypicalBasis;
    if (!s.typical) return "–";
    const char* mark = s.bound == stats::Bound::above                 ? "at least "
                       : s.bound == stats::Bound::below               ? "at most "
                       : s.typicalBasis == TypicalBasis::median       ? "median "
                       : s.typicalBasis == TypicalBasis::fittedMedian ? "about "
                                                                      : "";
    if (s.typicalBasis == TypicalBasis::median)
        return mark + quantity::shortest(*s.typical); // steps have no decimals
    return mark + withUnit(*s.typical, unit);
}

std::string intervalText(const stats::Summary& s, const quantity::Unit& unit) {
    if (s.typicalInterval)
        return quantity::significant(unit.fromSi(s.typicalInterval->first)) + " to " +
               withUnit(s.typicalInterval->second, unit);
    if (s.n == 0) return "–";
    if (s.typicalBasis == stats::TypicalBasis::median) return "none for steps of a scale";
    return s.censored() ? "needs three exact values" : "needs two pulls";
}

std::string countText(const stats::Summary& s) {
    const std::size_t exact = s.n - s.above - s.below - s.between;
    std::string out = fmt::format("{}", exact);
    if (s.above) out += fmt::format(" + {} at least", s.above);
    if (s.below) out += fmt::format(" + {} at most", s.below);
    if (s.between) out += fmt::format(" + {} between", s.between);
    return out;
}

std::string valueText(const stats::Value& v, const quantity::Unit& unit, bool guess) {
    const char* mark = guess ? "~" : "";
    switch (v.bound) {
    case stats::Bound::above:
        return "at least " + (mark + withUnit(v.value, unit));
    case stats::Bound::below:
        return "at most " + (mark + withUnit(v.value, unit));
    case stats::Bound::between:
        return mark + quantity::significant(unit.fromSi(v.value)) + " to " + mark + withUnit(v.upper, unit);
    case stats::Bound::exact:
        break;
    }
    return mark + withUnit(v.value, unit);
}

const char* familyName(stats::Family family) {
    switch (family) {
    case stats::Family::normal:
        return "normal";
    case stats::Family::lognormal:
        return "log-normal";
    case stats::Family::weibull:
        return "Weibull";
    }
    return "";
}

std::string groupName(const domain::StudyData& data, const results::Group& group) {
    const auto& option = data.optionAt(group.option).name;
    return data.conditions.size() > 1 ? option + " in " + data.conditionAt(group.condition).name : option;
}

std::string listed(const std::vector<std::string>& names) {
    std::string out;
    for (std::size_t i = 0; i < names.size(); ++i)
        out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return out;
}

} // namespace anvil::words
