#include <anvil/project/telling_commands.h>

#include <algorithm>
#include <anvil/quantity/entry.h>
#include <anvil/results/corrections.h>

namespace anvil::project {
namespace {

Expected<void> changeTelling(OpenProject& project, Id study, const QString& what,
                             const std::function<void(domain::Telling&)>& change) {
    return project.changeStudy(study, what, [&](domain::Study& s) { change(s.telling); });
}

/// A plain number that may not be below one; `usual` where nothing is typed.
Expected<double> atLeastOne(const QString& text, double usual, const char* what) {
    if (text.trimmed().isEmpty()) return usual;
    const auto number = quantity::parseNumber(text.toStdString());
    if (!number) return tl::unexpected(number.error());
    if (!(*number >= 1)) return fail(std::string(what) + " is 1 or more.");
    return *number;
}

/// A value of a dimension; 0 where nothing is typed.
Expected<double> quantityOf(OpenProject& project, Id study, const QString& text,
                            quantity::Dimension dimension) {
    if (text.trimmed().isEmpty()) return 0.0;
    const auto entry =
        quantity::parseEntry(text.toStdString(), dimension, project.unitSpoken(study, dimension));
    if (!entry) return tl::unexpected(entry.error());
    if (entry->unit) project.heard(study, *entry->unit);
    if (!entry->plain()) return fail("\"" + text.toStdString() + "\" is no plain value.");
    return entry->si;
}

} // namespace

Expected<void> setUse(OpenProject& project, Id study, const UseText& typed) {
    domain::Use use;
    const auto factor = atLeastOne(typed.factor, 0, "A design factor");
    if (!factor) return tl::unexpected(factor.error());
    const auto uneven = atLeastOne(typed.uneven, 1, "The factor of an uneven share");
    if (!uneven) return tl::unexpected(uneven.error());
    const auto step = quantityOf(project, study, typed.step, quantity::Dimension::force);
    if (!step) return tl::unexpected(step.error());
    const auto load = quantityOf(project, study, typed.load, quantity::Dimension::force);
    if (!load) return tl::unexpected(load.error());
    if (*step < 0 || *load < 0) return fail("A step and a load are more than 0.");
    use.designFactor = *factor;
    use.why = typed.why.simplified().toStdString();
    use.step = *step;
    use.load = *load;
    use.uneven = *uneven;
    if (use.designFactor >= 1 && use.why.empty())
        return fail("Say why this design factor: it goes into the report.");
    return changeTelling(project, study, OpenProject::tr("Working limits"),
                         [&](domain::Telling& t) { t.use = use; });
}

Expected<void> setDesignFactor(OpenProject& project, Id study, double factor, const std::string& why) {
    if (!(factor >= 1)) return fail("A design factor is 1 or more.");
    return changeTelling(project, study, OpenProject::tr("Design factor"), [&](domain::Telling& t) {
        t.use.designFactor = factor;
        t.use.why = why;
    });
}

Expected<void> setReferences(OpenProject& project, Id study, const std::vector<std::array<QString, 3>>& rows,
                             quantity::Dimension dimension) {
    std::vector<domain::Reference> all;
    for (const auto& [name, value, upper] : rows) {
        domain::Reference r;
        r.name = name.simplified().toStdString();
        if (r.name.empty()) return fail("A reference line needs a name.");
        if (value.trimmed().isEmpty()) return fail("\"" + r.name + "\" needs a value.");
        const auto from = quantityOf(project, study, value, dimension);
        if (!from) return tl::unexpected(from.error());
        r.value = *from;
        if (!upper.trimmed().isEmpty()) {
            const auto to = quantityOf(project, study, upper, dimension);
            if (!to) return tl::unexpected(to.error());
            if (!(*to > *from)) return fail("The range of \"" + r.name + "\" is upside down.");
            r.upper = *to;
        }
        all.push_back(std::move(r));
    }
    return changeTelling(project, study, OpenProject::tr("Reference lines"),
                         [&](domain::Telling& t) { t.references = all; });
}

Expected<void> setInReport(OpenProject& project, Id study, const std::string& page, bool told) {
    return changeTelling(project, study,
                         told ? OpenProject::tr("A page back into the report")
                              : OpenProject::tr("A page out of the report"),
                         [&](domain::Telling& t) {
                             std::erase(t.leftOut, page);
                             if (!told) t.leftOut.push_back(page);
                         });
}

Expected<void> setFamily(OpenProject& project, Id study, stats::Family family) {
    return project.changeStudy(study, OpenProject::tr("How bounds are fitted"),
                               [&](domain::Study& s) { s.goal.family = family; });
}

Expected<void> publish(OpenProject& project, Id study, const std::string& at) {
    const auto* data = project.study(study);
    const auto* table = project.table(study);
    if (!data || !table) return fail("There is no such study any more.");
    auto now = results::publicationOf(*table, data->study.goal.metric, at);
    if (now.values.empty()) return fail("There is nothing to publish yet: no pull has a value.");
    return changeTelling(project, study, OpenProject::tr("Published"),
                         [&](domain::Telling& t) { t.publications.push_back(now); });
}

Expected<void> explainCorrection(OpenProject& project, Id study, Id pull, const std::string& at,
                                 const QString& why) {
    const auto* data = project.study(study);
    const auto* table = project.table(study);
    if (!data || !table) return fail("There is no such study any more.");
    const auto reason = why.simplified().toStdString();
    if (reason.empty()) return fail("A correction needs a reason.");
    const auto changed = results::correctionsOf(*table, data->study.goal.metric);
    if (std::none_of(changed.begin(), changed.end(), [&](const auto& c) { return c.pull == pull; }))
        return fail("What was published of this pull has not changed.");
    return changeTelling(project, study, OpenProject::tr("Correction explained"), [&](domain::Telling& t) {
        t.corrections.push_back({pull, at, reason});
    });
}

} // namespace anvil::project
