#include "channel_group.h"

#include <cmath>

namespace anvil::station {

const ChannelGroup::Values& ChannelGroup::take(const rig::Conversion& conversion, const Values& raw,
                                               double weight) {
    for (std::size_t i = 0; i < m_names.size(); ++i) {
        m_raw[i] += (raw[i] - m_raw[i]) * (m_known ? weight : 1);
        const auto value = conversion.other(i, raw[i]);
        m_values[i] = value.value;
        m_inside[i] = value.inside;
        m_beyond[i] = m_beyond[i] || !value.inside;
    }
    m_known = true;
    return m_values;
}

void ChannelGroup::addTo(std::vector<LiveChannel>& all, bool fresh) const {
    for (std::size_t i = 0; i < m_names.size(); ++i) {
        LiveChannel c;
        c.name = QString::fromStdString(m_names[i].name);
        c.unit = QString::fromStdString(m_names[i].unit);
        c.value = m_values[i];
        c.raw = m_raw[i];
        c.inside = m_inside[i] || !m_known;
        c.fresh = fresh && m_known;
        c.overLimit = m_names[i].limit && std::abs(m_values[i]) >= *m_names[i].limit;
        all.push_back(std::move(c));
    }
}

void ChannelGroup::addBeyondTo(QStringList& all) const {
    for (std::size_t i = 0; i < m_names.size(); ++i)
        if (m_beyond[i]) all << QString::fromStdString(m_names[i].name);
}

} // namespace anvil::station
