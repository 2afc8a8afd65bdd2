// What the program remembers of its user from one start to the next; the one place that knows the settings
// file.
#pragma once

#include <QByteArray>
#include <QDate>
#include <QDateTime>
#include <QString>
#include <anvil/chart/start_pictures.h>
#include <vector>

namespace anvil::app::preferences {

/// Who pulls; kept with every pull.
QString operatorName();
void setOperatorName(const QString& name);

/// Whether rigs on other machines may be listened to.
bool otherMachines();
void setOtherMachines(bool allowed);

/// Whether tones are played.
bool tones();

/// Symbols of the units that force and length are shown in; `unitsChosen`: somebody chose them.
QString forceUnit();
QString lengthUnit();
bool unitsChosen();
void setUnits(const QString& force, const QString& length);

/// As `Appearance` counts them.
int appearance();
void setAppearance(int appearance);

/// How large text is, in per cent of its usual size; 0: as the desktop asks.
int textSize();
void setTextSize(int percent);

/// The folders that were looked into last; home where none was yet.
enum class Folder { project, import, pictures };
QString folder(Folder folder);
void setFolder(Folder folder, const QString& path);

/// A project opened lately, and what its first page said when it was left.
struct Recent {
    QString path, question, progress, leads;
    QDate on;
    std::vector<chart::SmallRung> rungs;
};
/// The newest first.
std::vector<Recent> recent();
/// Puts a project first; what was known of its path is replaced.
void addRecent(const Recent& project);
/// The project at a path is elsewhere now.
void moveRecent(const QString& from, const QString& to);

/// Where the worked example was put; its days are its own.
QString examplePath();
void setExamplePath(const QString& path);

/// When the cautions of a version of a set-up were seen to; invalid: never.
QDateTime safetySeen(long long setup);
void setSafetySeen(long long setup, const QDateTime& at);

/// Whether what projects found is kept for the next ones.
bool keepsEarlier();
void setKeepsEarlier(bool keeps);
/// A file of this name in the folder of the settings.
QString besideSettings(const QString& name);

/// How the window was left.
struct Layout {
    QByteArray geometry; ///< empty: it was never closed
    int ledgerWidth = 0; ///< in pixels; 0: it was never drawn wider or narrower
    int board = 0;       ///< 0: folded where there is little room, 1: never, 2: always
};
Layout layout();
void setLayout(const Layout& layout);
bool benchLine();
void setBenchLine(bool shown);

} // namespace anvil::app::preferences
