// From the start page into a project: planned, practised in, opened, copied from the example; and where it is
// kept.
#include "shell/earlier_index.h"
#include "shell/main_window.h"

#include "shell/board.h"
#include "shell/documents.h"
#include "shell/plan_page.h"
#include "shell/preferences.h"
#include "shell/rig_desk.h"
#include "shell/stage_strip.h"
#include "shell/start_page.h"
#include "widgets/plain_text.h"
#include <QApplication>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QPushButton>
#include <QStackedWidget>
#include <anvil/demo/demo.h>
#include <anvil/project/study_commands.h>
#include <anvil/words/verdict.h>

namespace anvil::app {

void MainWindow::showStart() {
    keepRecent();
    m_pages->setCurrentWidget(m_start);
    m_start->refresh();
    m_session.say({});
    m_headline->hide();
    m_strip->hide();
}

void MainWindow::showBody() {
    m_pages->setCurrentWidget(m_body);
    m_headline->show();
    m_strip->show();
}

void MainWindow::takeStep(chart::FirstStep step) {
    switch (step) {
    case chart::FirstStep::plan:
        return planNew();
    case chart::FirstStep::logs:
        return chooseFiles();
    case chart::FirstStep::practise:
        return practise();
    case chart::FirstStep::example:
        return openExample();
    }
}

void MainWindow::planNew() {
    if (!m_plan) {
        m_plan = new PlanPage(m_session);
        m_pages->addWidget(m_plan);
        connect(m_plan, &PlanPage::left, this, [this] {
            if (m_session.project())
                goTo(m_stage); // back to where it was begun
            else
                showStart();
        });
        connect(m_plan, &PlanPage::made, this, [this](const project::NewStudy& study) {
            if (!createProject(study.question.isEmpty() ? study.title : study.question)) return;
            const auto id = project::planStudy(*m_session.project(), study);
            if (!m_session.tell(id)) return;
            m_session.showStudy(*id);
            goTo(Stage::question);
            keepRecent();
            m_session.say(
                tr("Kept in %1.").arg(QDir::toNativeSeparators(m_session.project()->file().path())));
        });
    }
    m_plan->clear();
    m_pages->setCurrentWidget(m_plan);
    m_headline->hide();
    m_strip->hide();
}

bool MainWindow::createProject(const QString& question) {
    keepRecent();
    if (!m_session.create(freeProjectPath(question))) return false;
    m_session.resetClock();
    return true;
}

bool MainWindow::openPath(const QString& path) {
    keepRecent();
    const auto full = QFileInfo(path).absoluteFilePath();
    if (m_session.project() && QFileInfo(m_session.project()->file().path()).absoluteFilePath() == full) {
        goTo(m_stage); // it is open: back from the start page
        return true;
    }
    const bool example = full == preferences::examplePath();
    if (example) m_session.setNow(demo::now());
    if (!m_session.open(path)) return false;
    if (!example) m_session.resetClock();
    preferences::setFolder(preferences::Folder::project, QFileInfo(full).absolutePath());
    const auto* data = m_session.study();
    goTo(data && !data->pulls.empty() ? Stage::verdict : Stage::question);
    keepRecent();
    showInterrupted();
    return true;
}

/// A recording that was cut short counts nowhere until somebody says what it was.
void MainWindow::showInterrupted() {
    const auto* data = m_session.study();
    if (!data) return;
    const auto cut = std::find_if(data->pulls.begin(), data->pulls.end(), [](const auto& p) {
        return p.recording == domain::Recording::interrupted;
    });
    if (cut == data->pulls.end()) return;
    goTo(Stage::curves);
    m_session.selectPull(cut->id);
    showLedger(true);
    m_session.say(m_session.project()->file().brokenOff() > 0
                      ? tr("The program ended in mid-pull. The rig may still be running: see that it has "
                           "stopped. Then say at the right what the recording was.")
                      : tr("A recording was interrupted: say at the right what it was."),
                  true);
}

void MainWindow::openExample() {
    const auto path = freeProjectPath(tr("Worked example"));
    keepRecent();
    QApplication::setOverrideCursor(Qt::WaitCursor);
    m_session.setNow(demo::now());
    const bool made = m_session.create(path) && m_session.tell(demo::addStudies(*m_session.project()));
    QApplication::restoreOverrideCursor();
    if (!made) return;
    preferences::setExamplePath(QFileInfo(path).absoluteFilePath());
    m_session.showStudy(m_session.project()->studies().front().study.id);
    goTo(Stage::verdict);
    keepRecent();
    m_session.say(tr("Made-up studies to look around in, kept in %1. Its clock stands at %2.")
                      .arg(QDir::toNativeSeparators(path), QLocale().toString(demo::now().date())));
}

void MainWindow::practise() {
    if (!m_session.project()) {
        // One project for all practice: what was tried before is still there.
        const auto kept =
            QFileInfo(freeProjectPath(tr("Practice"))).dir().filePath(tr("Practice") + ".anvil");
        if (QFileInfo::exists(kept) ? !openPath(kept) : !createProject(tr("Practice"))) return;
    }
    if (m_session.rig().practise()) goTo(Stage::pull);
}

void MainWindow::chooseProject() {
    const auto path = QFileDialog::getOpenFileName(this, tr("Open project"),
                                                   preferences::folder(preferences::Folder::project),
                                                   tr("Projects (*.anvil)"));
    if (!path.isEmpty()) openPath(path);
}

void MainWindow::chooseNewPlace() {
    if (!m_session.project()) return m_session.say(tr("Open a project first."), true);
    auto path = QFileDialog::getSaveFileName(this, tr("Rename or move the project"),
                                             m_session.project()->file().path(), tr("Projects (*.anvil)"),
                                             nullptr, QFileDialog::DontConfirmOverwrite);
    if (path.isEmpty()) return;
    if (!path.endsWith(".anvil")) path += ".anvil";
    moveTo(path);
}

bool MainWindow::moveTo(const QString& path) {
    const auto from = QFileInfo(m_session.project()->file().path()).absoluteFilePath();
    const auto to = QFileInfo(path).absoluteFilePath();
    if (to == from) return true;
    if (m_session.readOnly()) {
        m_session.say(m_session.project()->file().readOnlyReason(), true);
        return false;
    }
    const auto study = m_session.studyId();
    const auto stage = m_stage;
    m_session.close(); // it is whole in one file then
    const bool moved = m_session.tell(moveProject(from, to));
    if (moved) preferences::moveRecent(from, to);
    if (!m_session.open(moved ? to : from)) {
        showStart();
        return false;
    }
    m_session.showStudy(study);
    goTo(stage);
    keepRecent();
    if (moved) m_session.say(tr("The project is in %1 now.").arg(QDir::toNativeSeparators(to)));
    return moved;
}

void MainWindow::keepRecent() {
    if (!m_session.project()) return;
    preferences::Recent r;
    r.path = QFileInfo(m_session.project()->file().path()).absoluteFilePath();
    r.on = m_session.now().date();
    if (const auto* data = m_session.study()) {
        r.question = qs(data->study.question.empty() ? data->study.title : data->study.question);
        r.progress = tr("%1 of %2 pulled").arg(data->pulledPieces()).arg(data->specimens.size());
        const auto& verdict = m_session.verdict(data->study.goal.metric);
        const auto said = words::headlines(*data, verdict);
        if (!said.empty()) r.leads = qs(said.front());
        r.rungs = chart::smallRungs(verdict);
    }
    preferences::addRecent(r);
    if (r.path != preferences::examplePath()) earlier_index::remember(*m_session.project()); // made up
    refreshRecent();
}

} // namespace anvil::app
