#include <anvil/project/earlier_index.h>
#include <anvil/project/write_file.h>

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLockFile>
#include <QUrl>
#include <algorithm>
#include <set>

namespace anvil::project {
namespace {

// A line for each result: fields between tabs, percent-encoded, in this order.
enum Field {
    path,
    study,
    at,
    method,
    metric,
    option,
    condition,
    intent,
    rig,
    n,
    mean,
    sd,
    bound,
    batches,
    fields
};

struct Line {
    QString path;
    results::Earlier earlier;
};

constexpr std::size_t mostLines = 20000;

QByteArray coded(const std::string& text) { return QUrl::toPercentEncoding(QString::fromStdString(text)); }
std::string plain(const QByteArray& text) { return QUrl::fromPercentEncoding(text).toStdString(); }

QByteArray coded(const std::optional<double>& value) {
    return value ? QByteArray::number(*value, 'g', 17) : QByteArray();
}

std::optional<double> number(const QByteArray& text) {
    bool ok = false;
    const double value = text.toDouble(&ok);
    return ok ? std::optional(value) : std::nullopt;
}

QByteArray lineOf(const Line& line) {
    const auto& e = line.earlier;
    QByteArrayList cells{coded(line.path.toStdString()),
                         coded(e.study),
                         coded(e.at),
                         coded(e.method),
                         coded(e.metric),
                         coded(e.option),
                         coded(e.condition),
                         coded(e.intent),
                         coded(e.rig),
                         QByteArray::number(static_cast<qulonglong>(e.n)),
                         coded(e.mean),
                         coded(e.sd),
                         e.atLeast ? "1" : "0"};
    QByteArrayList all;
    for (const auto& b : e.batches)
        all << coded(b);
    cells << all.join(' ');
    return cells.join('\t') + '\n';
}

std::vector<Line> read(const QString& file) {
    std::vector<Line> out;
    QFile from(file);
    if (!from.open(QIODevice::ReadOnly)) return out;
    while (!from.atEnd()) {
        const auto cells = from.readLine().trimmed().split('\t');
        if (cells.size() + 1 < fields) continue; // no batches: the last field is empty and was trimmed
        Line line{QString::fromStdString(plain(cells[path])), {}};
        auto& e = line.earlier;
        e.project = QFileInfo(line.path).completeBaseName().toStdString();
        e.study = plain(cells[study]);
        e.at = plain(cells[at]);
        e.method = plain(cells[method]);
        e.metric = plain(cells[metric]);
        e.option = plain(cells[option]);
        e.condition = plain(cells[condition]);
        e.intent = plain(cells[intent]);
        e.rig = plain(cells[rig]);
        e.n = cells[n].toULongLong();
        e.mean = number(cells[mean]);
        e.sd = number(cells[sd]);
        e.atLeast = cells[bound] == "1";
        if (cells.size() == fields)
            for (const auto& b : cells[batches].split(' '))
                if (!b.isEmpty()) e.batches.push_back(plain(b));
        out.push_back(std::move(line));
    }
    return out;
}

void write(const QString& file, const std::vector<Line>& lines) {
    QByteArray bytes;
    const auto from = lines.size() > mostLines ? lines.size() - mostLines : 0;
    for (std::size_t i = from; i < lines.size(); ++i)
        bytes += lineOf(lines[i]);
    // It tells of every project of this user, whoever may read those.
    if (writeFile(file, bytes)) QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner);
}

} // namespace

void rememberResults(const QString& file, OpenProject& project) {
    constexpr int patienceMs = 3000; // of another window, which needs some milliseconds
    QDir().mkpath(QFileInfo(file).absolutePath());
    QLockFile alone(file + ".lock"); // what another window adds between reading and writing would be lost
    if (!alone.tryLock(patienceMs)) return; // remembered the next time
    const auto own = QFileInfo(project.file().path()).absoluteFilePath();
    auto lines = read(file);
    std::set<std::string> unread;
    for (const auto& s : project.studies())
        if (!project.unread(s.study.id).empty()) unread.insert(s.study.title);
    std::erase_if(lines,
                  [&](const Line& line) { return line.path == own && !unread.contains(line.earlier.study); });
    for (const auto& s : project.studies()) {
        if (unread.contains(s.study.title)) continue;
        for (auto& e : results::earlierOf({}, s, project.verdict(s.study.id, s.study.goal.metric)))
            lines.push_back({own, std::move(e)});
    }
    write(file, lines);
}

std::vector<results::Earlier> rememberedResults(const QString& file, const QString& besides) {
    std::vector<results::Earlier> out;
    const auto own = QFileInfo(besides).absoluteFilePath();
    for (auto& line : read(file))
        if (line.path != own) out.push_back(std::move(line.earlier));
    return out;
}

} // namespace anvil::project
