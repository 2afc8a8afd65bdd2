#include <anvil/rig/setup.h>

#include <anvil/quantity/print.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace anvil::rig {
namespace {

using Json = nlohmann::json;

constexpr const char* noQuestion = "Say which question the rig answers with its force, such as MEAS:FORC?";
constexpr const char* partKeys[] = {"lever", "line", "angle", "plain", "ram", "sensor"};
static_assert(std::size(partKeys) == static_cast<std::size_t>(RatioPart::Kind::sensor) + 1);

void put(Json& o, const char* key, const std::optional<double>& v) {
    if (v) o[key] = *v;
}
void put(Json& o, const char* key, const std::string& v) {
    if (!v.empty()) o[key] = v;
}

std::optional<double> number(const Json& o, const char* key) {
    return o.contains(key) ? std::optional(o.at(key).get<double>()) : std::nullopt;
}
std::string text(const Json& o, const char* key) { return o.value(key, std::string()); }

void put(Json& o, const CalibrationRecord& record) {
    for (const auto& p : record.points)
        o["calibration"].push_back({p.reading, p.truth});
    put(o, "calibrated", record.from);
    put(o, "expires", record.until);
    for (const auto& c : record.checks) {
        Json check{{"at", c.at}, {"known_N", c.known}, {"shown_N", c.shown}, {"tolerance", c.tolerance}};
        if (c.unit != "N") check["unit"] = c.unit; // then both are in it, whatever their keys say
        o["checks"].push_back(std::move(check));
    }
}

CalibrationRecord recordFrom(const Json& o) {
    CalibrationRecord out;
    for (const auto& p : o.value("calibration", Json::array()))
        out.points.push_back({p.at(0).get<double>(), p.at(1).get<double>()});
    out.from = text(o, "calibrated");
    out.until = text(o, "expires");
    for (const auto& c : o.value("checks", Json::array()))
        out.checks.push_back({text(c, "at"), c.value("known_N", 0.0), c.value("shown_N", 0.0),
                              c.value("tolerance", 0.01), c.value("unit", std::string("N"))});
    return out;
}

Json columnsToJson(const std::vector<Column>& from) {
    Json columns = Json::array();
    for (const auto& c : from) {
        Json o{{"name", c.name}, {"role", key(c.role)}, {"unit", c.unit}};
        if (c.flipped) o["flipped"] = true;
        put(o, "limit", c.limit);
        put(o, "question", c.question);
        put(o, "label", c.label);
        put(o, "printed", c.printed);
        put(o, c.calibration);
        columns.push_back(std::move(o));
    }
    return columns;
}

std::vector<Column> columnsFromJson(const Json& columns) {
    std::vector<Column> out;
    for (const auto& c : columns)
        out.push_back({text(c, "name"), roleFromKey(text(c, "role")).value_or(Role::none), text(c, "unit"),
                       c.value("flipped", false), number(c, "limit"), recordFrom(c), text(c, "question"),
                       text(c, "label"), text(c, "printed")});
    return out;
}

Json layoutToJson(const Layout& l) {
    return {{"delimiter", std::string(1, l.delimiter)},
            {"decimal", std::string(1, l.decimal)},
            {"rate", l.rate},
            {"labelled", l.labelled},
            {"columns", columnsToJson(l.columns)}};
}

Layout layoutFrom(const Json& o) {
    Layout l;
    const auto first = [&](const char* key, char usual) {
        const auto s = text(o, key);
        return s.empty() ? usual : s[0];
    };
    l.delimiter = first("delimiter", ',');
    l.decimal = first("decimal", '.');
    l.rate = o.value("rate", 0.0);
    l.labelled = o.value("labelled", false);
    l.columns = columnsFromJson(o.value("columns", Json::array()));
    return l;
}

} // namespace

namespace {

/// The parts that make a load of what is read, and those from the cell on.
bool turnsFirst(const Setup& s) {
    return !s.path.empty() &&
           (s.path[0].kind == RatioPart::Kind::ram || s.path[0].kind == RatioPart::Kind::sensor);
}
std::span<const RatioPart> front(const Setup& s) { return {s.path.data(), turnsFirst(s) ? 1U : 0U}; }

} // namespace

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
    const auto column = layout.find(Role::force);
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
    if (s.shows != quantity::Dimension::ratio && nameless(Role::force))
        return "Nobody said in which unit the load arrives: say it in Rig, What its columns mean.";
    if (nameless(Role::displacement))
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

