#include "side_stream.h"

namespace anvil::station {
namespace {

constexpr double keptSeconds = 2; // before a recording begins
constexpr std::size_t mostKept = 400000;

} // namespace

SideStream::SideStream(const rig::SideDevice& about, const link::Address& address, const QElapsedTimer& clock,
                       std::function<void(std::span<const rig::Sample>)> arrived)
    : m_conversion(rig::Conversion::make(about).value_or(rig::Conversion{})),
      m_channels(rig::channelsOf(about)), m_arrived(std::move(arrived)),
      m_listener(address, about.layout, about.answers(), false, clock,
                 Listener::Ear{[this](const rig::RawSample& raw, double time) { take(raw, time); },
                               [this] { keep(); }, [this](bool, const QString& said) { m_said = said; }}) {}

void SideStream::take(const rig::RawSample& raw, double time) {
    rig::Sample s;
    s.time = time;
    s.others = m_channels.take(m_conversion, raw.others, smoothing(time - m_last));
    m_last = time;
    m_fresh.push_back(s);
}

void SideStream::keep() {
    m_recent.insert(m_recent.end(), m_fresh.begin(), m_fresh.end());
    while (!m_recent.empty() &&
           (m_recent.size() > mostKept || m_recent.front().time < m_recent.back().time - keptSeconds))
        m_recent.pop_front();
    if (!m_fresh.empty()) m_arrived(m_fresh);
    m_fresh.clear();
}

void SideStream::addTo(std::vector<LiveChannel>& all) const {
    const auto from = all.size();
    m_channels.addTo(all, m_listener.silence() < 1);
    for (auto i = from; i < all.size(); ++i) {
        all[i].skew = m_listener.skew();
        all[i].said = m_said;
    }
}

} // namespace anvil::station
