#include "listener.h"

#include <algorithm>
#include <anvil/columns/line.h>

namespace anvil::station {
namespace {

constexpr int keptLines = 60;
constexpr int keptFirst = 4; // a heading is sent once

} // namespace

Listener::Listener(const link::Address& address, const rig::Layout& layout, bool answers, bool forceNeeded,
                   const QElapsedTimer& clock, Ear ear)
    : m_clock(clock), m_ear(std::move(ear)), m_device(address),
      m_maker(rig::SampleMaker::make(layout, forceNeeded)), m_timeline(answers ? 0 : layout.rate) {
    if (answers) m_dialogue.emplace(layout);
    connect(&m_device, &link::Device::arrived, this, &Listener::hear);
    connect(&m_device, &link::Device::stateChanged, this, &Listener::linkChanged);
}

void Listener::linkChanged(bool connected, const QString& sentence) {
    if (m_dialogue) m_dialogue->restart();
    if (connected) {
        m_timeline.restart();
        m_cutter.clear();
        ask();
    }
    m_ear.link(connected, sentence);
}

void Listener::ask() {
    if (!m_dialogue || m_dialogue->question().empty()) return;
    m_device.send(QByteArray::fromStdString(m_dialogue->question()));
    m_dialogue->asked(now());
}

std::optional<rig::RawSample> Listener::sampleIn(std::string_view line) {
    if (!m_maker) return std::nullopt;
    auto sample = (*m_maker)(line);
    if (sample) {
        m_last = sample;
    } else if (m_last && columns::saysOverload(line)) { // no number: the load is at least the last one
        sample = m_last;
        sample->overload = true;
        sample->time.reset();
    }
    return sample;
}

void Listener::hear(const QByteArray& bytes) {
    const double at = now();
    QStringList shown;
    m_cutter.feed(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())),
                  [&](std::string_view line) {
                      if (shown.size() < keptLines)
                          shown << QString::fromUtf8(line.data(), static_cast<qsizetype>(line.size()));
                      std::optional<rig::RawSample> raw;
                      if (!m_dialogue) {
                          raw = sampleIn(line);
                          if (!raw) ++m_noise;
                      } else if (const auto heard = m_dialogue->answer(line, at); !heard) {
                          ++m_noise; // the question stays open until it is asked anew
                      } else {
                          if (!heard->empty()) raw = sampleIn(*heard);
                          ask();
                      }
                      if (raw) m_ear.sample(*raw, m_timeline.stamp(raw->time, at));
                  });
    {
        const std::lock_guard lock(m_mutex);
        for (const auto& line : shown)
            if (m_first.size() < keptFirst) m_first << line;
        m_heard += static_cast<std::uint64_t>(shown.size());
        m_lines += shown;
        if (m_lines.size() > keptLines) m_lines = m_lines.mid(m_lines.size() - keptLines);
    }
    m_lastHeard = at;
    m_ear.arrived();
}

void Listener::tick() {
    if (m_dialogue && m_dialogue->due(now())) ask();
}

QStringList Listener::lines() const {
    const std::lock_guard lock(m_mutex);
    const auto gone =
        m_heard - static_cast<std::uint64_t>(m_lines.size()); // lines before those that are kept
    return m_first.mid(0, static_cast<qsizetype>(std::min<std::uint64_t>(gone, keptFirst))) + m_lines;
}

} // namespace anvil::station
