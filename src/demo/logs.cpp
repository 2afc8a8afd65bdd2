#include <anvil/demo/demo.h>

#include <QDir>
#include <QFile>
#include <QStringEncoder>
#include <anvil/quantity/unit.h>
#include <cmath>

namespace anvil::demo {
namespace {

QString number(double v, int decimals, bool comma = false) {
    auto text = QString::number(v, 'f', decimals);
    if (comma) text.replace('.', ',');
    return text;
}

Expected<void> save(const QString& folder, const QString& name, const QByteArray& bytes) {
    QFile file(QDir(folder).filePath(name));
    if (!file.open(QIODevice::WriteOnly) || file.write(bytes) != bytes.size())
        return fail((name + ": " + file.errorString()).toStdString());
    return {};
}

double in(const char* unit, double si) { return quantity::unit(unit).fromSi(si); }

using NamedFile = std::pair<QString, QByteArray>;

/// A line for each sample.
QString rows(const curve::Curve& c, const std::function<QString(std::size_t)>& row,
             const QString& end = "\n") {
    QString text;
    for (std::size_t i = 0; i < c.load.size(); ++i)
        text += row(i) + end;
    return text;
}

/// Plain comma-separated values.
NamedFile plain() {
    const auto c = fittingRun(0, 1, 1).curve;
    return {QStringLiteral("pressed-sleeve_salt-soaked_1.csv"),
            ("Time (s),Force (N),Travel (mm)\n" + rows(c, [&](std::size_t i) {
                 return number(c.time[i], 2) + "," + number(c.load[i], 0) + "," +
                        number(c.travel[i] * 1000, 4);
             })).toUtf8()};
}

/// Semicolons, decimal commas, Latin-1, CRLF and a preamble.
NamedFile decimalCommas() {
    const auto c = fittingRun(1, 1, 1).curve;
    const QString text =
        QStringLiteral("Pr\u00fcfstand 2\r\nKraftaufnehmer 5 kN\r\n\r\nZeit [s];Kraft [kN];Weg [mm]\r\n") +
        rows(
            c,
            [&](std::size_t i) {
                return number(c.time[i], 2, true) + ";" + number(c.load[i] / 1000, 3, true) + ";" +
                       number(c.travel[i] * 1000, 4, true);
            },
            "\r\n");
    return {QStringLiteral("wedge-socket_salt-soaked_1.csv"), text.toLatin1()};
}

/// Tabs, names and units in two rows, byte order mark, kilograms.
NamedFile unitsBelow() {
    const auto c = fittingRun(2, 1, 1).curve;
    const QString text =
        QStringLiteral("\ufeffelapsed\tload\ttravel\ns\tkg\tmm\n") + rows(c, [&](std::size_t i) {
            return number(c.time[i], 2) + "\t" + number(in("kgf", c.load[i]), 2) + "\t" +
                   number(c.travel[i] * 1000, 4);
        });
    return {QStringLiteral("saddle-clamps_salt-soaked_1.tsv"), text.toUtf8()};
}

/// UTF-16, pounds and inches.
NamedFile poundsAndInches() {
    const auto c = fittingRun(3, 1, 1).curve;
    const QString text = QStringLiteral("Time s,Load lbf,Crosshead in\n") + rows(c, [&](std::size_t i) {
                             return number(c.time[i], 2) + "," + number(in("lbf", c.load[i]), 1) + "," +
                                    number(in("in", c.travel[i]), 5);
                         });
    QStringEncoder utf16(QStringEncoder::Utf16LE, QStringConverter::Flag::WriteBom);
    return {QStringLiteral("tucked-splice_salt-soaked_1.csv"), QByteArray(utf16.encode(text))};
}

/// Clock stamps, no travel.
NamedFile clockStamps() {
    const auto c = fittingRun(0, 1, 2).curve;
    const QString text =
        QStringLiteral("# crane scale, shed\nclock,weight (kg)\n") + rows(c, [&](std::size_t i) {
            return QTime(23, 59, 50).addMSecs(qRound(c.time[i] * 1000)).toString("hh:mm:ss.zzz") + "," +
                   number(in("kgf", c.load[i]), 1);
        });
    return {QStringLiteral("pressed-sleeve_salt-soaked_2.csv"), text.toUtf8()};
}

/// Three runs parted by blank lines, heading repeated.
NamedFile parted() {
    QString text;
    for (int r = 2; r <= 4; ++r) {
        const auto c = fittingRun(1, 1, r).curve;
        text += (text.isEmpty() ? "" : "\n") + QStringLiteral("t (s);F (N);x (mm)\n") +
                rows(c, [&](std::size_t i) {
                    return number(c.time[i], 2) + ";" + number(c.load[i], 0) + ";" +
                           number(c.travel[i] * 1000, 4);
                });
    }
    return {QStringLiteral("wedge-socket_salt-soaked.csv"), text.toUtf8()};
}

/// Two runs told apart by a column, time in milliseconds.
NamedFile byColumn() {
    QString text = "run|time (ms)|force (daN)|position (cm)\n";
    for (int r = 2; r <= 3; ++r) {
        const auto c = fittingRun(2, 1, r).curve;
        text += rows(c, [&](std::size_t i) {
            return QString::number(r) + "|" + number(c.time[i] * 1000, 0) + "|" + number(c.load[i] / 10, 1) +
                   "|" + number(c.travel[i] * 100, 5);
        });
    }
    return {QStringLiteral("saddle-clamps_salt-soaked.txt"), text.toUtf8()};
}

/// One long log with two pulls, blanks between columns, load shown negative, one broken line.
NamedFile oneLongLog() {
    QString text = "time_s force_N\n";
    double start = 0;
    for (int r : {2, 4}) {
        const auto c = fittingRun(3, 1, r).curve;
        const double tail = c.load.front(); // unloaded again while the next piece is put in
        text += rows(
            c, [&](std::size_t i) { return number(start + c.time[i], 2) + " " + number(-c.load[i], 0); });
        start += c.time.back() + 0.02;
        for (int i = 0; i < 200; ++i, start += 0.02)
            text += number(start, 2) + " " + number(-tail, 0) + "\n";
        if (r == 2) text += "overrun !!\n";
    }
    return {QStringLiteral("tucked-splice_salt-soaked.log"), text.toUtf8()};
}

} // namespace

Expected<void> writeLogs(const QString& folder) {
    if (!QDir().mkpath(folder)) return fail(("The folder " + folder + " cannot be made.").toStdString());
    for (const auto make :
         {plain, decimalCommas, unitsBelow, poundsAndInches, clockStamps, parted, byColumn, oneLongLog}) {
        const auto [name, bytes] = make();
        if (auto ok = save(folder, name, bytes); !ok) return ok;
    }
    return {};
}

} // namespace anvil::demo
