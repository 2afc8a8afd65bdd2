#include <anvil/link/rig_server.h>

#include <QHostAddress>
#include <QSocketNotifier>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTimer>
#include <cmath>
#include <fcntl.h>
#include <pty.h>
#include <termios.h>
#include <unistd.h>

namespace anvil::link {
namespace {

constexpr qint64 mostUnsent = 4 << 20; // a listener that does not listen loses lines, as on a real wire
constexpr double leastStrength = 1e-3,
                 mostOrdered = 1e7; ///< N, s or as the order has it; what is beyond is no order

} // namespace

QByteArray RigServer::lineOf(const sim::RigReading& r) const {
    const double load = m_load == quantity::Dimension::force ? r.load : r.load / 100;
    const double travel = m_load == quantity::Dimension::torque ? 18000 * r.travel : 1000 * r.travel;
    auto line = QByteArray::number(r.time, 'f', 6) + ',' +
                QByteArray::number(load, 'f', m_load == quantity::Dimension::force ? 2 : 4) + ',' +
                QByteArray::number(travel, 'f', 4);
    for (const double leg : r.legs)
        line += ',' + QByteArray::number(leg, 'f', 2);
    return line + '\n';
}

RigServer::RigServer(const sim::RigOptions& options, bool answers, QObject* parent)
    : QObject(parent), m_rig(options), m_answers(answers), m_timer(new QTimer(this)) {
    m_clock.start();
    m_timer->setTimerType(Qt::PreciseTimer);
    connect(m_timer, &QTimer::timeout, this, &RigServer::tick);
    m_timer->start(5);
}

RigServer::~RigServer() {
    if (m_terminal >= 0) ::close(m_terminal);
    if (m_slave >= 0) ::close(m_slave);
}

Expected<QString> RigServer::listenTcp(quint16 port) {
    m_server = new QTcpServer(this);
    connect(m_server, &QTcpServer::newConnection, this, &RigServer::accept);
    if (!m_server->listen(QHostAddress::LocalHost, port))
        return fail("Port " + std::to_string(port) +
                    " cannot be had: " + m_server->errorString().toStdString());
    return QStringLiteral("tcp:127.0.0.1:%1").arg(m_server->serverPort());
}

Expected<QString> RigServer::openTerminal() {
    char name[256];
    if (::openpty(&m_terminal, &m_slave, name, nullptr, nullptr) != 0)
        return fail("There is no pseudo-terminal to be had.");
    termios raw{};
    ::tcgetattr(m_slave, &raw);
    ::cfmakeraw(&raw);
    ::tcsetattr(m_slave, TCSANOW, &raw);
    ::fcntl(m_terminal, F_SETFL, ::fcntl(m_terminal, F_GETFL) | O_NONBLOCK);
    m_heard = new QSocketNotifier(m_terminal, QSocketNotifier::Read, this);
    connect(m_heard, &QSocketNotifier::activated, this, [this] {
        char bytes[4096];
        const auto n = ::read(m_terminal, bytes, sizeof bytes);
        if (n > 0) hear(QByteArray(bytes, n));
    });
    return QStringLiteral("serial:%1@115200").arg(QString::fromLocal8Bit(name));
}

void RigServer::accept() {
    while (auto* fresh = m_server->nextPendingConnection()) {
        if (m_socket || m_then < m_awayUntil) { // one listener at a time, and none while unplugged
            fresh->abort();
            fresh->deleteLater();
            continue;
        }
        m_socket = fresh;
        m_cutter.clear();
        connect(fresh, &QTcpSocket::readyRead, this, [this, fresh] { hear(fresh->read(65536)); });
        connect(fresh, &QTcpSocket::disconnected, this, [this, fresh] {
            if (m_socket == fresh) m_socket = nullptr;
            fresh->deleteLater();
        });
        QByteArray heads;
        for (const auto& c : rig::simulatedLayout(m_load).columns)
            heads += (heads.isEmpty() ? "" : ",") + QByteArray::fromStdString(c.name + " [" + c.unit + "]");
        for (std::size_t i = 0; i < m_rig.legs(); ++i)
            heads += ",leg " + QByteArray::number(i + 1) + " [N]";
        if (!m_answers) say(heads + '\n');
    }
}

void RigServer::say(const QByteArray& bytes) {
    if (m_socket && m_socket->bytesToWrite() < mostUnsent) m_socket->write(bytes);
    if (m_terminal >= 0 && ::write(m_terminal, bytes.constData(), static_cast<std::size_t>(bytes.size())) < 0)
        return; // nobody reads: the line is full, as on a real wire
}

void RigServer::hear(const QByteArray& bytes) {
    m_cutter.feed(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())),
                  [this](std::string_view line) {
                      const auto answer = obey(QByteArray(line.data(), static_cast<qsizetype>(line.size())));
                      if (!answer.isEmpty() && m_then >= m_silentUntil) say(answer + '\n');
                  });
}

