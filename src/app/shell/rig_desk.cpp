#include "shell/rig_desk.h"

#include "shell/preferences.h"

#include <anvil/link/rig_server.h>
#include <anvil/project/practice.h>
#include <anvil/project/rig_commands.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

RigDesk::RigDesk(Session& session) : m_session(session) {
    connect(&m_bench, &station::LiveBench::changed, this, &RigDesk::changed);
}

RigDesk::~RigDesk() { m_bench.disconnectRig(); } // told to stop while the virtual one still listens

bool RigDesk::store(const rig::Setup& setup) {
    if (!m_session.project()) {
        m_session.say(tr("Open a project first: a rig belongs to it."), true);
        return false;
    }
    const auto id = project::saveRig(*m_session.project(), setup);
    if (!m_session.tell(id)) return false;
    m_setup = setup;
    m_setupId = *id;
    emit changed();
    return true;
}

bool RigDesk::keep(const rig::Setup& setup) {
    if (!store(setup)) return false;
    return !m_listening || setup.address.empty() || use(setup);
}

bool RigDesk::edit(const std::function<void(rig::Setup&)>& change) {
    auto setup = m_setup;
    if (setup.name.empty()) setup.name = tr("My rig").toStdString();
    change(setup);
    if (setup == m_setup) return true;
    return keep(setup);
}

void RigDesk::takeFromProject() {
    if (!m_session.project()) return;
    for (const auto& [id, setup] : m_session.project()->rigs())
        if (!setup.practice && !project::onlyTold(*m_session.project(), setup)) {
            m_setup = setup;
            m_setupId = id;
        }
    emit changed();
}

bool RigDesk::use(const rig::Setup& setup) {
    if (!store(setup)) return false;
    if (setup.address.empty()) {
        m_session.say(tr("Say where the rig is reached, such as serial:/dev/ttyUSB0@115200."), true);
        return false;
    }
    m_listening = m_session.tell(m_bench.connectTo(setup, preferences::otherMachines()));
    return m_listening;
}

bool RigDesk::practise() {
    if (!m_session.project()) {
        m_session.say(tr("Open or start a project first; the practice study goes into it."), true);
        return false;
    }
    auto& project = *m_session.project();
    Id study = 0;
    for (const auto& s : project.studies())
        if (s.study.plan.practice) study = s.study.id;
    if (!study) {
        const auto made = project::addPracticeStudy(
            project, static_cast<std::uint64_t>(m_session.now().toSecsSinceEpoch()));
        if (!m_session.tell(made)) return false;
        study = *made;
    }
    m_session.showStudy(study);
    sim::RigOptions options;
    options.logger.noise = 2;
    options.logger.resolution = 0.5;
    options.logger.zeroOffset = 14;
    options.logger.speed = 0.002;
    options.seed = project.study(study)->study.plan.seed;
    m_virtual = std::make_unique<link::RigServer>(options, false);
    const auto address = m_virtual->listenTcp(0);
    if (!m_session.tell(address)) return false;
    rig::Setup setup;
    setup.name = "Virtual bench";
    setup.address = address->toStdString();
    setup.layout = rig::simulatedLayout();
    setup.rigLimit = 4000;
    setup.onArm = "!pull";
    setup.onStop = "!stop";
    setup.onPause = "!pause";
    setup.onResume = "!go";
    setup.practice = true;
    return use(setup);
}

void RigDesk::disconnectRig() {
    m_listening = false;
    m_bench.disconnectRig();
    m_virtual.reset();
    emit changed();
}

void RigDesk::letGo() {
    m_listening = false;
    m_bench.disconnectRig();
    m_virtual.reset();
    m_setup = {};
    m_setupId = 0;
}

station::Station RigDesk::station() const { return {m_setup, m_setupId, safetySeen()}; }

station::Circumstances RigDesk::circumstances() const {
    station::Circumstances c{m_session.now().toString(Qt::ISODate).toStdString(),
                             preferences::operatorName().toStdString()};
    if (m_setup.practice && m_session.study())
        c.strength = [seed = m_session.study()->study.plan.seed](int option) {
            return project::practiceStrength(seed, option);
        };
    return c;
}

void RigDesk::takeStretchFrom(Id pull) {
    const auto r = m_session.readings().byPull.find(pull);
    if (r == m_session.readings().byPull.end() || !r->second.stiffness)
        return m_session.say(
            tr("Select a pull of a rigid bar that has a stiffness: all it gives way then is the rig."), true);
    const auto compliance = rig::complianceFrom(m_setup, r->second.stiffness->value);
    if (!m_session.tell(compliance)) return;
    if (edit([&](rig::Setup& s) { s.compliance = *compliance; }))
        m_session.say(tr("The rig gives way by %1 mm for each kN. Travel is corrected by that from now on.")
                          .arg(qs(quantity::significant(*compliance * 1e6))));
}

bool RigDesk::safetySeen() const {
    const auto seen = preferences::safetySeen(m_setupId);
    return m_setupId && seen.isValid() && seen.secsTo(QDateTime::currentDateTime()) < 86400;
}

void RigDesk::setSafetySeen() { preferences::setSafetySeen(m_setupId, QDateTime::currentDateTime()); }

} // namespace anvil::app
