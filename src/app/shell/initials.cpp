#include "shell/initials.h"

#include <QRegularExpression>

namespace anvil::app {
namespace {

/// The first letters of the words, and `more` further letters of the last word that is used.
QString lettersOf(const QString& name, int more) {
    QString out;
    const auto words = name.split(QRegularExpression(QStringLiteral("[^\\w]+")), Qt::SkipEmptyParts);
    for (const auto& word : words) {
        if (out.size() == 2) break;
        out += word.front().toUpper();
    }
    if (words.isEmpty()) return name.left(1);
    if (words.size() == 1) ++more; // one letter alone says little
    const auto& last = words[out.size() - 1];
    return out + last.mid(1, more).toLower();
}

} // namespace

QStringList initials(const QStringList& names) {
    QStringList out;
    for (const auto& name : names) {
        auto text = lettersOf(name, 0);
        if (out.contains(text)) text = lettersOf(name, 1).left(3);
        if (out.contains(text)) {
            const auto stem = text.left(1);
            for (int n = 2; out.contains(text); ++n)
                text = stem + QString::number(n);
        }
        out << text;
    }
    return out;
}

} // namespace anvil::app
