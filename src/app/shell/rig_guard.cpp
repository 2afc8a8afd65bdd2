#include "shell/rig_guard.h"

#include "shell/rig_desk.h"
#include <QApplication>
#include <QDBusConnection>
#include <QMessageBox>
#include <QPushButton>
#include <QSocketNotifier>
#include <array>
#include <csignal>
#include <sys/socket.h>
#include <unistd.h>

namespace anvil::app {
namespace {

/// A handler may do no more than write a byte; the other end is read in the window's own loop.
std::array<int, 2> pipeOfSignals{-1, -1};

extern "C" void passOn(int) {
    const char byte = 1;
    (void)!::write(pipeOfSignals[0], &byte, 1);
}

} // namespace

RigGuard::RigGuard(Session& session, QWidget* window)
    : QObject(window), m_session(session), m_window(window) {
    connect(qApp, &QGuiApplication::commitDataRequest, this, &RigGuard::stopNow, Qt::DirectConnection);
    QDBusConnection::systemBus().connect("org.freedesktop.login1", "/org/freedesktop/login1",
                                         "org.freedesktop.login1.Manager", "PrepareForSleep", this,
                                         SLOT(machineSleeps(bool)));
}

RigGuard::~RigGuard() {
    if (!m_notifier) return;
    for (const int s : {SIGTERM, SIGINT, SIGHUP})
        std::signal(s, SIG_DFL);
    for (auto& end : pipeOfSignals)
        ::close(std::exchange(end, -1));
}

void RigGuard::watchSignals() {
    if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, pipeOfSignals.data()) != 0) return;
    m_notifier = new QSocketNotifier(pipeOfSignals[1], QSocketNotifier::Read, this);
    connect(m_notifier, &QSocketNotifier::activated, this, [this] {
        m_notifier->setEnabled(false);
        stopNow();
        QCoreApplication::quit();
    });
    for (const int s : {SIGTERM, SIGINT, SIGHUP})
        std::signal(s, passOn);
}

void RigGuard::stopNow() {
    if (m_session.rig().inUse()) m_session.rig().bench().halt();
}

void RigGuard::machineSleeps(bool begins) {
    if (begins) stopNow();
}

bool RigGuard::mayClose() {
    if (!m_session.rig().inUse() || m_session.rig().live().recorder != rig::RecorderState::loading)
        return true;
    stopNow(); // before anything else
    const auto& setup = m_session.rig().setup();
    const auto live = m_session.rig().live();
    QMessageBox box(m_window);
    box.setObjectName("closeUnderLoad");
    box.setIcon(QMessageBox::Warning);
    box.setWindowTitle(tr("Load on the piece"));
    box.setText(tr("A pull was being recorded, with %1 on the piece.").arg(m_session.force(live.load)));
    box.setInformativeText(
        setup.onStop.empty()
            ? tr("This rig takes no order to stop: see to it by hand, and take the load off.")
            : tr("The rig has been told to stop. The load may still be on: take it off."));
    auto* stay = box.addButton(tr("Stay"), QMessageBox::RejectRole);
    auto* close = box.addButton(tr("Close all the same"), QMessageBox::AcceptRole);
    box.setDefaultButton(stay);
    box.setEscapeButton(stay);
    box.exec();
    return box.clickedButton() == close;
}

} // namespace anvil::app
