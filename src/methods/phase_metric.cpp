#include <anvil/methods/phase_metric.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>
#include <map>
#include <memory>
#include <mutex>

namespace anvil::methods {
namespace {

using quantity::Dimension;

constexpr std::string_view prefix = "phase.";
constexpr std::array dimensions{Dimension::force, Dimension::length, Dimension::torque,
                                Dimension::angle, Dimension::time,   Dimension::speed};

/// A row with the texts it points to.
struct Row {
    std::string key, title, noun;
    Metric metric;
};

/// In lower case with single spaces, so that one phase has one row.
std::string plainName(std::string_view name) {
    std::string out;
    for (const char c : name) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isspace(u) != 0) {
            if (!out.empty() && out.back() != ' ') out += ' ';
        } else {
            out += u < 0x80 ? static_cast<char>(std::tolower(u)) : c;
        }
    }
    while (!out.empty() && out.back() == ' ')
        out.pop_back();
    return out;
}

} // namespace

const Metric& phaseMetric(std::string_view phase, Dimension dimension) {
    static std::mutex guard;
    static std::map<std::string, std::unique_ptr<Row>, std::less<>> rows;
    const auto name = plainName(phase);
    const auto what = quantity::name(dimension);
    auto key = fmt::format("{}{}.{}", prefix, what, name);
    const std::lock_guard lock(guard);
    auto& row = rows[key];
    if (row) return row->metric;
    row = std::make_unique<Row>();
    row->key = std::move(key);
    row->title = fmt::format("Phase \"{}\": {}", name, what);
    row->noun = fmt::format("{} in the phase \"{}\"", what, name);
    const bool load = dimension == Dimension::force || dimension == Dimension::torque;
    row->metric = {.key = row->key,
                   .title = row->title,
                   .noun = row->noun,
                   .dimension = dimension,
                   .sense = load ? Sense::more : Sense::less};
    return row->metric;
}

const Metric* phaseMetricOf(std::string_view key) {
    if (!key.starts_with(prefix)) return nullptr;
    key.remove_prefix(prefix.size());
    for (const auto d : dimensions) {
        const auto what = quantity::name(d);
        if (key.size() > what.size() + 1 && key.starts_with(what) && key[what.size()] == '.') {
            const auto name = plainName(key.substr(what.size() + 1));
            return name.empty() ? nullptr : &phaseMetric(name, d);
        }
    }
    return nullptr;
}

stats::Value phaseValue(const quantity::Entry& reading, stats::Bound pull) {
    const auto dimension = reading.unit ? reading.unit->dimension : Dimension::force;
    const bool load = dimension == Dimension::force || dimension == Dimension::torque;
    Evidence e;
    e.inputs["reading"] = reading;
    e.bound = load ? pull : stats::Bound::exact;
    return *e.doubted("reading");
}

} // namespace anvil::methods
