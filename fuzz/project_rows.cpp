// A project whose rows say anything, every seal and checksum right: opened and reported on, or refused with a
// sentence. The input is a row of changes: table, row, column, kind of value, length, value.
#include "fields.h"
#include "samples.h"
#include "seal.h"
#include <QFile>
#include <QGuiApplication>
#include <QTemporaryDir>
#include <anvil/chart/painter.h>
#include <anvil/pages/page.h>
#include <anvil/pages/paper.h>
#include <anvil/pages/source.h>
#include <anvil/pages/write.h>
#include <anvil/plan/fairness.h>
#include <anvil/plan/forecasts.h>
#include <anvil/plan/reach.h>
#include <anvil/plan/replication.h>
#include <anvil/project/open_project.h>
#include <anvil/project/wall_clock.h>
#include <cstring>
#include <limits>

namespace {

using namespace anvil;
using namespace anvil::store;

const QString& folder() {
    static const QTemporaryDir dir(QStringLiteral("/dev/shm/anvil-fuzz-XXXXXX"));
    static const QString path = dir.path();
    return path;
}

/// A project with a row of everything.
QByteArray base() {
    const auto path = folder() + "/base.anvil";
    {
        auto p = std::move(*Project::create(path));
        const auto done = p->write("fill", [](Writer& w) {
            domain::Study s;
            s.title = "Pins";
            s.plan.replicates = 3;
            s.id = w.insert("study", toRow(s));
            std::vector<Id> options, conditions;
            for (int i = 0; i < 2; ++i) {
                options.push_back(
                    w.insert("option", toRow(domain::Option{0, s.id, i, "Pin " + std::to_string(i), "peg",
                                                            "EUR", "", 1.5, 0.2})));
                conditions.push_back(w.insert(
                    "condition", toRow(domain::Condition{0, s.id, i, "Soil " + std::to_string(i), ""})));
            }
            const Id setup =
                w.insert("setup", {{"rig", "Winch"}, {"version", 1}, {"made_at", ""}, {"setup", "{}"}});
            for (int i = 0; i < 8; ++i) {
                domain::Pull pull;
                pull.specimen = w.insert(
                    "specimen", toRow(domain::Specimen{0, s.id, options[static_cast<std::size_t>(i % 2)],
                                                       conditions[static_cast<std::size_t>(i / 2 % 2)],
                                                       i / 4 + 1, "P" + std::to_string(i), ""}));
                if (i % 2 == 0) {
                    curve::Curve c;
                    for (int k = 0; k < 60; ++k) {
                        c.time.push_back(k * 0.1);
                        c.load.push_back(k < 40 ? k * (10.0 + i) : 0);
                        c.travel.push_back(k * 1e-4);
                    }
                    pull.curve = w.addCurve(c);
                    pull.setup = setup;
                } else {
                    pull.typed = domain::TypedValue{domain::metric("peak"), 400.0 + i, 0, "x"};
                }
                const Id id = w.insert("pull", toRow(pull));
                if (i == 0)
                    w.insert("attachment",
                             toRow(domain::Attachment{
                                 0, id, w.addFile(ImportedFile::pack("a.png", "no picture")), 1.0, "a.png"}));
            }
        });
        if (!done) __builtin_trap();
    }
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) __builtin_trap();
    return file.readAll();
}

struct Bytes {
    const std::uint8_t* at;
    std::size_t left;
    std::uint8_t byte() {
        if (left == 0) return 0;
        --left;
        return *at++;
    }
    QByteArray take(std::size_t n) {
        n = std::min(n, left);
        const QByteArray out(reinterpret_cast<const char*>(at), static_cast<qsizetype>(n));
        at += n;
        left -= n;
        return out;
    }
};

QVariant valueFrom(Bytes& in) {
    constexpr double odd[] = {
        std::numeric_limits<double>::infinity(), 1e308, -1e308, 5e-324, -1, 0, 1e100, 2147483648.0};
    const auto kind = in.byte();
    switch (kind % 6) {
    case 0:
        return {};
    case 1: {
        const auto raw = in.take(8);
        qint64 v = 0;
        std::memcpy(&v, raw.constData(), static_cast<std::size_t>(raw.size()));
        return static_cast<qlonglong>(v);
    }
    case 2:
        return odd[in.byte() % std::size(odd)];
    case 3:
        return QString::fromUtf8(in.take(in.byte()));
    case 4:
        return in.take(in.byte());
    default:
        return static_cast<qlonglong>(in.byte());
    }
}

