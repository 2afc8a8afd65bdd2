#include "import_names.h"

#include <QDir>
#include <QDirIterator>
#include <QFileInfo>
#include <algorithm>
#include <fmt/format.h>

namespace anvil::project {
namespace {

/// Endings of files that can hold a log or a table; in a folder others are passed over.
const QStringList& endings() {
    static const QStringList all{"csv",  "tsv",   "txt",    "log", "dat", "asc", "prn",
                                 "data", "xlsx",  "xlsm",   "xls", "ods", "htm", "html",
                                 "json", "jsonl", "ndjson", "gz",  "out", "tab"};
    return all;
}

} // namespace

QString commonFolder(const QStringList& paths) {
    QStringList common;
    for (qsizetype i = 0; i < paths.size(); ++i) {
        const QFileInfo path(paths[i]);
        const auto parts = (path.isDir() ? path.absoluteFilePath() : path.absolutePath()).split('/');
        if (i == 0) {
            common = parts;
            continue;
        }
        qsizetype same = 0;
        while (same < common.size() && same < parts.size() && common[same] == parts[same])
            ++same;
        common.resize(same);
    }
    return common.join('/');
}

QString sentenceCase(QString text) {
    text = text.normalized(QString::NormalizationForm_C);
    if (!text.isEmpty()) text[0] = text[0].toUpper();
    return text;
}

Expected<QStringList> filesIn(const QStringList& paths, const std::atomic<bool>* stop) {
    QStringList out;
    int looked = 0;
    qint64 bytes = 0;
    for (const auto& path : paths) {
        if (!QFileInfo(path).isDir()) {
            out << path;
            continue;
        }
        QStringList inside;
        QDirIterator it(path, QDir::Files | QDir::Dirs | QDir::NoDotAndDotDot, QDirIterator::Subdirectories);
        while (it.hasNext()) {
            const QFileInfo file(it.next());
            if (stop && *stop) return fail("Cancelled.");
            if (++looked > mostFilesLookedAt)
                return fail(path.toStdString() +
                            fmt::format(": more than {} files and folders lie below it; choose the "
                                        "folder that holds the logs",
                                        mostFilesLookedAt));
            if (file.isDir() || !endings().contains(file.suffix().toLower())) continue;
            bytes += file.size();
            inside << file.filePath();
            if (inside.size() > mostFilesOfFolder || bytes > mostBytesOfFolder)
                return fail(path.toStdString() +
                            fmt::format(": it holds more than {} logs or {} GB of them; import it in parts",
                                        mostFilesOfFolder, mostBytesOfFolder / 1'000'000'000));
        }
        inside.sort();
        out << inside;
    }
    return out;
}

std::vector<std::string> namesOf(const QStringList& paths) {
    QDir folder(commonFolder(paths));
    std::vector<std::string> names;
    for (const auto& path : paths)
        names.push_back(folder.relativeFilePath(QFileInfo(path).absoluteFilePath()).toStdString());
    // Where the names only number or tell conditions, the folder they lie in tells the option.
    const auto tellNoOption = [&] {
        const auto pattern = tables::patternOf(names);
        return std::any_of(names.begin(), names.end(), [&](const auto& n) {
            const auto option = tables::partsOf(n, pattern).option;
            return option.empty() || tables::soundsLikeCondition(option);
        });
    };
    constexpr int mostLevels = 3;
    for (int level = 0; level < mostLevels && !folder.isRoot() && !names.empty() && tellNoOption(); ++level) {
        for (auto& n : names)
            n.insert(0, folder.dirName().toStdString() + "/");
        folder.setPath(QFileInfo(folder.absolutePath()).absolutePath());
    }
    return names;
}

void assignNames(ImportRow& row, const tables::NamePattern& pattern) {
    const auto parts = tables::partsOf(row.naming, pattern);
    row.option = row.ownOption.isEmpty() ? sentenceCase(QString::fromStdString(parts.option)) : row.ownOption;
    row.condition =
        row.ownCondition.isEmpty() ? sentenceCase(QString::fromStdString(parts.condition)) : row.ownCondition;
    row.replicate = row.ownOption.isEmpty() ? parts.replicate : 0;
}

const ImportRow* ImportPlan::byName() const {
    const auto row = std::find_if(rows.begin(), rows.end(), [&](const ImportRow& r) {
        if (r.corrected || !r.ownOption.isEmpty()) return false;
        // Of one that names its piece the piece tells.
        const auto told = QString::fromStdString(tables::partsOf(r.naming, pattern).option);
        return r.piece.isEmpty() || sameThing(told, r.option);
    });
    return row == rows.end() ? nullptr : &*row;
}

QString ImportPlan::patternSentence() const {
    const auto* row = byName();
    if (!row) return {};
    const auto parts = tables::partsOf(row->naming, pattern);
    QStringList out;
    if (!parts.option.empty())
        out << QStringLiteral("the option is \u201c%1\u201d").arg(QString::fromStdString(parts.option));
    if (!parts.condition.empty())
        out << QStringLiteral("the condition \u201c%1\u201d").arg(QString::fromStdString(parts.condition));
    if (parts.replicate > 0) out << QStringLiteral("%1 counts the pulls").arg(parts.replicate);
    if (out.isEmpty()) return {};
    const auto last = out.size() > 1 ? QStringLiteral(" and ") + out.takeLast() : QString();
    return QStringLiteral("In \u201c%1\u201d %2%3.")
        .arg(QString::fromStdString(row->naming), out.join(", "), last);
}

void rename(ImportPlan& plan, const tables::NamePattern& pattern) {
    plan.pattern = pattern;
    for (auto& row : plan.rows)
        if (!row.corrected) {
            const int replicate = row.replicate;
            assignNames(row, pattern);
            if (row.replicate == 0) row.replicate = replicate;
        }
}

void relearn(ImportPlan& plan, std::size_t index) {
    auto& row = plan.rows[index];
    row.corrected = true;
    auto pattern = plan.pattern;
    if (const auto places = tables::learn(row.naming, row.option.toStdString())) pattern.option = *places;
    if (const auto places = row.condition.isEmpty() ? std::optional(std::vector<std::size_t>{})
                                                    : tables::learn(row.naming, row.condition.toStdString()))
        pattern.condition = *places;
    rename(plan, pattern);
}

} // namespace anvil::project
