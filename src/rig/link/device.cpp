#include <anvil/link/device.h>

#include <QElapsedTimer>
#include <QHostAddress>
#include <QSerialPort>
#include <QTcpSocket>
#include <QTimer>

namespace anvil::link {
namespace {

constexpr qint64 mostBuffered = 1 << 20; // a flood waits in the kernel, not here

bool isThisMachine(const QString& host) { return host == "localhost" || QHostAddress(host).isLoopback(); }

} // namespace

Expected<Address> addressFrom(const QString& text, bool otherMachines) {
    const auto t = text.trimmed();
    const auto bad = [&] {
        return fail("\"" + t.toStdString() +
                    "\" is no address of a rig: write tcp:127.0.0.1:4711 or serial:/dev/ttyUSB0@115200.");
    };
    if (t.startsWith("tcp:")) {
        const auto colon = t.lastIndexOf(':');
        bool ok = false;
        const int port = t.mid(colon + 1).toInt(&ok);
        const auto host = t.mid(4, colon - 4);
        if (colon <= 4 || !ok || port < 1 || port > 65535) return bad();
        if (!otherMachines && !isThisMachine(host))
            return fail(host.toStdString() +
                        " is another machine. Rigs are reached on this machine only, unless you allow others "
                        "in the menu Rig.");
        return Address{Address::Kind::tcp, host, port};
    }
    if (t.startsWith("serial:")) {
        const auto at = t.lastIndexOf('@');
        bool ok = true;
        const int baud = at > 0 ? t.mid(at + 1).toInt(&ok) : 115200;
        const auto file = t.mid(7, at > 0 ? at - 7 : -1);
        if (file.isEmpty() || !ok || baud < 50 || baud > 20'000'000) return bad();
        return Address{Address::Kind::serial, file, baud};
    }
    return bad();
}

Device::Device(const Address& address, QObject* parent)
    : QObject(parent), m_address(address), m_retry(new QTimer(this)) {
    m_retry->setSingleShot(true);
    m_retry->setInterval(retryMs);
    connect(m_retry, &QTimer::timeout, this, &Device::open);
}

Device::~Device() { close(); }

void Device::open() {
    m_wanted = true;
    if (m_io) m_io->disconnect(this);
    m_io.reset();
    if (m_address.kind == Address::Kind::tcp) {
        auto socket = std::make_unique<QTcpSocket>();
        socket->setReadBufferSize(mostBuffered);
        connect(socket.get(), &QTcpSocket::connected, this, &Device::gained);
        connect(socket.get(), &QTcpSocket::errorOccurred, this,
                [this, s = socket.get()] { lost(s->errorString()); });
        connect(socket.get(), &QIODevice::readyRead, this, [this] { emit arrived(m_io->readAll()); });
        auto* raw = socket.get();
        m_io = std::move(socket);
        raw->connectToHost(m_address.host, static_cast<quint16>(m_address.port));
        return;
    }
    auto port = std::make_unique<QSerialPort>();
    port->setPortName(m_address.host);
    port->setBaudRate(m_address.port);
    port->setReadBufferSize(mostBuffered);
    connect(port.get(), &QIODevice::readyRead, this, [this] { emit arrived(m_io->readAll()); });
    auto* raw = port.get();
    m_io = std::move(port);
    if (!raw->open(QIODevice::ReadWrite)) return lost(raw->errorString()); // whatever the reason
    // Only now: what a pseudo-terminal cannot do while it is opened (DTR) is no error. It stays open on
    // hang-up and repeats the error without end: the first one closes it.
    connect(raw, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError e) {
        if (e != QSerialPort::NoError && e != QSerialPort::TimeoutError &&
            e != QSerialPort::UnsupportedOperationError)
            lost(m_io ? m_io->errorString() : QString());
    });
    gained();
}

void Device::gained() {
    m_connected = true;
    if (const auto* socket = qobject_cast<QTcpSocket*>(m_io.get()))
        m_handle = static_cast<int>(socket->socketDescriptor());
    else if (const auto* port = qobject_cast<QSerialPort*>(m_io.get()))
        m_handle = port->handle();
    emit stateChanged(true, tr("Connected."));
}

void Device::lost(const QString& why) {
    const bool was = m_connected;
    m_connected = false;
    m_handle = -1;
    if (m_io) {
        m_io->disconnect(this);
        m_io.release()->deleteLater(); // it may be the one that is telling us
    }
    if (m_wanted) m_retry->start();
    emit stateChanged(false, was ? tr("The rig has gone (%1); it is looked for.").arg(why)
                                 : tr("No rig there yet (%1); it is looked for.").arg(why));
}

void Device::close() {
    m_wanted = false;
    m_retry->stop();
    if (m_io) m_io->disconnect(this);
    m_io.reset();
    m_connected = false;
    m_handle = -1;
}

void Device::send(const QByteArray& line) {
    if (m_connected && m_io) m_io->write(line + '\n');
}

bool Device::sendNow(const QByteArray& line, int patienceMs) {
    if (!m_connected || !m_io) return false;
    auto* const io = m_io.get();
    if (io->write(line + '\n') < 0) return false;
    QElapsedTimer clock;
    clock.start();
    // Waiting tells of what arrives and of a line that breaks, which takes it away.
    while (m_io.get() == io && io->bytesToWrite() > 0 && clock.elapsed() < patienceMs)
        if (!io->waitForBytesWritten(patienceMs)) break;
    return m_io.get() == io && io->bytesToWrite() == 0;
}

} // namespace anvil::link
