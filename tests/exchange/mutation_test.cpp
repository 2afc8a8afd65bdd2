// Packages that somebody, or a disk, has spoiled: each is refused with a sentence, or what is taken in can be
// read back and exported again. ANVIL_MUTATIONS: how many; ANVIL_MUTATION_SEED: from which on.
#include "trip.h"

#include <QDir>
#include <QDirIterator>
#include <QFile>
#include <algorithm>
#include <iostream>
#include <random>

namespace anvil::exchange {
namespace {

int fromEnvironment(const char* name, int otherwise) {
    bool ok = false;
    const int value = qEnvironmentVariableIntValue(name, &ok);
    return ok && value > 0 ? value : otherwise;
}

using Files = std::map<QString, QByteArray>;

Files filesBelow(const QString& folder) {
    Files out;
    QDirIterator it(folder, QDir::Files, QDirIterator::Subdirectories);
    while (it.hasNext()) {
        QFile file(it.next());
        EXPECT_TRUE(file.open(QIODevice::ReadOnly));
        out[QDir(folder).relativeFilePath(file.fileName())] = file.readAll();
    }
    return out;
}

/// A small project with a curve, typed numbers, a file and a rig, exported.
Files whole(const QTemporaryDir& dir) {
    const auto p = fresh(dir.filePath("whole.anvil"));
    EXPECT_TRUE(p->write("Fill", [&](store::Writer& w) {
        domain::Study study;
        study.title = "Ties, wires and clips";
        study.plan.method = "axial-pull";
        study.plan.axis = "soaked";
        study.plan.axisUnit = "h";
        study.id = w.add(study);
        std::vector<Id> options, conditions;
        for (const char* name : {"Wire", "Clip"}) {
            domain::Option o;
            o.study = study.id;
            o.name = name;
            o.unitCost = 0.25;
            options.push_back(w.add(o));
        }
        for (const double hours : {1.0, 24.0}) {
            domain::Condition c;
            c.study = study.id;
            c.name = fmt::format("{} h", hours);
            c.value = hours * 3600;
            conditions.push_back(w.add(c));
        }
        for (int i = 0; i < 8; ++i) {
            domain::Pull pull;
            pull.specimen = w.add(domain::Specimen{0, study.id, options[static_cast<std::size_t>(i % 2)],
                                                   conditions[static_cast<std::size_t>(i / 4)], i / 2 % 2 + 1,
                                                   fmt::format("A{}", i), ""});
            if (i % 4 == 3) {
                curve::Curve c;
                for (int k = 0; k < 40; ++k) {
                    c.time.push_back(k * 0.1);
                    c.load.push_back(k < 10 ? 0 : k * 20.0);
                }
                pull.curve = w.addCurve(c);
            } else {
                pull.typed = domain::TypedValue{domain::metric("peak"), 900.0 + 10 * i, 0, "x"};
            }
            pull.note = "rain, \"wet\"";
            const auto id = w.add(pull);
            if (i == 2) {
                domain::Attachment a;
                a.pull = id;
                a.name = "photo.png";
                a.file = w.addFile(store::ImportedFile::pack("photo.png", QByteArray(500, 'p')));
                w.add(a);
            }
        }
    }));
    EXPECT_TRUE(exportProject(*p, dir.filePath("whole")));
    return filesBelow(dir.filePath("whole"));
}

/// What hands, mail programs and disks do to files.
void spoil(Files& files, std::mt19937& random) {
    const auto below = [&](qsizetype n) {
        return static_cast<qsizetype>(random() % static_cast<unsigned>(std::max<qsizetype>(1, n)));
    };
    auto at = std::next(files.begin(), below(static_cast<qsizetype>(files.size())));
    auto& bytes = at->second;
    const auto lines = bytes.split('\n');
    switch (below(14)) {
    case 0: // a bit falls over
        if (!bytes.isEmpty()) {
            const auto i = below(bytes.size());
            bytes[i] = static_cast<char>(bytes[i] ^ (1 << below(8)));
        }
        break;
    case 1: // broken off
        bytes.truncate(below(bytes.size()));
        break;
    case 2:
        files.erase(at);
        break;
    case 3:
        bytes.clear();
        break;
    case 4: { // a line twice, one gone, two changed about
        auto l = lines;
        l.insert(below(l.size()), l[below(l.size())]);
        bytes = l.join('\n');
        break;
    }
    case 5: {
        auto l = lines;
        l.removeAt(below(l.size()));
        bytes = l.join('\n');
        break;
    }
    case 6: {
        auto l = lines;
        l.swapItemsAt(below(l.size()), below(l.size()));
        bytes = l.join('\n');
        break;
    }
    case 7: // a cell becomes another
    case 8: {
        static const std::vector<QByteArray> cells{"",
                                                   "nan",
                                                   "1e999",
                                                   "-1",
                                                   "12,5",
                                                   "\"",
                                                   "kN",
                                                   "../../x",
                                                   "/dev/zero",
                                                   "=1+1",
                                                   "12 kN",
                                                   "at least",
                                                   "A1",
                                                   "2026-13-45",
                                                   QByteArray(3000, 'z'),
                                                   QByteArray("\0", 1),
                                                   "{\"a\":[",
                                                   "-5 %",
                                                   ">3 kN",
                                                   "curves/1.csv",
                                                   "\xff\xfe"};
        auto l = lines;
        auto& line = l[below(l.size())];
        auto parts = line.split(',');
        parts[below(parts.size())] =
            cells[static_cast<std::size_t>(below(static_cast<qsizetype>(cells.size())))];
        line = parts.join(',');
        bytes = l.join('\n');
        break;
    }
    case 9: // saved again by another program
        bytes.replace("\n", "\r\n").prepend("\xef\xbb\xbf");
        break;
    case 10:
        bytes.replace(',', ';');
        break;
    case 11: { // one file's bytes in another's place
        const auto other = std::next(files.begin(), below(static_cast<qsizetype>(files.size())));
        bytes = other->second;
        break;
    }
    case 12:
        files[at->first + (below(2) ? ".bak" : "")] = bytes;
        files["puls.csv"] = bytes;
        break;
    default: // garbage in the middle
        bytes.insert(below(bytes.size()), QByteArray(1 + below(40), static_cast<char>(below(256))));
    }
}

TEST(SpoiledPackages, AreRefusedOrTakenInWhole) {
    const int count = fromEnvironment("ANVIL_MUTATIONS", 150),
              first = fromEnvironment("ANVIL_MUTATION_SEED", 1);
    QTemporaryDir dir;
    const auto good = whole(dir);
    ASSERT_GE(good.size(), 8u);
    int refused = 0, taken = 0;
    const auto path = dir.filePath("spoiled");
    for (int seed = first; seed < first + count; ++seed) {
        std::mt19937 random(static_cast<unsigned>(seed));
        auto files = good;
        for (auto n = 1 + random() % 3; n > 0 && !files.empty(); --n)
            spoil(files, random);
        QDir(path).removeRecursively();
        for (const auto& [name, bytes] : files) {
            QDir().mkpath(QFileInfo(path + '/' + name).path());
            QFile file(path + '/' + name);
            ASSERT_TRUE(file.open(QIODevice::WriteOnly));
            file.write(bytes);
        }
        const auto package = readPackage(path);
        if (!package) {
            EXPECT_FALSE(package.error().message.empty()) << seed;
            EXPECT_EQ(package.error().message.find('\n'), std::string::npos) << seed;
            ++refused;
            continue;
        }
        QFile::remove(dir.filePath("in.anvil"));
        auto project = fresh(dir.filePath("in.anvil"));
        const auto in = takeIn(*project, *package);
        if (!in) {
            EXPECT_FALSE(in.error().message.empty()) << seed;
            EXPECT_TRUE(project->load()->empty()) << seed << ": nothing of it is there then";
            ++refused;
            continue;
        }
        ++taken;
        project.reset();
        auto open = project::OpenProject::open(dir.filePath("in.anvil"));
        ASSERT_TRUE(open) << seed << ": " << open.error().message;
        for (const auto& data : (*open)->studies())
            (void)(*open)->verdict(data.study.id, data.study.goal.metric);
        QDir(dir.filePath("again")).removeRecursively();
        const auto again = exportProject((*open)->file(), dir.filePath("again"));
        ASSERT_TRUE(again) << seed << ": " << again.error().message;
        EXPECT_TRUE(again->leftOut.isEmpty()) << seed << ": " << again->leftOut.join(" ").toStdString();
        const auto back = readPackage(dir.filePath("again"));
        EXPECT_TRUE(back) << seed << ": " << (back ? "" : back.error().message);
    }
    std::cout << "measured: " << count << " spoiled packages, " << refused << " refused, " << taken
              << " taken in\n";
    EXPECT_GT(refused, 0);
    EXPECT_GT(taken, 0);
}

} // namespace
} // namespace anvil::exchange