std::string toJson(const Setup& s) {
    Json o{{"name", s.name},
           {"protocol", s.protocol == Protocol::answers ? "answers" : "lines"},
           {"layout", layoutToJson(s.layout)}};
    put(o, "address", s.address);
    put(o, "force_query", s.forceQuery);
    put(o, "displacement_query", s.displacementQuery);
    if (!s.asked.empty()) o["asked"] = columnsToJson(s.asked);
    if (s.flipped) o["flipped"] = true;
    put(o, "cell_limit_N", s.cellLimit);
    put(o, "rig_limit_N", s.rigLimit);
    put(o, "travel_m", s.travel);
    put(o, "resolution_N", s.resolution);
    put(o, "speed_m_per_s", s.speed);
    if (s.compliance != 0) o["compliance_m_per_N"] = s.compliance;
    if (s.shows != quantity::Dimension::force) o["shows"] = quantity::name(s.shows);
    for (const auto& p : s.path)
        o["path"].push_back({{"kind", partKeys[static_cast<int>(p.kind)]},
                             {"a", p.a},
                             {"b", p.b},
                             {"ua", p.ua},
                             {"ub", p.ub},
                             {"moment_Nm", p.moment}});
    put(o, s.calibration);
    for (const auto& d : s.sides)
        o["sides"].push_back({{"name", d.name}, {"address", d.address}, {"layout", layoutToJson(d.layout)}});
    if (s.holdSeconds > 0) o["hold_s"] = s.holdSeconds;
    if (s.lookEvery > 0) o["look_every_N"] = s.lookEvery;
    put(o, "on_pause", s.onPause);
    put(o, "on_resume", s.onResume);
    put(o, "on_arm", s.onArm);
    put(o, "on_stop", s.onStop);
    put(o, "on_zero", s.onZero);
    if (s.practice) o["practice"] = true;
    return o.dump(-1, ' ', false, Json::error_handler_t::replace); // names may hold anything
}

Expected<Setup> setupFromJson(const std::string& text_) {
    try {
        const auto o = Json::parse(text_);
        Setup s;
        s.name = text(o, "name");
        s.address = text(o, "address");
        s.protocol = text(o, "protocol") == "answers" ? Protocol::answers : Protocol::lines;
        s.forceQuery = text(o, "force_query");
        s.displacementQuery = text(o, "displacement_query");
        s.asked = columnsFromJson(o.value("asked", Json::array()));
        s.layout = layoutFrom(o.value("layout", Json::object()));
        s.flipped = o.value("flipped", false);
        s.cellLimit = number(o, "cell_limit_N");
        s.rigLimit = number(o, "rig_limit_N");
        s.travel = number(o, "travel_m");
        s.resolution = number(o, "resolution_N");
        s.speed = number(o, "speed_m_per_s");
        s.compliance = o.value("compliance_m_per_N", 0.0);
        s.shows = quantity::dimensionNamed(text(o, "shows")).value_or(quantity::Dimension::force);
        for (const auto& p : o.value("path", Json::array())) {
            RatioPart part;
            for (std::size_t k = 0; k < std::size(partKeys); ++k)
                if (text(p, "kind") == partKeys[k]) part.kind = static_cast<RatioPart::Kind>(k);
            part.a = p.value("a", 1.0);
            part.b = p.value("b", 1.0);
            part.ua = p.value("ua", 0.0);
            part.ub = p.value("ub", 0.0);
            part.moment = p.value("moment_Nm", 0.0);
            s.path.push_back(part);
        }
        s.calibration = recordFrom(o);
        for (const auto& d : o.value("sides", Json::array()))
            s.sides.push_back(
                {text(d, "name"), text(d, "address"), layoutFrom(d.value("layout", Json::object()))});
        s.holdSeconds = o.value("hold_s", 0.0);
        s.lookEvery = o.value("look_every_N", 0.0);
        s.onPause = text(o, "on_pause");
        s.onResume = text(o, "on_resume");
        s.onArm = text(o, "on_arm");
        s.onStop = text(o, "on_stop");
        s.onZero = text(o, "on_zero");
        s.practice = o.value("practice", false);
        return s;
    } catch (const Json::exception& e) {
        return fail(fmt::format("The set-up of a rig cannot be read ({}).", e.what()));
    }
}

