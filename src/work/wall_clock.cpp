#include <anvil/work/wall_clock.h>

#include <QDateTime>
#include <anvil/study/pieces.h>

namespace anvil::work {

std::optional<study::Instant> wallInstant(const std::string& text) {
    const auto at = QDateTime::fromString(QString::fromStdString(text), Qt::ISODate);
    return at.isValid() ? std::optional<study::Instant>(at.toSecsSinceEpoch()) : std::nullopt;
}

Expected<std::vector<study::Step>> wallTimetable(const study::StudyData& data, study::Instant now) {
    return study::preparationOf(data.study.plan, now,
                                {wallInstant, [](study::Instant at) {
                                     return QDateTime::fromSecsSinceEpoch(at).offsetFromUtc() / 60;
                                 }});
}

std::string wallTiming(const study::StudyData& data, const study::Pull& pull) {
    return study::timingOf(data, pull, wallInstant);
}

} // namespace anvil::work
