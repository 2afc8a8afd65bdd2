#include "stages/verdict/verdict_actions.h"

#include "stages/verdict/verdict_forms.h"
#include <anvil/project/score_commands.h>
#include <anvil/project/study_commands.h>
#include <anvil/project/telling_commands.h>

namespace anvil::app {
namespace {

struct Doer {
    Session& session;
    QWidget* parent;

    project::OpenProject& project() const { return *session.project(); }

    void operator()(const pages::ChooseFactor& a) const {
        session.tell(project::setDesignFactor(project(), session.studyId(), a.factor, a.why));
    }
    void operator()(const pages::ChooseFamily& a) const {
        session.tell(project::setFamily(project(), session.studyId(), a.family));
    }
    void operator()(const pages::PlanMore& a) const {
        if (!a.apart) {
            if (!session.tell(project::planMore(project(), session.studyId(), a.squares, a.more))) return;
            session.say(QObject::tr("Planned. Make the pieces in Specimens."));
            return session.go(Stage::specimens);
        }
        const auto made = project::followUpStudy(
            project(), session.studyId(),
            QObject::tr("Follow-up of %1").arg(qs(session.study()->study.title)), a.squares, a.more);
        if (!session.tell(made)) return;
        session.showStudy(*made);
        session.say(QObject::tr("A study of its own. Check the plan, then make the pieces in Specimens."));
        session.go(Stage::question);
    }
    void operator()(const pages::AddCriterion& a) const {
        session.tell(project::addCriterion(project(), session.studyId(), a.criterion));
    }
    void operator()(const pages::RemoveCriterion& a) const {
        session.tell(project::removeCriterion(project(), session.studyId(), a.at));
    }
    void operator()(const pages::SetAside& a) const { askAside(session, a.pull, parent); }
    void operator()(pages::Ask ask) const {
        switch (ask) {
        case pages::Ask::ratings:
            return askRatings(session, parent);
        case pages::Ask::use:
            return askUse(session, parent);
        case pages::Ask::reevings:
            return askReevings(session, parent);
        case pages::Ask::arrangements:
            return askArrangements(session, parent);
        }
    }
    template <class Shown> void operator()(const Shown&) const {}
};

} // namespace

void doToStudy(Session& session, const pages::Action& action, QWidget* parent) {
    if (session.study()) std::visit(Doer{session, parent}, action);
}

} // namespace anvil::app
