#include <anvil/project/placement.h>

#include <QRegularExpression>
#include <QStringList>
#include <algorithm>
#include <map>
#include <set>

namespace anvil::project {
namespace {

QStringList wordsOf(const QString& name) {
    static const QRegularExpression marks("[\\s_\\-./,;:()\\[\\]]+");
    return name.normalized(QString::NormalizationForm_C).toCaseFolded().split(marks, Qt::SkipEmptyParts);
}

bool hasDigit(const QStringList& words) {
    return std::any_of(words.begin(), words.end(), [](const QString& w) {
        return std::any_of(w.begin(), w.end(), [](QChar c) { return c.isDigit(); });
    });
}

/// Where `label` stands in `text` as words of its own.
bool holdsLabel(const QString& text, const QString& label) {
    const auto folded = text.toCaseFolded(), wanted = label.toCaseFolded();
    const auto inWord = [&](qsizetype i) {
        return i >= 0 && i < folded.size() && folded[i].isLetterOrNumber();
    };
    for (auto at = folded.indexOf(wanted); at >= 0; at = folded.indexOf(wanted, at + 1))
        if (!inWord(at - 1) && !inWord(at + wanted.size())) return true;
    return false;
}

/// A label that can be told from a number that counts and from a word.
bool canBeFound(const QString& label) {
    const bool letter = std::any_of(label.begin(), label.end(), [](QChar c) { return c.isLetter(); });
    const bool digit = std::any_of(label.begin(), label.end(), [](QChar c) { return c.isDigit(); });
    return letter && digit && label.size() > 1;
}

template <class T> const T* named(const std::vector<T>& all, const QString& name) {
    const auto at = std::find_if(all.begin(), all.end(),
                                 [&](const T& x) { return sameThing(QString::fromStdString(x.name), name); });
    return at == all.end() ? nullptr : &*at;
}

class Waiting {
public:
    explicit Waiting(const domain::StudyData& study) {
        std::set<domain::Id> pulled;
        for (const auto& p : study.pulls)
            pulled.insert(p.specimen);
        for (const auto& s : study.specimens)
            if (!pulled.contains(s.id)) m_waiting.push_back(&s);
        std::stable_sort(m_waiting.begin(), m_waiting.end(),
                         [](const auto* a, const auto* b) { return a->replicate < b->replicate; });
    }

    /// Not of another option than the one that is told.
    const domain::Specimen* byLabel(const QString& naming, const domain::Option* told) const {
        const domain::Specimen* best = nullptr;
        for (const auto* s : m_waiting) {
            const auto label = QString::fromStdString(s->label);
            if (told && s->option != told->id) continue;
            if (canBeFound(label) && holdsLabel(naming, label) &&
                (!best || s->label.size() > best->label.size()))
                best = s;
        }
        return best;
    }

    const domain::Specimen* inSquare(domain::Id option, domain::Id condition, int replicate) const {
        const domain::Specimen* first = nullptr;
        for (const auto* s : m_waiting) {
            if (s->option != option || s->condition != condition) continue;
            if (s->replicate == replicate) return s;
            if (!first) first = s;
        }
        return first;
    }

    void take(const domain::Specimen* s) { std::erase(m_waiting, s); }

private:
    std::vector<const domain::Specimen*> m_waiting; ///< by replicate
};

Placement at(const domain::StudyData& study, const domain::Specimen& s) {
    return {s.id, QString::fromStdString(s.label), QString::fromStdString(study.optionAt(s.option).name),
            QString::fromStdString(study.conditionAt(s.condition).name), s.replicate};
}

} // namespace

bool sameThing(const QString& a, const QString& b) {
    auto x = wordsOf(a), y = wordsOf(b);
    if (x.join(QString()) == y.join(QString())) return true;
    if (x.size() != y.size() || hasDigit(x) || hasDigit(y)) return false;
    x.sort();
    y.sort();
    return x == y;
}

std::vector<Placement> placesFor(const domain::StudyData& study, const std::vector<Homeless>& results) {
    Waiting waiting(study);
    std::vector<Placement> out(results.size());
    std::vector<bool> placed(results.size(), false);
    for (std::size_t i = 0; i < results.size(); ++i) { // whose label is told is served first
        if (results[i].isNew) continue;
        if (const auto* s = waiting.byLabel(results[i].naming, named(study.options, results[i].option))) {
            out[i] = at(study, *s);
            placed[i] = true;
            waiting.take(s);
        }
    }
    for (const bool byReplicate : {true, false}) // then those whose own replicate waits
        for (std::size_t i = 0; i < results.size(); ++i) {
            const auto& r = results[i];
            if (placed[i]) continue;
            const auto* option = named(study.options, r.option);
            const auto* condition = r.condition.isEmpty() && study.conditions.size() == 1
                                        ? &study.conditions.front()
                                        : named(study.conditions, r.condition);
            out[i] = {0,
                      {},
                      option ? QString::fromStdString(option->name) : r.option,
                      condition ? QString::fromStdString(condition->name) : r.condition,
                      r.replicate};
            if (!option || !condition || r.isNew) continue;
            const auto* s = waiting.inSquare(option->id, condition->id, r.replicate);
            if (!s || (byReplicate && s->replicate != r.replicate)) continue;
            out[i] = at(study, *s);
            placed[i] = true;
            waiting.take(s);
        }
    return out;
}

} // namespace anvil::project
