// What was entered: of a study, a specimen or a pull.
#include "read_package.h"

#include <QDateTime>
#include <algorithm>
#include <anvil/results/evidence.h>
#include <fmt/format.h>

namespace anvil::exchange {
namespace {

using methods::Form;

/// Seconds of a time that is a quantity or a date.
std::optional<double> secondsOf(const Row& row) {
    const auto date = QDateTime::fromString(QString::fromStdString(row.text("at")), Qt::ISODate);
    if (date.isValid()) return static_cast<double>(date.toMSecsSinceEpoch()) / 1000;
    return row.quantity("at", quantity::Dimension::time);
}

/// A step of a ladder: "10 N" with held or failed beside it, or "10 N held" and "25 lb at 14 in held" in one.
std::optional<domain::LadderStep> stepOf(const Row& row, const methods::Method& method,
                                         const std::string& key) {
    auto text = row.text("value");
    if (row.has("at")) text += " at " + row.text("at");
    const auto& said = row.text("step");
    if (said == "held" || said == "failed") text += ' ' + said;
    const std::pair<std::string, std::string> typed[] = {{key, text}};
    const auto e = methods::evidenceFrom(method, typed);
    if (!e) {
        row.wrong("value", e.error().message);
        return std::nullopt;
    }
    const auto& steps = e->steps.at(key);
    if (steps.size() != 1) {
        row.wrong("value", "a row is one step");
        return std::nullopt;
    }
    return domain::LadderStep{steps[0].load, steps[0].distance, steps[0].held};
}

void setField(std::vector<domain::FieldText>& fields, const std::string& key, const std::string& text) {
    fields.push_back({key, text});
}

} // namespace

bool isMeasure(const methods::Input& input, const std::string& text) {
    const auto entry = methods::entryOf(input, text);
    return entry && entry->plain() && methods::isLength(input);
}

void PackageReader::inputs() {
    Table(m_folder, inputsTable, m_trouble).each([&](const Row& row) {
        if (auto* data = studyOf(row)) input(row, *data);
    });
}

void PackageReader::input(const Row& row, domain::StudyData& data) {
    auto& n = names(data);
    const auto& of = row.text("of");
    const auto piece = n.specimens.find(of);
    auto pull = n.pulls.find(of);
    if (!of.empty() && piece == n.specimens.end() && pull == n.pulls.end())
        return row.wrong("of", fmt::format("there is no specimen and no pull \"{}\"", of));
    auto* specimen = piece == n.specimens.end()
                         ? nullptr
                         : &*std::find_if(data.specimens.begin(), data.specimens.end(),
                                          [&](const auto& s) { return s.id == piece->second; });
    const auto pullOf = [&](Id id) {
        return &*std::find_if(data.pulls.begin(), data.pulls.end(),
                              [&](const auto& p) { return p.id == id; });
    };
    const auto& method = of.empty() ? results::methodOf(data.study.plan)
                         : specimen
                             ? results::methodOf(data, *specimen)
                             : results::methodOf(data, data.specimenAt(pullOf(pull->second)->specimen));
    const auto* what = methods::inputNamed(method, row.text("input"));
    if (!what) {
        std::string has;
        for (const auto& i : method.inputs)
            has += (has.empty() ? "" : ", ") + std::string(i.key);
        return row.wrong(
            "input", fmt::format("{} has no input \"{}\"; it has {}", method.title, row.text("input"), has));
    }
    if (!row.has("value")) return row.wrong("value", "a value is needed");
    if (of.empty()) {
        if (what->form == Form::series || what->form == Form::steps)
            return row.wrong("of", fmt::format("\"{}\" is entered of a pull: say of which", what->title));
        if (const auto e = methods::entryOf(*what, row.text("value")); !e)
            return row.wrong("value", e.error().message);
        return setField(data.study.plan.inputs, row.text("input"), row.text("value"));
    }
    if (specimen && what->of != methods::Of::pull) return ofSpecimen(row, method, *specimen);
    if (pull != n.pulls.end()) return ofPull(row, method, *pullOf(pull->second));
    std::vector<domain::Pull*> its;
    for (auto& p : data.pulls)
        if (p.specimen == specimen->id) its.push_back(&p);
    if (its.size() == 1) return ofPull(row, method, *its.front());
    row.wrong("of",
              fmt::format("\"{}\" is entered of a pull, and {} has {} of them", what->title, of, its.size()));
}

void PackageReader::ofSpecimen(const Row& row, const methods::Method& method, domain::Specimen& piece) {
    const auto& input = *methods::inputNamed(method, row.text("input"));
    const auto entry = methods::entryOf(input, row.text("value"));
    if (!entry) return row.wrong("value", entry.error().message);
    if (!isMeasure(input, row.text("value")))
        return setField(piece.inputs, row.text("input"), row.text("value"));
    auto at = std::find_if(piece.measured.begin(), piece.measured.end(), [&](const domain::Measured& m) {
        return methods::inputMeasured(method, m.name) == &input;
    });
    if (at == piece.measured.end()) at = piece.measured.insert(at, {std::string(input.title), {}, {}, {}});
    at->readings.push_back(entry->si);
}

void PackageReader::ofPull(const Row& row, const methods::Method& method, domain::Pull& pull) {
    const auto key = row.text("input");
    const auto& input = *methods::inputNamed(method, key);
    auto& entered = pull.outcome.entered;
    if (input.form == Form::steps) {
        if (const auto step = stepOf(row, method, key)) entered.steps.push_back(*step);
        return;
    }
    const auto entry = methods::entryOf(input, row.text("value"));
    if (!entry) return row.wrong("value", entry.error().message);
    if (input.form == Form::series) {
        const auto at = secondsOf(row);
        if (!at) return row.wrong("at", "a reading of a series needs its time, such as 3600 s");
        entered.gauge.push_back({*at, entry->si});
        return;
    }
    if (key == "unloaded_at") {
        entered.unloadedFrom = entry->si;
        return;
    }
    setField(entered.fields, key, row.text("value"));
}

} // namespace anvil::exchange
