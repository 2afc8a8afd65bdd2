#include <anvil/rig/setup.h>

#include <anvil/quantity/print.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace anvil::rig {
namespace {

using Json = nlohmann::json;

constexpr const char* partKeys[] = {"lever", "line", "angle", "plain"};

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

std::vector<CalibrationPoint> points(const Json& o) {
    std::vector<CalibrationPoint> out;
    for (const auto& p : o.value("calibration", Json::array()))
        out.push_back({p.at(0).get<double>(), p.at(1).get<double>()});
    return out;
}

Json layoutToJson(const Layout& l) {
    Json columns = Json::array();
    for (const auto& c : l.columns) {
        Json o{{"name", c.name}, {"role", key(c.role)}, {"unit", c.unit}};
        if (c.flipped) o["flipped"] = true;
        put(o, "limit", c.limit);
        for (const auto& p : c.calibration)
            o["calibration"].push_back({p.reading, p.truth});
        columns.push_back(std::move(o));
    }
    return {{"delimiter", std::string(1, l.delimiter)},
            {"decimal", std::string(1, l.decimal)},
            {"rate", l.rate},
            {"columns", columns}};
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
    for (const auto& c : o.value("columns", Json::array()))
        l.columns.push_back({text(c, "name"), roleFromKey(text(c, "role")).value_or(Role::none),
                             text(c, "unit"), c.value("flipped", false), number(c, "limit"), points(c)});
    return l;
}

} // namespace

std::optional<double> limitOf(const Setup& s) {
    const auto ratio = ratioOf(s.path);
    std::optional<double> cell;
    if (s.cellLimit && ratio) cell = ratio->specimen(*s.cellLimit);
    if (s.rigLimit && cell) return std::min(*s.rigLimit, *cell);
    return s.rigLimit ? s.rigLimit : cell;
}

