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

/// Whether a label stands in a text as words of its own; both folded.
bool holdsLabel(const QString& folded, const QString& wanted) {
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

/// Finds options or conditions by name; a spelling is compared with all of them once, however often it comes.
template <class T> class Names {
public:
    explicit Names(const std::vector<T>& all) : m_all(all) {}
    const T* operator()(const QString& name) {
        const auto [known, isNew] = m_known.try_emplace(name, nullptr);
        if (!isNew) return known->second;
        const auto at = std::find_if(m_all.begin(), m_all.end(), [&](const T& x) {
            return sameThing(QString::fromStdString(x.name), name);
        });
        return known->second = at == m_all.end() ? nullptr : &*at;
    }

private:
    const std::vector<T>& m_all;
    std::map<QString, const T*> m_known;
};

class Waiting {
public:
    explicit Waiting(const domain::StudyData& study) {
        std::set<domain::Id> pulled;
        for (const auto& p : study.pulls)
            pulled.insert(p.specimen);
        for (const auto& s : study.specimens)
            if (!pulled.contains(s.id)) m_waiting.push_back(&s);
        for (const auto* s : m_waiting)
            if (const auto label = QString::fromStdString(s->label); canBeFound(label))
                m_labels.emplace(s->id, label.toCaseFolded());
        std::stable_sort(m_waiting.begin(), m_waiting.end(),
                         [](const auto* a, const auto* b) { return a->replicate < b->replicate; });
    }

    /// Not of another option than the one that is told.
    const domain::Specimen* byLabel(const QString& naming, const domain::Option* told) const {
        const domain::Specimen* best = nullptr;
        if (naming.isEmpty()) return best;
        const auto folded = naming.toCaseFolded();
        for (const auto* s : m_waiting) {
            const auto label = m_labels.find(s->id);
            if (label == m_labels.end() || (told && s->option != told->id)) continue;
            if (holdsLabel(folded, label->second) && (!best || s->label.size() > best->label.size()))
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
    std::map<domain::Id, QString> m_labels;         ///< folded, of those that can be told in a name
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
    Names<domain::Option> optionNamed(study.options);
    Names<domain::Condition> conditionNamed(study.conditions);
    std::vector<Placement> out(results.size());
    std::vector<bool> placed(results.size(), false);
    for (std::size_t i = 0; i < results.size(); ++i) { // whose label is told is served first
        if (results[i].isNew) continue;
        if (const auto* s = waiting.byLabel(results[i].naming, optionNamed(results[i].option))) {
            out[i] = at(study, *s);
            placed[i] = true;
            waiting.take(s);
        }
    }
    for (const bool byReplicate : {true, false}) // then those whose own replicate waits
        for (std::size_t i = 0; i < results.size(); ++i) {
            const auto& r = results[i];
            if (placed[i]) continue;
            const auto* option = optionNamed(r.option);
            const auto* condition = r.condition.isEmpty() && study.conditions.size() == 1
                                        ? &study.conditions.front()
                                        : conditionNamed(r.condition);
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
