#include <anvil/work/wall_clock.h>

#include <QDateTime>
#include <anvil/study/pieces.h>

namespace anvil::work {

std::optional<study::Instant> wallInstant(const std::string& text) {
    const auto at = QDateTime::fromString(QString::fromStdString(text), Qt::ISODate);
    return at.isValid() ? std::optional<study::Instant>(at.toSecsSinceEpoch()) : std::nullopt;
}

Expected<std::vector<study::Step>> wallTimetable(const study::StudyData& data, study::Instant now) {
    const auto& plan = data.study.plan;
    const auto start = wallInstant(plan.recipeStarted);
    if (!start) return std::vector<study::Step>{};
    std::map<std::string, study::Instant> done;
    for (const auto& [key, at] : plan.stepsDone)
        if (const auto instant = wallInstant(at)) done[key] = *instant;
    return study::timetable(plan.recipe, *start, done, now,
                            {plan.workFrom, plan.workTo, [](study::Instant at) {
                                 return QDateTime::fromSecsSinceEpoch(at).offsetFromUtc() / 60;
                             }});
}

std::string wallTiming(const study::StudyData& data, const study::Pull& pull) {
    return study::timingOf(data, pull, wallInstant);
}

} // namespace anvil::work
