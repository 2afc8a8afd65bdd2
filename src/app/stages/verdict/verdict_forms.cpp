#include "stages/verdict/verdict_forms.h"

#include "widgets/form_dialog.h"
#include "widgets/row_editor.h"
#include <QLineEdit>
#include <anvil/methods/method.h>
#include <anvil/project/plan_commands.h>
#include <anvil/project/pull_commands.h>
#include <anvil/project/score_commands.h>
#include <anvil/project/telling_commands.h>
#include <anvil/quantity/entry.h>
#include <anvil/quantity/print.h>

namespace anvil::app {

namespace {

QString entered(double si, const quantity::Unit& unit) {
    return si > 0 ? qs(quantity::asEntered(si, unit)) : QString();
}

QString numberText(double value) { return qs(quantity::shortest(value)); }

} // namespace

void askReferences(Session& session, QWidget* parent) {
    const auto* data = session.study();
    if (!data) return;
    const auto& unit = methods::unitFor(*data->study.goal.metric, session.units());
    FormDialog dialog(QObject::tr("Reference lines"),
                      QObject::tr("What results are seen against: a body weight, a working load, a published "
                                  "range. With an upper end it is a band."),
                      QObject::tr("Draw them"), parent);
    auto* rows = new RowEditor({QObject::tr("Name"), QObject::tr("Value"), QObject::tr("Up to")},
                               QObject::tr("Reference lines"));
    std::vector<QStringList> shown;
    shown.reserve(data->study.telling.references.size());
    for (const auto& r : data->study.telling.references)
        shown.push_back({qs(r.name), qs(quantity::asEntered(r.value, unit)),
                         r.upper ? qs(quantity::asEntered(*r.upper, unit)) : QString()});
    rows->setRows(shown);
    rows->setLeastRows(3);
    dialog.addWide(rows);
    dialog.onDone([&] {
        std::vector<std::array<QString, 3>> typed;
        for (const auto& row : rows->rows())
            typed.push_back({row[0], row[1], row[2]});
        return project::setReferences(*session.project(), session.studyId(), typed, unit.dimension);
    });
    dialog.exec();
}

void askUse(Session& session, QWidget* parent) {
    const auto* data = session.study();
    if (!data) return;
    const auto& unit = session.units().of(quantity::Dimension::force);
    const auto& use = data->study.telling.use;
    FormDialog dialog(
        QObject::tr("Working limit"),
        QObject::tr("Working limit = floor ÷ design factor, rounded down. A test in a shed is no "
                    "rating: where somebody could be hurt, local codes and a competent person decide."),
        QObject::tr("Use these"), parent);
    auto* factor = dialog.addField(QObject::tr("Design factor"),
                                   use.designFactor >= 1 ? numberText(use.designFactor) : QString(), "3");
    auto* why = dialog.addField(QObject::tr("Why this one"), qs(use.why));
    auto* step = dialog.addField(QObject::tr("Rounded down to"), entered(use.step, unit), "50 N");
    auto* load = dialog.addField(QObject::tr("Load to be held in all"), entered(use.load, unit), "5 kN");
    auto* uneven = dialog.addField(QObject::tr("The most loaded one has times its even share"),
                                   use.uneven != 1 ? numberText(use.uneven) : QString(), "1.5");
    dialog.onDone([&] {
        return project::setUse(*session.project(), session.studyId(),
                               {factor->text(), why->text(), step->text(), load->text(), uneven->text()});
    });
    dialog.exec();
}

void askRatings(Session& session, QWidget* parent) {
    const auto* data = session.study();
    if (!data) return;
    FormDialog dialog(
        QObject::tr("Judge by eye"),
        QObject::tr("What no rig measures, such as how easy it is to fit: a rating for each option, "
                    "more is better. An option without one stays blank."),
        QObject::tr("Add to the card"), parent);
    auto* name = dialog.addField(QObject::tr("What is judged"), {}, QObject::tr("ease of fitting"));
    auto* rows = new RowEditor({QObject::tr("Option"), QObject::tr("Rating")}, QObject::tr("Ratings"));
    std::vector<QStringList> shown;
    shown.reserve(data->options.size());
    for (const auto& o : data->options)
        shown.push_back({qs(o.name), QString()});
    rows->setRows(shown);
    dialog.addWide(rows);
    dialog.onDone([&]() -> Expected<void> {
        domain::Criterion c;
        c.name = name->text().simplified().toStdString();
        c.judged = domain::Judged::byEye;
        for (const auto& row : rows->rows()) {
            if (row[1].isEmpty()) continue;
            const auto rating = quantity::parseNumber(row[1].toStdString());
            if (!rating) return tl::unexpected(rating.error());
            c.ratings.push_back({row[0].toStdString(), *rating});
        }
        return project::addCriterion(*session.project(), session.studyId(), c);
    });
    dialog.exec();
}

void askReevings(Session& session, QWidget* parent) {
    const auto* data = session.study();
    if (!data) return;
    FormDialog dialog(
        QObject::tr("Devices"),
        QObject::tr("The devices each line runs over, from the hand on and parted by commas, such as: ring, "
                    "roller. What only leads the line round at the hand stands by itself."),
        QObject::tr("Take these"), parent);
    auto* rows = new RowEditor(
        {QObject::tr("Option"), QObject::tr("Devices from the hand on"), QObject::tr("Led round by")},
        QObject::tr("Devices of each option"));
    std::vector<QStringList> shown;
    shown.reserve(data->options.size());
    for (const auto& o : data->options) {
        QStringList devices;
        QString redirect;
        for (const auto& r : data->study.plan.reevings)
            if (r.option == o.id) {
                for (const auto& d : r.reeving.devices)
                    devices << qs(d);
                redirect = qs(r.reeving.redirect);
            }
        shown.push_back({qs(o.name), devices.join(", "), redirect});
    }
    rows->setRows(shown);
    dialog.addWide(rows);
    dialog.onDone([&]() -> Expected<void> {
        std::vector<std::tuple<Id, std::string, std::string>> typed;
        const auto* now = session.study(); // what was there when the form opened may lie elsewhere by now
        if (!now) return fail("The study is not there any more.");
        for (const auto& row : rows->rows()) {
            const auto at = std::find_if(now->options.begin(), now->options.end(),
                                         [&](const auto& o) { return qs(o.name) == row[0].simplified(); });
            if (at == now->options.end()) return fail("There is no option \"" + row[0].toStdString() + "\".");
            typed.emplace_back(at->id, row[1].toStdString(), row[2].toStdString());
        }
        return project::setReevings(*session.project(), session.studyId(), typed);
    });
    dialog.exec();
}

void askAside(Session& session, Id pull, QWidget* parent) {
    const auto* data = session.study();
    const auto* found = data ? data->pull(pull) : nullptr;
    if (!found) return;
    FormDialog dialog(QObject::tr("Set %1 aside").arg(qs(data->specimenAt(found->specimen).label)),
                      QObject::tr("It stays in the list and in the report with its reason, and in no mean. A "
                                  "reason in the test, never its number."),
                      QObject::tr("Set it aside"), parent);
    auto* why = dialog.addField(QObject::tr("Physical reason"), {}, QObject::tr("jaw slipped"));
    dialog.onDone(
        [&] { return project::setStanding(*session.project(), pull, domain::Standing::aside, why->text()); });
    dialog.exec();
}

void askArrangements(Session& session, QWidget* parent) {
    const auto* data = session.study();
    if (!data) return;
    FormDialog dialog(
        QObject::tr("Arrangements"),
        QObject::tr("An option that is another one in an arrangement, such as doubled or choked: the "
                    "plain one, and the factor it is said to hold of that. A plain one stays empty."),
        QObject::tr("Take these"), parent);
    auto* rows = new RowEditor({QObject::tr("Option"), QObject::tr("Plain one"), QObject::tr("Factor")},
                               QObject::tr("Arrangements"));
    std::vector<QStringList> shown;
    shown.reserve(data->options.size());
    for (const auto& o : data->options) {
        QStringList row{qs(o.name), {}, {}};
        for (const auto& a : data->study.plan.arrangements)
            if (a.option == o.id)
                if (const auto* base = data->option(a.base))
                    row = {qs(o.name), qs(base->name), numberText(a.factor)};
        shown.push_back(row);
    }
    rows->setRows(shown);
    dialog.addWide(rows);
    dialog.onDone([&] {
        std::vector<project::TypedArrangement> typed;
        for (const auto& row : rows->rows())
            typed.push_back({row[0].toStdString(), row[1].toStdString(), row[2].toStdString()});
        return project::setArrangements(*session.project(), session.studyId(), typed);
    });
    dialog.exec();
}

} // namespace anvil::app
