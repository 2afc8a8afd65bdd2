#include "shell/preferences.h"

#include <QSettings>

namespace anvil::app::preferences {
namespace {

constexpr int mostRecent = 8;

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

QString folder(Folder folder) { return read<QString>(keyOf(folder)); }
void setFolder(Folder folder, const QString& path) { write(keyOf(folder), path); }

QStringList recentProjects() { return read<QStringList>("recent"); }
void addRecentProject(const QString& path) {
    auto recent = recentProjects();
    recent.removeAll(path);
    recent.prepend(path);
    write("recent", QStringList(recent.mid(0, mostRecent)));
}

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
