// Which speed a serial device speaks at, and whether it speaks unasked.
#pragma once

#include <QByteArray>
#include <QObject>
#include <QString>
#include <QStringList>
#include <QTimer>
#include <algorithm>
#include <memory>

class QSerialPort;

namespace anvil::link {

/// A serial port and what the system knows of it.
struct PortFound {
    QString address; ///< "/dev/ttyUSB0"
    QString about;   ///< maker and kind, as far as the system knows them
};
QList<PortFound> serialPorts();

/// How much a piece of what arrived looks like text in lines: the share of its bytes that are, 0 without a
/// whole line or with less than a few bytes.
double textShare(const QByteArray& bytes);

/// Questions that scales and meters usually answer. They are only sent to a device whose tester agreed.
QList<QByteArray> usualQuestions();

/// Listens at one usual speed after another until text in lines arrives. With questions it asks each of them
/// at each speed; the one that was answered is asked again, since a slow answer may belong to one before it.
/// Opens and closes the port itself: nobody else may have it open.
class SpeedFinder : public QObject {
    Q_OBJECT
public:
    SpeedFinder(QString port, QList<QByteArray> questions, QObject* parent = nullptr);
    ~SpeedFinder() override;
    void start();
    static const QList<int>& speeds();
    static constexpr int listenMs = 1200;         ///< at each speed: a scale may send once a second
    static constexpr int answerMs = listenMs / 4; ///< after each question, while searching

signals:
    void trying(int speed);
    /// `question` is empty where it spoke unasked; `line` is a whole line that came.
    void found(int speed, const QByteArray& question, const QString& line);
    void notFound(const QString& why);

private:
    /// Searching, letting late answers go by, asking again what seems to have been answered.
    enum class Phase { search, settle, confirm };
    void next();
    void ask();
    void judge(bool last);
    void tellFound();
    qsizetype perSpeed() const { return std::max<qsizetype>(1, m_questions.size()); }
    QByteArray question() const { return m_questions.value(m_step % perSpeed()); }
    QString m_port;
    QList<QByteArray> m_questions;
    qsizetype m_step = -1;  ///< speeds times questions
    qsizetype m_resume = 0; ///< where searching goes on, should nothing be confirmed
    Phase m_phase = Phase::search;
    std::unique_ptr<QSerialPort> m_io;
    QByteArray m_heard;
    QTimer m_timer;
};

} // namespace anvil::link
