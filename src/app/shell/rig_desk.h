// The rig of the open project: which set-up is in use, the live bench behind it, and the virtual one.
#pragma once

#include "shell/session.h"
#include <anvil/station/pull_run.h>

namespace anvil::link {
class RigServer;
}

namespace anvil::app {

class RigDesk : public QObject {
    Q_OBJECT
public:
    explicit RigDesk(Session& session);
    ~RigDesk() override;

    station::LiveBench& bench() { return m_bench; }
    station::Live live() const { return m_bench.live(); }
    const rig::Setup& setup() const { return m_setup; }
    /// The unit its load is shown in.
    const quantity::Unit& loadUnit() const { return m_session.units().of(rig::recordedLoad(m_setup)); }
    /// The version of the set-up kept in the project; 0: none is in use.
    Id setupId() const { return m_setupId; }
    bool inUse() const { return live().link != station::LinkState::none; }

    /// Keeps the set-up in the project and listens to the rig from then on; false and a message when it
    /// cannot.
    bool use(const rig::Setup& setup);
    /// Keeps a changed set-up as a new version; where the rig is listened to, by the new one from then on.
    bool keep(const rig::Setup& setup);
    /// Changes the set-up in use; see keep().
    bool edit(const std::function<void(rig::Setup&)>& change);
    /// Takes the rig that was used last in the project that has just been opened.
    void takeFromProject();
    /// A virtual rig and a study of its own to practise on.
    bool practise();
    void disconnectRig();
    /// Nothing is recorded into the open project any more; it is about to be closed.
    void letGo();
    /// The rig as it is set up, and what else is known of a pull that begins now.
    station::Station station() const;
    station::Circumstances circumstances() const;
    /// Learns from a pull of a rigid bar how much the rig gives way, and keeps it; a message either way.
    void takeStretchFrom(Id pull);
    /// Whether the cautions were seen to on this set-up within a day; and that they have been.
    bool safetySeen() const;
    void setSafetySeen();

signals:
    void changed(); ///< link, recorder or set-up

private:
    bool store(const rig::Setup& setup);
    Session& m_session;
    station::LiveBench m_bench;
    std::unique_ptr<link::RigServer> m_virtual;
    rig::Setup m_setup;
    Id m_setupId = 0;
    bool m_listening = false; ///< has been told to; the bench takes a moment
};

} // namespace anvil::app
