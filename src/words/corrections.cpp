#include <anvil/words/corrections.h>

#include <anvil/words/values.h>
#include <fmt/format.h>

namespace anvil::words {

std::string sentence(const domain::StudyData& data, const results::Corrected& c, const quantity::Unit& unit) {
    const auto text = [&](const std::optional<stats::Value>& v, const char* none) {
        if (!v) return std::string(none);
        return valueText(*v, unit) + (v->aside ? ", set aside" : "");
    };
    const auto* pull = data.pull(c.pull);
    const auto label = pull ? data.specimenAt(pull->specimen).label : std::string("a pull");
    return fmt::format("{} was published on {} as {} and is {} now{}.", label, c.published.substr(0, 10),
                       text(c.was, "without a value"), text(c.now, "without a value"),
                       c.why.empty() ? "; why has not been said yet"
                                     : fmt::format(", because {} ({})", c.why, c.at.substr(0, 10)));
}

} // namespace anvil::words
