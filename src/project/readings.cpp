// The readings of an open project: what is at hand, what is kept in the file, what has to be read.
#include <anvil/project/open_project.h>

namespace anvil::project {

void OpenProject::useKeptReadings() {
    m_keeps = true;
    std::map<Id, store::KeptReading> kept;
    for (auto& k : m_file->keptReadings())
        kept.emplace(k.curve, std::move(k));
    m_keptCurves.clear();
    for (const auto& s : m_studies)
        for (const auto& pull : s.pulls)
            if (const auto at = pull.curve ? kept.find(pull.curve) : kept.end();
                at != kept.end() && at->second.settings == pull.settings) {
                m_readingCache[pull.id] = {pull.curve, pull.settings, at->second.reading, {}};
                m_keptCurves.push_back(pull.curve);
            }
}

std::vector<CurveToRead> OpenProject::unread(Id studyId) const {
    std::vector<CurveToRead> out;
    if (const auto* data = study(studyId))
        for (const auto& pull : data->pulls) {
            // What is being recorded is not looked at: half a curve would be taken for the whole afterwards.
            if (!pull.curve || pull.recording == domain::Recording::running) continue;
            const auto at = m_readingCache.find(pull.id);
            if (at == m_readingCache.end() || at->second.curve != pull.curve ||
                !(at->second.settings == pull.settings))
                out.push_back({pull.id, pull.curve, pull.settings, {}});
        }
    if (m_keeps && !out.empty()) // before they are read: what is being recorded is not finished by then
        if (const auto digests = m_file->finishedCurves())
            for (auto& what : out)
                if (const auto at = digests->find(what.curve); at != digests->end()) what.digest = at->second;
    return out;
}

void OpenProject::take(std::vector<CurveRead> read) {
    std::vector<store::KeptReading> fresh;
    for (auto& one : read) {
        const auto& what = one.what;
        auto& reading = one.reading;
        auto& cached = m_readingCache[what.pull] = {what.curve, what.settings, std::nullopt, {}};
        if (!reading) {
            cached.error = reading.error().message;
            continue;
        }
        if (!what.digest.isEmpty()) fresh.push_back({what.curve, what.digest, what.settings, *reading});
        cached.reading = std::move(*reading);
    }
    m_file->keepReadings(std::move(fresh));
}

void OpenProject::doubt(Id curve, const std::string& why) {
    m_file->dropReading(curve);
    for (auto& [pull, cached] : m_readingCache)
        if (cached.curve == curve) {
            cached.reading.reset();
            cached.error = why;
        }
    m_drawn.clear();
    m_readings.clear();
    m_verdicts.clear();
    m_sureness.clear();
    m_results.clear();
    emit changed();
}

const results::Readings& OpenProject::readings(Id studyId) {
    const auto known = m_readings.find(studyId);
    if (known != m_readings.end()) return known->second;
    take(readCurves(*m_file, unread(studyId)));
    results::Readings out;
    if (const auto* data = study(studyId))
        for (const auto& pull : data->pulls) {
            if (!pull.curve || pull.recording == domain::Recording::running) continue;
            const auto& cached = m_readingCache.at(pull.id);
            if (cached.reading)
                out.byPull[pull.id] = *cached.reading;
            else
                out.unreadable[pull.id] = cached.error;
        }
    return m_readings[studyId] = std::move(out);
}

} // namespace anvil::project