Expected<Conversion> Conversion::make(const Setup& s) {
    Conversion c;
    if (s.protocol == Protocol::answers && s.forceQuery.empty()) return fail(noQuestion);
    auto calibration = Calibration::make(s.calibration.points);
    if (!calibration) return tl::unexpected(calibration.error());
    if (const auto trouble = displayTrouble(s); !trouble.empty()) return fail(trouble);
    const auto ratio = ratioOf(s.path), behind = ratioFromCell(s), before = ratioOf(front(s));
    if (!ratio || !behind || !before) return fail("The load path cannot be used."); // looked at above
    c.m_calibration = std::move(*calibration);
    c.m_ratio = *ratio;
    c.m_ratio.offset = behind->offset; // the zero takes off what a sensor shows of nothing
    c.m_front = *before;
    if (c.m_front.of == quantity::Dimension::voltage) c.m_zero = s.path[0].b;
    c.m_sign = s.flipped ? -1 : 1;
    c.m_compliance = s.compliance;
    const auto layout = heardLayout(s);
    const auto maker = SampleMaker::make(layout);
    if (!maker) return c; // said where the set-up is looked at
    auto others = othersOf(layout, *maker);
    if (!others) return tl::unexpected(others.error());
    c.m_others = std::move(*others);
    return c;
}

Expected<Conversion> Conversion::make(const SideDevice& side) {
    if (side.layout.columns.empty()) return Conversion{}; // listened to until somebody says what it sends
    const auto maker = SampleMaker::make(side.layout, false);
    if (!maker) return fail(side.name + ": " + maker.error().message);
    auto others = othersOf(side.layout, *maker);
    if (!others) return fail(side.name + ": " + others.error().message);
    Conversion c;
    c.m_others = std::move(*others);
    return c;
}

Expected<std::vector<Conversion::Other>> Conversion::othersOf(const Layout& layout,
                                                              const SampleMaker& maker) {
    std::vector<Other> out;
    for (const auto& o : maker.others()) {
        const auto& column = layout.columns[o.column];
        auto table = Calibration::make(column.calibration.points);
        if (!table) return fail(o.name + ": " + table.error().message);
        out.push_back({std::move(*table), column.flipped ? -1.0 : 1.0, 0, o.unit == "N"});
    }
    return out;
}

Calibrated Conversion::other(std::size_t i, double reading) const {
    const auto& o = m_others[i];
    const auto now = o.calibration(reading);
    return {o.sign * (now.value - (o.force ? o.calibration(o.zero).value : 0)), now.inside};
}

void Conversion::zeroOthers(const std::array<double, mostOthers>& readings) {
    for (std::size_t i = 0; i < m_others.size(); ++i)
        if (m_others[i].force) m_others[i].zero = readings[i];
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
        Column c{name, role, unit};
        c.question = question;
        if (!question.empty()) out.columns.push_back(std::move(c));
    };
    asked(Role::force, "force", "N", s.forceQuery);
    asked(Role::displacement, "travel", "m", s.displacementQuery);
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

Column* columnOf(Setup& setup, std::size_t channel) {
    const auto within = [&](std::vector<Column>& columns, const Layout& heard, bool main) -> Column* {
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

Calibrated Conversion::force(double reading) const {
    // The zero is taken off what the table says, not off the reading: a curved scale would turn it otherwise.
    const auto now = m_calibration(reading), rest = m_calibration(m_zero);
    return {m_ratio.value * m_sign * (now.value - rest.value) + m_ratio.offset, now.inside};
}

std::optional<double> Conversion::calibratedTo() const {
    if (m_calibration.empty()) return std::nullopt;
    return std::max(force(m_calibration.low()).value, force(m_calibration.high()).value);
}

double Conversion::cellEnd(double cellLimit) const {
    const double zero = m_front.specimen(m_calibration(m_zero).value); // N at the cell
    return m_ratio.value / m_front.value * (cellLimit - m_sign * zero) + m_ratio.offset;
}

} // namespace anvil::rig
