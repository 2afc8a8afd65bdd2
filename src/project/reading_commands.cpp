#include <anvil/project/reading_commands.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <numbers>

namespace anvil::project {
namespace {

using quantity::Dimension;

constexpr double degree = std::numbers::pi / 180;

/// A quantity above zero, in this unit where it names none; `usual` where nothing is typed.
Expected<double> typed(const std::string& text, Dimension dimension, const quantity::Unit* bare, double usual,
                       const char* what) {
    if (text.find_first_not_of(" \t") == std::string::npos) return usual;
    const auto entry = quantity::parseEntry(text, dimension, bare);
    if (!entry) return fail(std::string(what) + ": " + entry.error().message);
    if (!(entry->si > 0)) return fail(std::string(what) + " must be more than zero.");
    return entry->si;
}

std::string shown(double si, const quantity::Unit& unit) {
    return si > 0 ? quantity::asEntered(si, unit) : std::string();
}

std::string percent(double share) { return quantity::shortest(100 * share); }

/// A share as it is typed: "40", "40 %".
Expected<double> shareOf(std::string text, double usual, const char* what) {
    if (const auto sign = text.find('%'); sign != std::string::npos) text.erase(sign);
    if (text.find_first_not_of(" \t") == std::string::npos) return usual;
    const auto v = quantity::parseNumber(text);
    if (!v) return fail(std::string(what) + ": " + v.error().message);
    if (!(*v > 0 && *v < 100)) return fail(std::string(what) + " lies between 0 and 100 %.");
    return *v / 100;
}

const quantity::Unit& hertzless() { return quantity::siUnit(Dimension::ratio); }

} // namespace

std::vector<Id> curvesIn(const domain::StudyData& data, Id pullId, ReadingScope scope) {
    std::vector<Id> out;
    const auto* pull = data.pull(pullId);
    if (!pull) return out;
    const auto& piece = data.specimenAt(pull->specimen);
    for (const auto& p : data.pulls) {
        const auto& s = data.specimenAt(p.specimen);
        const bool square = s.option == piece.option && s.condition == piece.condition;
        if (p.curve &&
            (scope == ReadingScope::study || p.id == pullId || (scope == ReadingScope::square && square)))
            out.push_back(p.id);
    }
    return out;
}

curve::ReadingSettings withChoices(const curve::ReadingSettings& own, const curve::ReadingSettings& chosen) {
    auto out = chosen;
    out.rigLimit = own.rigLimit;
    out.calibratedTo = own.calibratedTo;
    out.crossheadSpeed = own.crossheadSpeed;
    out.preload = own.preload;
    out.rigCompliance = own.rigCompliance;
    for (const auto by :
         {&curve::ReadingSettings::peak, &curve::ReadingSettings::firstSlip,
          &curve::ReadingSettings::breakPoint, &curve::ReadingSettings::fitFrom,
          &curve::ReadingSettings::fitTo, &curve::ReadingSettings::holdFrom, &curve::ReadingSettings::holdTo})
        out.*by = own.*by;
    return out;
}

ReadingChoices choicesOf(const curve::ReadingSettings& s, const quantity::Unit& load,
                         const quantity::Unit& travel) {
    ReadingChoices c;
    c.breakShare = percent(s.breakShare);
    c.stiffnessBy = s.stiffnessBy;
    const bool forces = s.stiffnessBy == curve::StiffnessBy::chordOfLoads;
    c.chordFrom = forces ? shown(s.chordFrom, load) : percent(s.chordFrom);
    c.chordTo = forces ? shown(s.chordTo, load) : percent(s.chordTo);
    c.yieldOffset = shown(s.yieldOffset.value_or(0), travel);
    c.atTravel = shown(s.atTravel.value_or(0), travel);
    c.atLoad = shown(s.atLoad.value_or(0), load);
    c.sustainedFor = shown(s.sustainedFor, quantity::unit("s"));
    c.sustainedSpeed = shown(s.sustainedSpeed, quantity::unit("mm/min"));
    c.lowPass = shown(s.burst.lowPass, hertzless());
    c.severityWindow = shown(s.burst.longestWindow, quantity::unit("ms"));
    c.breakawayWithin = quantity::shortest(std::round(1e6 * s.breakawayWithin / degree) / 1e6) + "°";
    c.runningUntil = quantity::shortest(std::round(1e6 * s.runningUntil / degree) / 1e6) + "°";
    return c;
}

Expected<curve::ReadingSettings> chosenFrom(const ReadingChoices& c, Dimension load, Dimension travel,
                                            const BareUnit& bare) {
    curve::ReadingSettings s;
    std::string wrong;
    const auto take = [&](double& to, const Expected<double>& got) {
        if (got)
            to = *got;
        else if (wrong.empty())
            wrong = got.error().message;
    };
    const auto perhaps = [&](std::optional<double>& to, const Expected<double>& got) {
        double v = 0;
        take(v, got);
        to = v > 0 ? std::optional(v) : std::nullopt;
    };
    take(s.breakShare, shareOf(c.breakShare, s.breakShare, "The share of the peak at which it is broken"));
    s.stiffnessBy = c.stiffnessBy;
    if (c.stiffnessBy == curve::StiffnessBy::chordOfLoads) {
        take(s.chordFrom, typed(c.chordFrom, load, bare(load), 0, "The lower load of the chord"));
        take(s.chordTo, typed(c.chordTo, load, bare(load), 0, "The upper load of the chord"));
    } else if (c.stiffnessBy == curve::StiffnessBy::chordOfShares) {
        take(s.chordFrom, shareOf(c.chordFrom, s.chordFrom, "The lower end of the chord"));
        take(s.chordTo, shareOf(c.chordTo, s.chordTo, "The upper end of the chord"));
    }
    if (wrong.empty() && !(s.chordTo > s.chordFrom)) wrong = "The chord ends below where it begins.";
    perhaps(s.yieldOffset, typed(c.yieldOffset, travel, bare(travel), 0, "The offset of the yield"));
    perhaps(s.atTravel, typed(c.atTravel, travel, bare(travel), 0, "The displacement"));
    perhaps(s.atLoad, typed(c.atLoad, load, bare(load), 0, "The load"));
    take(s.sustainedFor,
         typed(c.sustainedFor, Dimension::time, bare(Dimension::time), 0, "The time a load is held"));
    take(s.sustainedSpeed,
         typed(c.sustainedSpeed, Dimension::speed, bare(Dimension::speed), 0, "The speed of creep"));
    auto hertz = c.lowPass; // there is no other unit of a frequency here
    if (const auto unit = hertz.find("Hz"); unit != std::string::npos) hertz.erase(unit);
    take(s.burst.lowPass, typed(hertz, Dimension::ratio, &hertzless(), 0, "The low-pass"));
    take(s.burst.longestWindow, typed(c.severityWindow, Dimension::time, bare(Dimension::time),
                                      s.burst.longestWindow, "The window of the severity"));
    take(s.breakawayWithin, typed(c.breakawayWithin, Dimension::angle, bare(Dimension::angle),
                                  s.breakawayWithin, "The first turn"));
    take(s.runningUntil, typed(c.runningUntil, Dimension::angle, bare(Dimension::angle), s.runningUntil,
                               "The end of the running"));
    if (wrong.empty() && !(s.runningUntil > s.breakawayWithin)) wrong = "The running ends before it begins.";
    if (!wrong.empty()) return fail(wrong);
    return s;
}

Expected<ReadingPreview> previewReading(OpenProject& project, Id study, const std::vector<Id>& pulls,
                                        const curve::ReadingSettings& chosen,
                                        const std::function<bool(std::size_t)>& go) {
    const auto* data = project.study(study);
    if (!data) return fail("There is no such study any more.");
    std::vector<CurveToRead> todo;
    todo.reserve(pulls.size());
    for (const auto id : pulls)
        if (const auto* p = data->pull(id); p && p->curve)
            todo.push_back({id, p->curve, withChoices(p->settings, chosen), {}});
    const auto before = project.readings(study); // a copy: reading on may drop it
    bool ended = false;
    const auto read = readCurves(project.file(), todo, [&](std::size_t done) {
        ended = go && !go(done);
        return !ended;
    });
    if (ended) return fail("It was ended before all curves were read.");
    ReadingPreview out;
    out.curves = read.size();
    double most = -1;
    for (const auto& one : read) {
        auto pull = *data->pull(one.what.pull);
        const auto then = results::valueOf(*data, pull, before.find(pull.id), data->study.goal.metric);
        pull.settings = one.what.settings;
        const auto now =
            results::valueOf(*data, pull, one.reading ? &*one.reading : nullptr, data->study.goal.metric);
        const bool had = then.value.has_value(), has = one.reading && now.value;
        out.lost += had && !has;
        out.won += has && !had;
        const bool same = had == has && (!had || (then.value->value == now.value->value &&
                                                  then.value->bound == now.value->bound &&
                                                  then.value->upper == now.value->upper));
        out.changed += !same;
        if (!had || !has || same) continue;
        const double size = std::abs(now.value->value / then.value->value - 1);
        if (size > most) {
            most = size;
            out.most = pull.id;
            out.from = then.value->value;
            out.to = now.value->value;
        }
    }
    return out;
}

Expected<void> applyReading(OpenProject& project, Id study, const std::vector<Id>& pulls,
                            const curve::ReadingSettings& chosen) {
    const auto* data = project.study(study);
    if (!data) return fail("There is no such study any more.");
    std::vector<std::pair<domain::Pull, domain::Pull>> changes;
    for (const auto id : pulls)
        if (const auto* p = data->pull(id); p && p->curve) {
            auto after = *p;
            after.settings = withChoices(p->settings, chosen);
            if (!(after.settings == p->settings)) changes.emplace_back(*p, std::move(after));
        }
    if (changes.empty()) return {};
    const auto entry =
        project.run(changes.size() == 1 ? OpenProject::tr("How a curve is read")
                                        : OpenProject::tr("How %1 curves are read").arg(changes.size()),
                    [&](store::Writer& w) {
                        for (const auto& [from, to] : changes)
                            w.change(from, to);
                    });
    if (!entry) return tl::unexpected(entry.error());
    return {};
}

} // namespace anvil::project
