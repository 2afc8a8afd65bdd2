#include "ids.h"

#include <anvil/exchange/package.h>
#include <anvil/project/told_rig.h>
#include <set>

namespace anvil::exchange {
namespace {

/// A study as it can be added before its options are.
domain::Study bare(domain::Study s) {
    s.plan = {};
    s.card = {};
    s.telling = {};
    s.goal.control = 0;
    s.id = 0;
    return s;
}

/// Writes a package, table by table, and notes what its ids have become.
class Taking {
public:
    Taking(store::Writer& writer, const Package& package, const std::vector<store::SetupRow>& kept)
        : m_writer(writer), m_package(package), m_kept(kept) {}

    void all(int firstPosition) {
        setups();
        for (std::size_t i = 0; i < m_package.files.size(); ++i)
            m_ids.file[static_cast<Id>(i + 1)] = m_writer.addFile(
                store::ImportedFile::pack(m_package.files[i].name, m_package.files[i].bytes));
        auto studies = m_package.studies;
        std::vector<domain::Study> before;
        for (auto& data : studies) {
            data.study.position = firstPosition++;
            auto first = bare(data.study);
            first.id = m_ids.study[data.study.id] = m_writer.add(first);
            before.push_back(first);
            rows(data);
        }
        for (std::size_t i = 0; i < studies.size(); ++i) { // a card may name any of them
            renumber(studies[i].study, m_ids);
            m_writer.change(before[i], studies[i].study);
        }
    }

private:
    void setups() {
        for (const auto& row : m_package.setups) {
            Id same = 0;
            int version = 0;
            for (const auto& k : m_kept)
                if (k.rig == row.rig) {
                    version = std::max(version, k.version);
                    if (k.json == row.json) same = k.id;
                }
            auto made = row;
            made.version = version ? version + 1 : row.version;
            made.id = 0;
            m_ids.setup[row.id] = same ? same : m_writer.addSetup(made);
        }
        for (const auto& [study, setup] : m_package.told)
            m_told[study] = project::keepSetup(m_writer, m_kept, setup);
    }

    template <class T> void add(std::vector<T>& all, std::map<Id, Id>& ids) {
        for (auto& x : all) {
            x.study = m_ids.study[x.study];
            const auto old = x.id;
            x.id = 0;
            x.id = ids[old] = m_writer.add(x);
        }
    }

    void rows(domain::StudyData data) {
        const auto study = data.study.id;
        add(data.options, m_ids.option);
        add(data.conditions, m_ids.condition);
        for (auto& s : data.specimens) {
            s.option = m_ids.option[s.option];
            s.condition = m_ids.condition[s.condition];
        }
        add(data.specimens, m_ids.specimen);
        for (auto p : data.pulls) {
            const auto old = p.id;
            p.id = 0;
            p.specimen = m_ids.specimen[p.specimen];
            p.setup = p.setup ? m_ids.setup[p.setup] : m_told.contains(study) ? m_told[study] : 0;
            const auto curve = m_package.curves.find(old);
            p.curve = curve == m_package.curves.end() ? 0 : m_writer.addCurve(curve->second);
            for (const auto& b : m_package.beside)
                if (b.pull == old && p.curve) m_writer.addCurve(b.samples, {}, p.curve);
            m_ids.pull[old] = m_writer.add(p);
        }
        for (auto a : data.attachments) {
            a.id = 0;
            a.pull = m_ids.pull[a.pull];
            a.file = m_ids.file[a.file];
            m_writer.add(a);
        }
    }

    store::Writer& m_writer;
    const Package& m_package;
    const std::vector<store::SetupRow>& m_kept;
    IdMaps m_ids;
    std::map<Id, Id> m_told;
};

} // namespace

Expected<TakenIn> takeIn(store::Project& project, const Package& package) {
    const auto there = project.load();
    if (!there) return tl::unexpected(there.error());
    for (const auto& data : *there)
        for (const auto& mine : package.studies)
            if (data.study.title == mine.study.title)
                return fail("There is a study \"" + mine.study.title +
                            "\" in this project already: rename one of the two first.");
    const auto kept = project.setups();
    if (!kept) return tl::unexpected(kept.error());
    TakenIn out;
    out.studies = static_cast<int>(package.studies.size());
    for (const auto& data : package.studies)
        out.pulls += static_cast<int>(data.pulls.size());
    out.what =
        out.studies == 1
            ? QStringLiteral("Import \"%1\"").arg(QString::fromStdString(package.studies.front().study.title))
            : QStringLiteral("Import %1 studies").arg(out.studies);
    auto entry = project.write(
        out.what, [&](store::Writer& w) { Taking(w, package, *kept).all(static_cast<int>(there->size())); });
    if (!entry) return tl::unexpected(entry.error());
    out.journal = *entry;
    return out;
}

} // namespace anvil::exchange
