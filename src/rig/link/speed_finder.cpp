#include <anvil/link/speed_finder.h>

#include <QRegularExpression>
#include <QSerialPort>
#include <QSerialPortInfo>
#include <algorithm>

namespace anvil::link {
namespace {

constexpr qsizetype leastBytes = 6;
constexpr double textual = 0.95; ///< at a wrong speed far fewer bytes are text

bool isText(char c) { return (c >= 32 && c < 127) || c == '\t' || c == '\r' || c == '\n'; }

} // namespace

QList<PortFound> serialPorts() {
    QList<PortFound> out;
    for (const auto& p : QSerialPortInfo::availablePorts()) {
        QStringList about;
        for (const auto& text : {p.manufacturer(), p.description()})
            if (!text.isEmpty() && !about.contains(text)) about << text;
        if (p.hasVendorIdentifier())
            about << QStringLiteral("%1:%2")
                         .arg(p.vendorIdentifier(), 4, 16, QLatin1Char('0'))
                         .arg(p.productIdentifier(), 4, 16, QLatin1Char('0'));
        out.append({p.systemLocation(), about.join(", ")});
    }
    return out;
}

double textShare(const QByteArray& bytes) {
    const auto end = bytes.indexOf('\n') >= 0 ? bytes.indexOf('\n') : bytes.indexOf('\r');
    if (bytes.size() < leastBytes || end < 0) return 0;
    const auto good = std::count_if(bytes.begin(), bytes.end(), isText);
    return static_cast<double>(good) / static_cast<double>(bytes.size());
}

QList<QByteArray> usualQuestions() {
    return {"READ?\n", "MEAS?\n", "W\r\n", "SI\r\n", "P\r\n", "R\r\n", "?\r\n", "\r\n"};
}

const QList<int>& SpeedFinder::speeds() {
    static const QList<int> all{115200, 9600, 57600, 38400, 19200, 4800, 2400, 1200, 230400};
    return all;
}

SpeedFinder::SpeedFinder(QString port, QList<QByteArray> questions, QObject* parent)
    : QObject(parent), m_port(std::move(port)), m_questions(std::move(questions)) {
    m_timer.setSingleShot(true);
    connect(&m_timer, &QTimer::timeout, this, [this] { judge(true); });
}

SpeedFinder::~SpeedFinder() = default;

void SpeedFinder::start() { next(); }

void SpeedFinder::next() {
    if (++m_step >= perSpeed() * speeds().size()) {
        m_io.reset();
        emit notFound(m_questions.isEmpty()
                          ? tr("Nothing came at any usual speed: it may have to be asked.")
                          : tr("It answered none of the usual questions at any usual speed."));
        return;
    }
    const int speed = speeds()[m_step / perSpeed()];
    if (!m_io || m_step % perSpeed() == 0) {
        emit trying(speed);
        m_io = std::make_unique<QSerialPort>();
        m_io->setPortName(m_port);
        m_io->setBaudRate(speed);
        connect(m_io.get(), &QIODevice::readyRead, this, [this] {
            m_heard += m_io->readAll();
            judge(false);
        });
        if (!m_io->open(QIODevice::ReadWrite)) {
            const auto why = m_io->errorString();
            m_io.reset();
            emit notFound(tr("%1 cannot be opened: %2.").arg(m_port, why));
            return;
        }
    }
    ask();
}

/// The question of this step; what came before it is no answer.
void SpeedFinder::ask() {
    m_heard.clear();
    if (!question().isEmpty()) m_io->write(question());
    m_timer.start(question().isEmpty() || m_phase == Phase::confirm ? listenMs : answerMs);
}

void SpeedFinder::tellFound() {
    m_timer.stop();
    const auto lines = QString::fromLatin1(m_heard).split(QRegularExpression("[\r\n]+"), Qt::SkipEmptyParts);
    m_io->disconnect(this);
    m_io.release()->deleteLater(); // it may be the one that is telling us
    emit found(speeds()[m_step / perSpeed()], question(), lines.value(lines.size() > 1 ? 1 : 0));
}

void SpeedFinder::judge(bool last) {
    if (m_phase == Phase::settle) {
        if (!last) return;
        m_phase = Phase::confirm;
        return ask();
    }
    // The first line may have begun before anybody listened; a second one is whole.
    const bool enough = !m_questions.isEmpty() || m_heard.count('\n') + m_heard.count('\r') >= 2;
    if (enough && textShare(m_heard) >= textual) {
        if (m_questions.isEmpty() || m_phase == Phase::confirm) return tellFound();
        m_phase = Phase::settle;
        m_resume = m_step;
        return m_timer.start(answerMs);
    }
    if (!last) return;
    if (m_phase == Phase::confirm) {
        if (m_step % perSpeed() > 0) { // it may have been the one before
            --m_step;
            return ask();
        }
        m_phase = Phase::search;
        m_step = m_resume;
    }
    next();
}

} // namespace anvil::link
