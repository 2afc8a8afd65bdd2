// From what a device says to loads at the specimen.
#include "setup_parts.h"

#include <fmt/format.h>

namespace anvil::rig {

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
