#include "shell/earlier_index.h"

#include "shell/preferences.h"
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSaveFile>
#include <anvil/work/open_project.h>

namespace anvil::app::earlier_index {
namespace {

constexpr qsizetype mostProjects = 200;

QString qs(const std::string& s) { return QString::fromStdString(s); }
std::string text(const QJsonObject& o, const char* key) {
    return o.value(QLatin1String(key)).toString().toStdString();
}

std::optional<double> number(const QJsonObject& o, const char* key) {
    const auto v = o.value(QLatin1String(key));
    return v.isDouble() ? std::optional(v.toDouble()) : std::nullopt;
}

QJsonObject toJson(const results::Earlier& e) {
    QJsonObject o{{"study", qs(e.study)},   {"at", qs(e.at)},         {"method", qs(e.method)},
                  {"metric", qs(e.metric)}, {"option", qs(e.option)}, {"condition", qs(e.condition)},
                  {"intent", qs(e.intent)}, {"rig", qs(e.rig)},       {"n", static_cast<qint64>(e.n)}};
    if (e.mean) o["mean"] = *e.mean;
    if (e.sd) o["sd"] = *e.sd;
    if (e.atLeast) o["at_least"] = true;
    QJsonArray batches;
    for (const auto& b : e.batches)
        batches.append(qs(b));
    o["batches"] = batches;
    return o;
}

results::Earlier fromJson(const QJsonObject& o, const std::string& project) {
    results::Earlier e;
    e.project = project;
    e.study = text(o, "study");
    e.at = text(o, "at");
    e.method = text(o, "method");
    e.metric = text(o, "metric");
    e.option = text(o, "option");
    e.condition = text(o, "condition");
    e.intent = text(o, "intent");
    e.rig = text(o, "rig");
    e.n = static_cast<std::size_t>(std::max(0.0, number(o, "n").value_or(0)));
    e.mean = number(o, "mean");
    e.sd = number(o, "sd");
    e.atLeast = o.value("at_least").toBool();
    for (const auto& b : o.value("batches").toArray())
        e.batches.push_back(b.toString().toStdString());
    return e;
}

/// By path of the project: its studies by title, each a list.
QJsonObject read() {
    QFile file(path());
    if (!file.open(QIODevice::ReadOnly)) return {};
    return QJsonDocument::fromJson(file.readAll()).object();
}

void write(const QJsonObject& projects) {
    QDir().mkpath(QFileInfo(path()).absolutePath());
    QSaveFile file(path());
    if (!file.open(QIODevice::WriteOnly)) return; // it only helps to remember
    file.write(QJsonDocument(projects).toJson(QJsonDocument::Compact));
    file.commit();
}

} // namespace

bool isOn() { return preferences::keepsEarlier(); }

void setOn(bool on) {
    preferences::setKeepsEarlier(on);
    if (!on) QFile::remove(path());
}

QString path() { return preferences::besideSettings(QStringLiteral("earlier.json")); }

void remember(work::OpenProject& project) {
    if (!isOn()) return;
    auto projects = read();
    const auto file = QFileInfo(project.file().path()).absoluteFilePath();
    const auto name = QFileInfo(file).completeBaseName().toStdString();
    auto studies = projects.value(file).toObject();
    QJsonObject now;
    for (const auto& s : project.studies()) {
        const auto title = qs(s.study.title);
        if (!project.unread(s.study.id).empty()) { // not looked at this time
            if (studies.contains(title)) now[title] = studies.value(title);
            continue;
        }
        QJsonArray said;
        for (const auto& e : results::earlierOf(name, s, project.verdict(s.study.id, s.study.goal.metric)))
            said.append(toJson(e));
        if (!said.isEmpty()) now[title] = said;
    }
    if (now.isEmpty())
        projects.remove(file);
    else
        projects[file] = now;
    while (projects.size() > mostProjects)
        projects.erase(projects.begin());
    write(projects);
}

std::vector<results::Earlier> all(const QString& besides) {
    std::vector<results::Earlier> out;
    if (!isOn()) return out;
    const auto projects = read();
    for (auto it = projects.begin(); it != projects.end(); ++it) {
        if (it.key() == QFileInfo(besides).absoluteFilePath()) continue;
        const auto name = QFileInfo(it.key()).completeBaseName().toStdString();
        const auto studies = it.value().toObject();
        for (const auto& said : studies)
            for (const auto& e : said.toArray())
                out.push_back(fromJson(e.toObject(), name));
    }
    return out;
}

} // namespace anvil::app::earlier_index