double displayStep(const Setup& s) {
    const auto ratio = ratioOf(s.path);
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
    if (const auto ratio = ratioOf(s.path); !ratio) out.push_back(ratio.error().message);
    if (const auto c = Calibration::make(s.calibration); !c) out.push_back(c.error().message);
    if (s.protocol == Protocol::lines && !s.address.empty())
        if (const auto m = SampleMaker::make(s.layout); !m) out.push_back(m.error().message);
    for (const auto& c : s.layout.columns)
        if (const auto table = Calibration::make(c.calibration); !table)
            out.push_back(fmt::format("{}: {}", c.name, table.error().message));
    for (const auto& d : s.sides) {
        if (const auto m = SampleMaker::make(d.layout, false); !m)
            out.push_back(fmt::format("{}: {}", d.name, m.error().message));
        for (const auto& c : d.layout.columns)
            if (const auto table = Calibration::make(c.calibration); !table)
                out.push_back(fmt::format("{}, {}: {}", d.name, c.name, table.error().message));
    }
    if (s.protocol == Protocol::answers && s.forceQuery.empty())
        out.emplace_back("Say which question the rig answers with its force, such as MEAS:FORC?");
    if (!s.expires.empty() && s.expires < today)
        out.push_back(fmt::format("The calibration ran out on {}.", s.expires));
    if (!s.checks.empty() && !s.checks.back().passed())
        out.push_back("The last look at a known weight did not pass: " + sentence(s.checks.back()));
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
    if (s.flipped) o["flipped"] = true;
    put(o, "cell_limit_N", s.cellLimit);
    put(o, "rig_limit_N", s.rigLimit);
    put(o, "travel_m", s.travel);
    put(o, "resolution_N", s.resolution);
    put(o, "speed_m_per_s", s.speed);
    if (s.compliance != 0) o["compliance_m_per_N"] = s.compliance;
    for (const auto& p : s.path)
        o["path"].push_back({{"kind", partKeys[static_cast<int>(p.kind)]},
                             {"a", p.a},
                             {"b", p.b},
                             {"ua", p.ua},
                             {"ub", p.ub},
                             {"moment_Nm", p.moment}});
    for (const auto& p : s.calibration)
        o["calibration"].push_back({p.reading, p.truth});
    put(o, "calibrated", s.calibrated);
    put(o, "expires", s.expires);
    for (const auto& c : s.checks)
        o["checks"].push_back(
            {{"at", c.at}, {"known_N", c.known}, {"shown_N", c.shown}, {"tolerance", c.tolerance}});
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
        s.layout = layoutFrom(o.value("layout", Json::object()));
        s.flipped = o.value("flipped", false);
        s.cellLimit = number(o, "cell_limit_N");
        s.rigLimit = number(o, "rig_limit_N");
        s.travel = number(o, "travel_m");
        s.resolution = number(o, "resolution_N");
        s.speed = number(o, "speed_m_per_s");
        s.compliance = o.value("compliance_m_per_N", 0.0);
        for (const auto& p : o.value("path", Json::array())) {
            RatioPart part;
            for (int k = 0; k < 4; ++k)
                if (text(p, "kind") == partKeys[k]) part.kind = static_cast<RatioPart::Kind>(k);
            part.a = p.value("a", 1.0);
            part.b = p.value("b", 1.0);
            part.ua = p.value("ua", 0.0);
            part.ub = p.value("ub", 0.0);
            part.moment = p.value("moment_Nm", 0.0);
            s.path.push_back(part);
        }
        s.calibration = points(o);
        for (const auto& d : o.value("sides", Json::array()))
            s.sides.push_back(
                {text(d, "name"), text(d, "address"), layoutFrom(d.value("layout", Json::object()))});
        s.holdSeconds = o.value("hold_s", 0.0);
        s.lookEvery = o.value("look_every_N", 0.0);
        s.calibrated = text(o, "calibrated");
        s.expires = text(o, "expires");
        for (const auto& c : o.value("checks", Json::array()))
            s.checks.push_back({text(c, "at"), c.value("known_N", 0.0), c.value("shown_N", 0.0),
                                c.value("tolerance", 0.01)});
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
    auto calibration = Calibration::make(s.calibration);
    if (!calibration) return tl::unexpected(calibration.error());
    const auto ratio = ratioOf(s.path);
    if (!ratio) return tl::unexpected(ratio.error());
    c.m_calibration = std::move(*calibration);
    c.m_ratio = *ratio;
    c.m_sign = s.flipped ? -1 : 1;
    c.m_compliance = s.compliance;
    if (s.protocol == Protocol::answers) return c;
    const auto maker = SampleMaker::make(s.layout);
    if (!maker) return c; // said where the set-up is looked at
    auto others = othersOf(s.layout, *maker);
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
        auto table = Calibration::make(column.calibration);
        if (!table) return fail(o.name + ": " + table.error().message);
        out.push_back({std::move(*table), column.flipped ? -1.0 : 1.0, 0, o.unit == "N"});
    }
    return out;
}

double Conversion::other(std::size_t i, double reading) const {
    const auto& o = m_others[i];
    return o.sign * (o.calibration(reading).value - (o.force ? o.calibration(o.zero).value : 0));
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

std::vector<ChannelName> channelsOf(const Setup& s) {
    return s.protocol == Protocol::answers ? std::vector<ChannelName>{} : names(SampleMaker::make(s.layout));
}

std::vector<ChannelName> allChannels(const Setup& setup) {
    auto out = channelsOf(setup);
    for (const auto& side : setup.sides)
        for (auto& name : channelsOf(side))
            out.push_back(std::move(name));
    return out;
}

Column* columnOf(Setup& setup, std::size_t channel) {
    const auto within = [&](Layout& layout, bool main) -> Column* {
        const auto maker = SampleMaker::make(layout, main);
        const auto count = maker ? maker->others().size() : 0;
        if (channel < count) return &layout.columns[maker->others()[channel].column];
        channel -= count;
        return nullptr;
    };
    if (setup.protocol == Protocol::lines)
        if (auto* c = within(setup.layout, true)) return c;
    for (auto& side : setup.sides)
        if (auto* c = within(side.layout, false)) return c;
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

double Conversion::cellEnd(double cellLimit) const {
    return m_ratio.value * (cellLimit - m_sign * m_calibration(m_zero).value) + m_ratio.offset;
}

} // namespace anvil::rig
