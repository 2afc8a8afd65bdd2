#include "setup_parts.h"

#include <fmt/format.h>

namespace anvil::rig {

Expected<Ratio> ratioFromCell(const Setup& s) {
    return ratioOf(std::span(s.path).subspan(turnsFirst(s) ? 1 : 0));
}

std::string displayTrouble(const Setup& s) {
    using quantity::Dimension;
    const auto ratio = ratioOf(s.path);
    if (!ratio) return ratio.error().message;
    const auto shownAs = [](Dimension d) {
        return d == Dimension::stress    ? "a pressure"
               : d == Dimension::voltage ? "volts"
               : d == Dimension::ratio   ? "bare divisions"
                                         : "a load";
    };
    const bool table = !s.calibration.points.empty(), turns = turnsFirst(s);
    if (turns && ratio->of != s.shows)
        return fmt::format("The display shows {}, and the load path begins with {}: say which it is.",
                           shownAs(s.shows), ratio->of == Dimension::stress ? "a ram" : "a sensor of volts");
    if (s.shows != Dimension::force && table && turns)
        return "There is a table from the display to loads, and a ram or a sensor as well: take one of them "
               "out.";
    if (s.shows != Dimension::force && !table && !turns)
        return fmt::format(
            "The display shows {}: {}.", shownAs(s.shows),
            s.shows == Dimension::stress    ? "give the area of the ram that it works on, or a table to loads"
            : s.shows == Dimension::voltage ? "give the load that one volt stands for, or a table to loads"
                                            : "give a table of what they come to (Calibration)");
    if (s.address.empty()) return {};
    const auto layout = heardLayout(s);
    const auto column = layout.find(Role::load);
    if (s.shows == Dimension::ratio && column && !layout.columns[*column].unit.empty())
        return fmt::format("The column of the load is in {}, and the display is said to show bare divisions.",
                           layout.columns[*column].unit);
    const auto heard = loadOf(layout);
    const bool pressure = heard == Dimension::stress, volts = heard == Dimension::voltage;
    if ((pressure && s.shows != Dimension::stress) || (volts && s.shows != Dimension::voltage) ||
        (!pressure && s.shows == Dimension::stress) || (!volts && s.shows == Dimension::voltage))
        return fmt::format(
            "The column of the load is {}, and the display is said to show {}: say in Load path "
            "what it shows.",
            pressure ? "in a unit of pressure"
            : volts  ? "in volts"
                     : "in no unit of that",
            shownAs(s.shows));
    return {};
}

std::string armingTrouble(const Setup& s) {
    if (auto trouble = displayTrouble(s); !trouble.empty()) return trouble;
    const auto layout = heardLayout(s);
    const auto nameless = [&](Role role) {
        const auto at = layout.find(role);
        return at && layout.columns[*at].unit.empty();
    };
    if (s.shows != quantity::Dimension::ratio && nameless(Role::load))
        return "Nobody said in which unit the load arrives: say it in Rig, What its columns mean.";
    if (nameless(Role::travel))
        return "Nobody said in which unit the travel arrives: say it in Rig, What its columns mean.";
    return {};
}

quantity::Dimension recordedLoad(const Setup& s) {
    using quantity::Dimension;
    const auto heard = loadOf(heardLayout(s));
    return heard == Dimension::stress || heard == Dimension::voltage ? Dimension::force : heard;
}

std::optional<double> limitOf(const Setup& s) {
    const auto ratio = ratioFromCell(s);
    std::optional<double> cell;
    if (s.cellLimit && ratio) cell = ratio->specimen(*s.cellLimit);
    if (s.rigLimit && cell) return std::min(*s.rigLimit, *cell);
    return s.rigLimit ? s.rigLimit : cell;
}

double displayStep(const Setup& s) {
    const auto ratio = ratioFromCell(s);
    if (s.resolution && ratio) return *s.resolution * ratio->value;
    const auto limit = limitOf(s);
    return limit ? *limit / 2000 : 0.1;
}

std::vector<std::string> problems(const Setup& s, const std::string& today) {
    std::vector<std::string> out;
    if (s.name.empty()) out.emplace_back("The rig has no name yet.");
    for (const auto& [limit, what] :
         {std::pair{s.cellLimit, "cell"}, {s.rigLimit, "rig"}, {s.travel, "travel"}})
        if (limit && !(*limit > 0))
            out.push_back(fmt::format("A {} limit of zero or less cannot be: give what it can show.", what));
    if (auto trouble = displayTrouble(s); !trouble.empty()) out.push_back(std::move(trouble));
    const auto add = [&](std::vector<std::string> more) {
        out.insert(out.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
    };
    if (!s.address.empty())
        if (const auto m = SampleMaker::make(heardLayout(s)); !m) out.push_back(m.error().message);
    for (const auto& c : heardLayout(s).columns)
        add(problems(c.calibration, c.name, today));
    for (const auto& d : s.sides) {
        if (const auto m = SampleMaker::make(d.layout, false); !m)
            out.push_back(fmt::format("{}: {}", d.name, m.error().message));
        for (const auto& c : d.layout.columns)
            add(problems(c.calibration, fmt::format("{}, {}", d.name, c.name), today));
    }
    if (s.protocol == Protocol::answers && s.forceQuery.empty()) out.emplace_back(noQuestion);
    add(problems(s.calibration, "", today));
    return out;
}

Expected<double> complianceFrom(const Setup& setup, double stiffness) {
    if (!(stiffness > 0)) return fail("A stiffness of zero or less says nothing of how the rig gives way.");
    return setup.compliance + 1 / stiffness;
}

namespace {
std::vector<ChannelName> names(const Expected<SampleMaker>& maker) {
    std::vector<ChannelName> out;
    if (maker)
        for (const auto& o : maker->others())
            out.push_back({o.name, o.unit, o.limit});
    return out;
}
} // namespace

Layout heardLayout(const Setup& s) {
    if (s.protocol == Protocol::lines) return s.layout;
    Layout out; // as Dialogue joins the answers: commas, decimal points
    const auto asked = [&](Role role, const char* name, const char* unit, const std::string& question) {
        LineColumn c{name, role, unit};
        c.question = question;
        if (!question.empty()) out.columns.push_back(std::move(c));
    };
    asked(Role::load, "force", "N", s.forceQuery);
    asked(Role::travel, "travel", "m", s.displacementQuery);
    out.columns.insert(out.columns.end(), s.asked.begin(), s.asked.end());
    return out;
}

std::vector<ChannelName> channelsOf(const Setup& s) { return names(SampleMaker::make(heardLayout(s))); }

std::vector<ChannelName> allChannels(const Setup& setup) {
    auto out = channelsOf(setup);
    for (const auto& side : setup.sides)
        for (auto& name : channelsOf(side))
            out.push_back(std::move(name));
    return out;
}

LineColumn* columnOf(Setup& setup, std::size_t channel) {
    const auto within = [&](std::vector<LineColumn>& columns, const Layout& heard, bool main) -> LineColumn* {
        const auto maker = SampleMaker::make(heard, main);
        const auto count = maker ? maker->others().size() : 0;
        if (channel >= count) {
            channel -= count;
            return nullptr;
        }
        // What is heard may begin with force and travel that are no columns of their own.
        return &columns[maker->others()[channel].column - (heard.columns.size() - columns.size())];
    };
    auto& main = setup.protocol == Protocol::answers ? setup.asked : setup.layout.columns;
    if (auto* c = within(main, heardLayout(setup), true)) return c;
    for (auto& side : setup.sides)
        if (auto* c = within(side.layout.columns, side.layout, false)) return c;
    return nullptr;
}

std::vector<ChannelName> channelsOf(const SideDevice& side) {
    auto out = names(SampleMaker::make(side.layout, false));
    for (auto& c : out)
        c.name = side.name.empty() ? c.name : out.size() == 1 ? side.name : side.name + ": " + c.name;
    return out;
}

} // namespace anvil::rig
