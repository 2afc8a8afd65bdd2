#include <anvil/project/wall_clock.h>

#include <QDateTime>
#include <anvil/plan/pieces.h>
#include <anvil/plan/timetable.h>

namespace anvil::project {

std::optional<plan::Instant> wallInstant(const std::string& text) {
    const auto at = QDateTime::fromString(QString::fromStdString(text), Qt::ISODate);
    return at.isValid() ? std::optional<plan::Instant>(at.toSecsSinceEpoch()) : std::nullopt;
}

Expected<std::vector<plan::Step>> wallTimetable(const domain::StudyData& data, plan::Instant now) {
    return plan::preparationOf(data.study.plan, now,
                               {wallInstant, [](plan::Instant at) {
                                    return QDateTime::fromSecsSinceEpoch(at).offsetFromUtc() / 60;
                                }});
}

std::string wallTiming(const domain::StudyData& data, const domain::Pull& pull) {
    return plan::timingOf(data, pull, wallInstant);
}

} // namespace anvil::project