/// Carries the changes out and makes every checksum right again.
void change(const QString& path, Bytes in) {
    static const char* const tables[] = {"study",      "option", "condition", "specimen", "pull", "setup",
                                         "attachment", "curve",  "channel",   "chunk",    "file"};
    {
        auto db = QSqlDatabase::addDatabase("QSQLITE", "fuzz");
        db.setDatabaseName(path);
        if (!db.open()) __builtin_trap();
        QSqlQuery q(db);
        q.exec("PRAGMA synchronous = OFF");
        db.transaction();
        for (int n = 0; in.left > 0 && n < 20; ++n) {
            const QString table = tables[in.byte() % std::size(tables)];
            QStringList columns;
            (void)each(db, "SELECT name FROM pragma_table_info(?)", {table},
                       [&](const Query& c) { columns << c.string(0); });
            const auto row = in.byte() % 9 + 1;
            const auto column = columns[in.byte() % columns.size()];
            q.prepare("UPDATE OR IGNORE \"" + table + "\" SET \"" + column +
                      "\" = ? WHERE rowid = " + QString::number(row));
            if (table == "channel") // it has no rowid
                q.prepare("UPDATE OR IGNORE channel SET \"" + column +
                          "\" = ? WHERE curve = " + QString::number(row));
            q.addBindValue(valueFrom(in));
            q.exec();
        }
        std::vector<std::tuple<Id, qint64, qsizetype>> sums;
        (void)each(db, "SELECT id, data FROM chunk", {}, [&](const Query& c) {
            sums.emplace_back(c.id(0), checksum(c.bytes(1)), c.bytes(1).size() / 8);
        });
        for (const auto& [id, sum, samples] : sums) {
            q.prepare("UPDATE chunk SET checksum = ?, samples = ? WHERE id = ?");
            q.addBindValue(sum);
            q.addBindValue(static_cast<qlonglong>(samples));
            q.addBindValue(static_cast<qlonglong>(id));
            q.exec();
        }
        q.exec("UPDATE curve SET digest = ''");
        q.exec("DELETE FROM seal");
        q.finish();
        (void)sealAll(db);
        db.commit();
        db.close();
    }
    QSqlDatabase::removeDatabase("fuzz");
}

/// Everything the program makes of a project.
void use(const QString& path) {
    const auto opened = project::OpenProject::open(path, Project::Access::readOnly);
    if (!opened) {
        if (opened.error().message.empty()) __builtin_trap();
        return;
    }
    auto& project = **opened;
    (void)project.file().check();
    for (const auto& data : project.studies()) {
        const auto& readings = project.readings(data.study.id);
        const auto& verdict = project.verdict(data.study.id, data.study.goal.metric);
        (void)plan::fairness(data, readings);
        (void)plan::scoreForecasts(data, verdict);
        (void)domain::missingPieces(data);
        (void)plan::stock(data);
        (void)plan::totals(data);
        (void)project::wallTimetable(data, 1'777'900'000);
        for (const auto& o : data.options)
            for (const auto& c : data.conditions)
                (void)plan::squareRoom(data, readings, verdict, o.id, c.id);
        const auto document =
            pages::report(pages::sourceOf(project, data.study.id), {quantity::unitsFrom("N", "mm")});
        (void)pages::toHtml(document);
        (void)pages::paginate(document);
    }
}

} // namespace

extern "C" int LLVMFuzzerInitialize(int* argc, char*** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    (void)new QGuiApplication(*argc, *argv); // never taken down: the fuzzer leaves by exit()
    anvil::chart::loadFonts();
    return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const QByteArray whole = base();
    const auto path = folder() + "/p.anvil";
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly | QIODevice::Truncate)) __builtin_trap();
    file.write(whole);
    file.close();
    change(path, {data, size});
    use(path);
    return 0;
}
