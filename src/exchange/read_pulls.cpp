// The pulls of a package: what broke, how each stands, its curve or its number.
#include "read_package.h"

#include "curve_file.h"
#include "file_words.h"
#include <QDateTime>
#include <anvil/domain/bounds.h>
#include <anvil/results/evidence.h>
#include <anvil/store/texts.h>
#include <anvil/words/stands.h>
#include <fmt/format.h>

namespace anvil::exchange {

void PackageReader::curveOf(const Row& row, domain::Pull& pull) {
    const auto read = [&](const std::string& path, std::string_view column) -> std::optional<curve::Curve> {
        m_curves.insert(path);
        const auto bytes = m_folder.read(path);
        auto curve = bytes ? readCurveFile(*bytes) : tl::unexpected(bytes.error());
        if (curve) return std::move(*curve);
        row.wrong(column, bytes ? path + ": " + curve.error().message : curve.error().message);
        return std::nullopt;
    };
    if (row.has("curve"))
        if (auto samples = read(row.text("curve"), "curve")) {
            m_out.curves[pull.id] = std::move(*samples);
            pull.curve = pull.id;
        }
    for (const auto& path : partsOf(row.text("beside")))
        if (auto samples = read(path, "beside")) m_out.beside.push_back({pull.id, std::move(*samples)});
}

/// A result that was typed as one number.
void PackageReader::typedOf(const Row& row, const domain::StudyData& data, domain::Pull& pull) {
    if (!row.has("value")) return;
    const auto metric = row.has("metric") ? domain::metricFromKey(row.text("metric"), data.study.plan.method)
                                          : std::optional(results::typedMetric(data));
    if (!metric) return row.wrong("metric", fmt::format("there is no metric \"{}\"", row.text("metric")));
    const bool off = pull.outcome.path && (*metric)->dimension == quantity::Dimension::force;
    const auto dimension = off ? pull.outcome.path->shows : (*metric)->dimension;
    const auto value = row.entry("value", dimension);
    if (!value) return;
    const auto upper = row.quantity("upper", dimension);
    const bool between = value->bound == quantity::Bound::between;
    pull.typed = domain::TypedValue{*metric, value->si, upper.value_or(between ? value->upperSi : 0.0),
                                    row.has("as_typed") ? row.text("as_typed") : row.text("value")};
    if (!row.has("standing")) pull.standing.bound = value->bound;
}

/// What was kept whole of a pull, and when it was made.
void PackageReader::outcome(const Row& row, domain::Pull& p) {
    if (row.has("outcome")) {
        auto outcome = store::outcomeFromJson(QString::fromStdString(row.text("outcome")));
        if (!outcome) return row.wrong("outcome", outcome.error().message);
        p.outcome = std::move(*outcome);
    }
    if (row.has("reading")) {
        auto settings = store::settingsFromJson(QString::fromStdString(row.text("reading")));
        if (!settings) return row.wrong("reading", settings.error().message);
        p.settings = std::move(*settings);
    }
    p.performedAt = row.text("at");
    if (row.has("at") &&
        !QDateTime::fromString(QString::fromStdString(row.text("at")), Qt::ISODate).isValid())
        return row.wrong("at", fmt::format("\"{}\" is no time such as 2026-05-04T09:30:00", row.text("at")));
    readPlain(row, p, plainOfPull);
}

/// How it stands, and what broke.
void PackageReader::standing(const Row& row, Names& n, domain::Pull& p) {
    if (row.has("standing")) {
        const auto standing = standingFrom(row.text("standing"));
        if (!standing)
            return row.wrong("standing", fmt::format("\"{}\" is no standing", row.text("standing")));
        p.standing = *standing;
        p.outcome.standingSaid = p.outcome.standingSaid || *standing == domain::Standing::counts;
        n.standingTold.insert(p.id);
    }
    p.reason = row.text("reason");
    p.outcome.part = row.text("broke");
    p.outcome.mode = row.text("mode");
    p.outcome.end = row.whole("end").value_or(0);
    p.outcome.afterwards = row.text("afterwards");
    if (row.has("limited_by")) {
        p.outcome.limit = limitFrom(row.text("limited_by"));
        if (!p.outcome.limit)
            row.wrong("limited_by", fmt::format("\"{}\" is no end of a pull", row.text("limited_by")));
    }
}

void PackageReader::pulls() {
    Table(m_folder, pullsTable, m_trouble).each([&](const Row& row) {
        auto* data = studyOf(row);
        if (!data) return;
        auto& n = names(*data);
        domain::Pull p;
        p.id = ++m_pulls;
        const auto piece = n.specimens.find(row.text("specimen"));
        if (piece == n.specimens.end())
            return row.wrong("specimen", fmt::format("there is no specimen \"{}\"", row.text("specimen")));
        p.specimen = piece->second;
        const auto name =
            row.has("pull") ? row.text("pull") : fmt::format("{}/{}", row.text("specimen"), p.id);
        if (!n.pulls.emplace(name, p.id).second)
            return row.wrong("pull", fmt::format("\"{}\" is there twice", name));
        outcome(row, p);
        standing(row, n, p);
        if (row.has("recording")) {
            const auto recording = domain::recordingFromKey(row.text("recording"));
            if (!recording) return row.wrong("recording", "it is running or interrupted, or nothing");
            p.recording = *recording;
        }
        if (row.has("rig")) {
            const int version = row.whole("rig_version").value_or(1);
            for (const auto& s : m_out.setups)
                if (s.rig.toStdString() == row.text("rig") && s.version == version) p.setup = s.id;
            if (!p.setup) return row.wrong("rig", fmt::format("setups.csv has no \"{}\"", row.text("rig")));
        }
        typedOf(row, *data, p);
        curveOf(row, p);
        if (const auto told = m_out.told.find(data->study.id);
            told != m_out.told.end() && !row.has("reading"))
            p.settings.rigLimit = told->second.rigLimit;
        data->pulls.push_back(std::move(p));
    });
}

/// What nobody said of a pull follows from what was entered of it.
void PackageReader::standings() {
    if (m_trouble.any()) return;
    for (auto& data : m_out.studies) {
        data.count();
        for (auto& pull : data.pulls) {
            if (names(data).standingTold.contains(pull.id) || pull.curve || pull.typed) continue;
            const auto told = results::told(data, pull);
            if (!told || told->stands.standing == domain::Standing::counts) continue;
            pull.standing = told->stands.standing;
            if (pull.reason.empty()) pull.reason = words::whyStands(told->stands);
        }
    }
}

} // namespace anvil::exchange
