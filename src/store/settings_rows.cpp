// How a curve is read, as stored: see docs/file-format.md.
#include "json_fields.h"
#include "json_write.h"
#include <anvil/store/texts.h>

#include <QJsonDocument>

namespace anvil::store {
namespace {

constexpr const char* stiffnessWords[] = {"straight_part", "chord_of_forces", "chord_of_shares", "secant"};
static_assert(std::size(stiffnessWords) == static_cast<std::size_t>(curve::StiffnessBy::secant) + 1);

curve::StiffnessBy stiffnessFrom(const JsonFields& o) {
    for (std::size_t i = 0; i < std::size(stiffnessWords); ++i)
        if (o.text("stiffness_by") == stiffnessWords[i]) return static_cast<curve::StiffnessBy>(i);
    o.trouble().say(QStringLiteral("there is no stiffness \"%1\"").arg(text(o.text("stiffness_by"))));
    return curve::StiffnessBy::straightPart;
}

} // namespace

QString settingsToJson(const curve::ReadingSettings& s) {
    QJsonObject o;
    const auto number = [&](const char* key, const std::optional<double>& v) {
        if (v) o[key] = *v;
    };
    const auto landmark = [&](const char* key, const std::optional<curve::Override>& v) {
        if (v) o[key] = v->none ? QJsonValue("none") : QJsonValue(v->time);
    };
    number("rig_limit_n", s.rigLimit);
    number("calibrated_to_n", s.calibratedTo);
    number("crosshead_speed_m_per_s", s.crossheadSpeed);
    if (s.preload != 0) o["preload_n"] = s.preload;
    if (s.breakShare != curve::ReadingSettings{}.breakShare) o["break_share"] = s.breakShare;
    landmark("peak_s", s.peak);
    landmark("first_slip_s", s.firstSlip);
    landmark("break_s", s.breakPoint);
    landmark("fit_from_s", s.fitFrom);
    landmark("fit_to_s", s.fitTo);
    landmark("hold_from_s", s.holdFrom);
    landmark("hold_to_s", s.holdTo);
    number("yield_offset_m", s.yieldOffset);
    number("at_travel", s.atTravel);
    number("at_load", s.atLoad);
    const curve::ReadingSettings usual;
    if (s.stiffnessBy != usual.stiffnessBy)
        o["stiffness_by"] = stiffnessWords[static_cast<int>(s.stiffnessBy)];
    putNumber(o, "chord_from", s.chordFrom, usual.chordFrom);
    putNumber(o, "chord_to", s.chordTo, usual.chordTo);
    putNumber(o, "rig_compliance_m_per_n", s.rigCompliance, 0);
    putNumber(o, "sustained_for_s", s.sustainedFor, 0);
    putNumber(o, "sustained_speed_m_per_s", s.sustainedSpeed, 0);
    putNumber(o, "low_pass_hz", s.burst.lowPass, 0);
    putNumber(o, "severity_window_s", s.burst.longestWindow, usual.burst.longestWindow);
    putNumber(o, "breakaway_within_rad", s.breakawayWithin, usual.breakawayWithin);
    putNumber(o, "running_until_rad", s.runningUntil, usual.runningUntil);
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

Expected<curve::ReadingSettings> settingsFromJson(const QString& json) {
    JsonTrouble trouble;
    const JsonFields o(json, trouble);
    const auto landmark = [&](const char* key) -> std::optional<curve::Override> {
        if (o.value(key).isString() && o.text(key) == "none") return curve::Override{0, true};
        const auto at = o.number(key);
        return at ? std::optional(curve::Override{*at, false}) : std::nullopt;
    };
    curve::ReadingSettings s;
    s.rigLimit = o.number("rig_limit_n");
    s.calibratedTo = o.number("calibrated_to_n");
    s.crossheadSpeed = o.number("crosshead_speed_m_per_s");
    s.breakShare = o.number("break_share", s.breakShare);
    s.peak = landmark("peak_s");
    s.firstSlip = landmark("first_slip_s");
    s.breakPoint = landmark("break_s");
    s.fitFrom = landmark("fit_from_s");
    s.fitTo = landmark("fit_to_s");
    s.preload = o.number("preload_n", 0);
    s.holdFrom = landmark("hold_from_s");
    s.holdTo = landmark("hold_to_s");
    s.yieldOffset = o.number("yield_offset_m");
    s.atTravel = o.number("at_travel");
    s.atLoad = o.number("at_load");
    if (o.has("stiffness_by")) s.stiffnessBy = stiffnessFrom(o);
    s.chordFrom = o.number("chord_from", s.chordFrom);
    s.chordTo = o.number("chord_to", s.chordTo);
    s.rigCompliance = o.number("rig_compliance_m_per_n", 0);
    s.sustainedFor = o.number("sustained_for_s", 0);
    s.sustainedSpeed = o.number("sustained_speed_m_per_s", 0);
    s.burst.lowPass = o.number("low_pass_hz", 0);
    s.burst.longestWindow = o.number("severity_window_s", s.burst.longestWindow);
    s.breakawayWithin = o.number("breakaway_within_rad", s.breakawayWithin);
    s.runningUntil = o.number("running_until_rad", s.runningUntil);
    if (auto ok = trouble.done("How a curve is read"); !ok) return tl::unexpected(ok.error());
    return s;
}

} // namespace anvil::store
