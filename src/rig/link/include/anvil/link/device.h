// A device on a wire: a serial port or a TCP connection that is opened again by itself when it is lost.
#pragma once

#include <QByteArray>
#include <QObject>
#include <QString>
#include <anvil/quantity/error.h>
#include <memory>

class QIODevice;
class QTimer;

namespace anvil::link {

/// Where a device is reached.
struct Address {
    enum class Kind { tcp, serial } kind = Kind::tcp;
    QString host; ///< or the port's file
    int port = 0; ///< or the speed in baud
};
/// "tcp:127.0.0.1:4711" or "serial:/dev/ttyUSB0@115200" (115200 when no speed is given). Error: anything
/// else, or another machine while only this one is allowed.
Expected<Address> addressFrom(const QString& text, bool otherMachines = false);

/// Lives in one thread. Every member may be used from that thread only.
class Device : public QObject {
    Q_OBJECT
public:
    explicit Device(const Address& address, QObject* parent = nullptr);
    ~Device() override;
    void open();
    void close();
    bool connected() const { return m_connected; }
    /// Sends a line; nothing happens while the device is not there.
    void send(const QByteArray& line);
    /// The same, and waits up to `patienceMs` until it has left; false where it could not.
    bool sendNow(const QByteArray& line, int patienceMs = 300);

    /// The system's number of the open line; −1: there is none.
    int handle() const { return m_handle; }

    static constexpr int retryMs = 500;

signals:
    void arrived(const QByteArray& bytes);
    void stateChanged(bool connected, const QString& sentence);

private:
    void lost(const QString& why);
    void gained();
    Address m_address;
    std::unique_ptr<QIODevice> m_io;
    int m_handle = -1;
    QTimer* m_retry;
    bool m_connected = false, m_wanted = false;
};

} // namespace anvil::link
