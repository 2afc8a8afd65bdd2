#include "shell/preferences.h"

#include <QDir>
#include <QFileInfo>
#include <QSettings>

namespace anvil::app::preferences {
namespace {

constexpr std::size_t mostRecent = 8;

template <class T> T read(const QString& key, const T& usual = {}) {
    return QSettings().value(key, QVariant::fromValue(usual)).template value<T>();
}
template <class T> void write(const QString& key, const T& value) {
    QSettings().setValue(key, QVariant::fromValue(value));
}

QString keyOf(Folder folder) {
    static constexpr const char* keys[] = {"folders/project", "folders/import", "folders/pictures"};
    static_assert(std::size(keys) == static_cast<std::size_t>(Folder::pictures) + 1);
    return QString::fromLatin1(keys[static_cast<std::size_t>(folder)]);
}

QString safetyKey(long long setup) { return QStringLiteral("rig/safety/%1").arg(setup); }

} // namespace

QString operatorName() { return read<QString>("rig/operator"); }
void setOperatorName(const QString& name) { write("rig/operator", name); }

bool otherMachines() { return read("rig/remote", false); }
void setOtherMachines(bool allowed) { write("rig/remote", allowed); }

bool tones() { return read("rig/tones", true); }

QString forceUnit() { return read<QString>("units/force", "N"); }
QString lengthUnit() { return read<QString>("units/length", "mm"); }
bool unitsChosen() { return QSettings().contains("units/force"); }
void setUnits(const QString& force, const QString& length) {
    write("units/force", force);
    write("units/length", length);
}

int appearance() { return read("appearance", 2); }
void setAppearance(int appearance) { write("appearance", appearance); }

int textSize() { return read("textSize", 0); }
void setTextSize(int percent) { write("textSize", percent); }

bool keepsEarlier() { return read("earlier", true); }
void setKeepsEarlier(bool keeps) { write("earlier", keeps); }
QString besideSettings(const QString& name) {
    return QFileInfo(QSettings().fileName()).absolutePath() + "/" + name;
}

QString folder(Folder folder) { return read(keyOf(folder), QDir::homePath()); }
void setFolder(Folder folder, const QString& path) { write(keyOf(folder), path); }

std::vector<Recent> recent() {
    std::vector<Recent> out;
    QSettings settings;
    const int n = settings.beginReadArray("lately");
    for (int i = 0; i < n; ++i) {
        settings.setArrayIndex(i);
        Recent r{settings.value("path").toString(),     settings.value("question").toString(),
                 settings.value("progress").toString(), settings.value("leads").toString(),
                 settings.value("on").toDate(),         {}};
        const auto shares = settings.value("rungs").toList();
        for (qsizetype k = 0; k + 2 < shares.size(); k += 3)
            r.rungs.push_back({shares[k].toDouble(), shares[k + 1].toDouble(), shares[k + 2].toDouble()});
        if (!r.path.isEmpty()) out.push_back(std::move(r));
    }
    settings.endArray();
    return out;
}

namespace {

void writeRecent(const std::vector<Recent>& all) {
    QSettings settings;
    settings.remove("lately");
    settings.beginWriteArray("lately");
    for (std::size_t i = 0; i < all.size(); ++i) {
        settings.setArrayIndex(static_cast<int>(i));
        QVariantList shares;
        for (const auto& rung : all[i].rungs)
            shares << rung.low << rung.mean << rung.high;
        settings.setValue("path", all[i].path);
        settings.setValue("question", all[i].question);
        settings.setValue("progress", all[i].progress);
        settings.setValue("leads", all[i].leads);
        settings.setValue("on", all[i].on);
        settings.setValue("rungs", shares);
    }
    settings.endArray();
}

} // namespace

void addRecent(const Recent& project) {
    auto all = recent();
    std::erase_if(all, [&](const Recent& r) { return r.path == project.path; });
    all.insert(all.begin(), project);
    if (all.size() > mostRecent) all.resize(mostRecent);
    writeRecent(all);
}

void moveRecent(const QString& from, const QString& to) {
    auto all = recent();
    for (auto& r : all)
        if (r.path == from) r.path = to;
    writeRecent(all);
    if (examplePath() == from) setExamplePath(to);
}

QString examplePath() { return read<QString>("example"); }
void setExamplePath(const QString& path) { write("example", path); }

QDateTime safetySeen(long long setup) { return read<QDateTime>(safetyKey(setup)); }
void setSafetySeen(long long setup, const QDateTime& at) { write(safetyKey(setup), at); }

Layout layout() {
    return {read<QByteArray>("window/geometry"), read("window/ledgerWidth", 0), read("window/board", 0)};
}
void setLayout(const Layout& layout) {
    write("window/geometry", layout.geometry);
    write("window/ledgerWidth", layout.ledgerWidth);
    write("window/board", layout.board);
}
bool benchLine() { return read("window/bench", true); }
void setBenchLine(bool shown) { write("window/bench", shown); }

} // namespace anvil::app::preferences