void RigServer::drop(double seconds) {
    m_awayUntil = m_then + seconds;
    if (m_socket) m_socket->abort();
}

QByteArray RigServer::obey(const QByteArray& line) {
    const auto words = line.trimmed().toUpper().split(' ');
    const auto& word = words[0];
    double number = words.size() > 1 ? words[1].toDouble() : 0;
    if (!(std::abs(number) <= mostOrdered)) number = 0; // nor NaN: as if it had not been said
    if (word == "*IDN?") return "Jaunty Anvil,simulated rig,1,1";
    if (word == "MEAS:FORC?") return QByteArray::number(m_last.load, 'e', 6) + " N";
    if (word == "MEAS:DISP?") return QByteArray::number(m_last.travel, 'e', 6) + " m";
    for (std::size_t i = 0; i < m_last.legs.size(); ++i) // MEAS:FORC2? is the first leg
        if (word == "MEAS:FORC" + QByteArray::number(i + 2) + "?")
            return QByteArray::number(m_last.legs[i], 'e', 6) + " N";
    if (word == "SENS:ZERO" || word == "!ZERO")
        m_rig.zero();
    else if (word == "!PULL")
        m_rig.pull();
    else if (word == "!STOP")
        m_rig.stop();
    else if (word == "!PAUSE" || word == "!GO")
        m_rig.pause(word == "!PAUSE");
    else if (word == "!RELEASE")
        m_rig.release();
    else if (word == "!STRENGTH" && number >= leastStrength)
        m_rig.setStrength(number);
    else if (word == "!MODEL" && words.size() > 1) {
        if (const auto m = sim::modelFromName(words[1].toLower().toStdString())) m_rig.setModel(*m);
    } else if (word == "!UNPLUG")
        drop(number > 0 ? number : 1);
    else if (word == "!SILENT")
        m_silentUntil = m_then + (number > 0 ? number : 1);
    else if (word == "!DRIFT")
        m_rig.drift(number);
    else if (word == "!SPIKE")
        m_rig.spike(number > 0 ? static_cast<int>(std::min(number, 1000.0)) : 1);
    else if (word == "!REZERO")
        m_rig.zero();
    else if (word == "!SKEW")
        m_skew = number;
    else if (word == "!CLOCK")
        m_rig.shiftClock(number);
    else if (word == "!GARBAGE") {
        QByteArray noise;
        for (int i = 0; i < std::min(number, 100000.0); ++i)
            noise += QByteArray("\x81\xfe~#,,x1e400 ") + QByteArray::number(i * 7919 % 1000) + "\n";
        say(noise);
    } else if (m_answers)
        return "ERR unknown";
    return {};
}

void RigServer::tick() {
    const double now = static_cast<double>(m_clock.nsecsElapsed()) * 1e-9, gone = now - m_then;
    m_then = now;
    QByteArray out;
    for (auto& r : m_rig.advance(gone)) {
        m_last = r;
        r.time *= 1 + m_skew;
        if (!m_answers) out += lineOf(r);
    }
    if (!out.isEmpty() && now >= m_silentUntil && now >= m_awayUntil) say(out);
    if (m_wasPulling && !m_rig.pulling()) {
        m_idle = 0;
        emit pulled();
    }
    m_wasPulling = m_rig.pulling();
    m_idle += gone;
    if (m_auto > 0 && !m_wasPulling && m_idle > m_auto) m_rig.pull();
}

} // namespace anvil::link
