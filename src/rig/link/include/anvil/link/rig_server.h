// The virtual rig on a loopback TCP port or a pseudo-terminal, speaking both protocols of docs/rig-link.md.
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <anvil/quantity/error.h>
#include <anvil/rig/lines.h>
#include <anvil/sim/virtual_rig.h>
#include <memory>

class QIODevice;
class QSocketNotifier;
class QTcpServer;
class QTcpSocket;
class QTimer;

namespace anvil::link {

class RigServer : public QObject {
    Q_OBJECT
public:
    /// `answers`: speaks only when asked.
    RigServer(const sim::RigOptions& options, bool answers, QObject* parent = nullptr);
    ~RigServer() override;

    /// Listens on this machine only; 0: any free port. Returns the address to connect to. Error: it is taken.
    Expected<QString> listenTcp(quint16 port);
    /// Opens a pseudo-terminal. Returns the address to connect to. Error: there is none to be had.
    Expected<QString> openTerminal();
    /// Shows its force as a torque (a hundredth, N·m, with 18° for each mm) or a deceleration (a hundredth,
    /// g₀) instead; before anybody connects.
    void show(quantity::Dimension load) { m_load = load; }
    /// Pulls by itself: so many seconds after the last one ended, 0: only when told.
    void setAuto(double seconds) { m_auto = seconds; }

    sim::VirtualRig& rig() { return m_rig; }
    /// Carries out a line as if it had come over the wire; what is answered, or empty.
    QByteArray obey(const QByteArray& line);

signals:
    void pulled(); ///< a specimen was pulled; its truth is in rig()

private:
    void tick();
    void accept();
    void say(const QByteArray& bytes);
    void hear(const QByteArray& bytes);
    void drop(double seconds);

    QByteArray lineOf(const sim::RigReading& reading) const;
    sim::VirtualRig m_rig;
    quantity::Dimension m_load = quantity::Dimension::force;
    bool m_answers = false, m_wasPulling = false;
    double m_auto = 0, m_idle = 0, m_awayUntil = 0, m_silentUntil = 0, m_skew = 0;
    sim::RigReading m_last;
    rig::LineCutter m_cutter;
    QElapsedTimer m_clock;
    double m_then = 0;
    QTimer* m_timer;
    QTcpServer* m_server = nullptr;
    QTcpSocket* m_socket = nullptr;
    QSocketNotifier* m_heard = nullptr;
    int m_terminal = -1, m_slave = -1;
};

} // namespace anvil::link
