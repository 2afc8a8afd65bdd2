#include "man.h"

#include <anvil/demo/demo.h>

#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <QFile>
#include <anvil/quantity/digits.h>
#include <iostream>

int main(int argc, char** argv) {
    const QCoreApplication application(argc, argv);
    anvil::quantity::usePoints();
    CLI::App app("Builds the demo project and its logger files from fixed seeds.");
    std::string to, logs;
    bool force = false;
    app.add_option("--to", to, "project file to write");
    app.add_option("--logs", logs, "folder for the logger files");
    app.add_flag("--force", force, "replace the project if it exists");
    anvil::cli::addMan(app, "anvil-demo");
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& told) { // help or the page
        return app.exit(told);
    } catch (const CLI::ParseError& wrong) {
        std::cerr << wrong.what() << "\n";
        return 2;
    }
    if (to.empty() && logs.empty()) {
        std::cerr << "Say what to make: --to FILE, --logs FOLDER or both.\n";
        return 2;
    }
    const auto report = [](const anvil::Expected<void>& result) {
        if (!result) std::cerr << result.error().message << "\n";
        return result ? 0 : 3;
    };
    if (!to.empty()) {
        const auto path = QString::fromStdString(to);
        if (force) // with what an unfinished run may have left beside it
            for (const char* end : {"", "-wal", "-shm", "-journal"})
                QFile::remove(path + end);
        auto project = anvil::project::OpenProject::create(path);
        if (!project) {
            std::cerr << project.error().message << "\n";
            return 3;
        }
        (*project)->file().setWho("demo");
        (*project)->file().setClock([] { return QDateTime(QDate(2026, 5, 4), QTime(9, 0), Qt::UTC); });
        if (const int failed = report(anvil::demo::addStudies(**project))) return failed;
    }
    if (!logs.empty()) return report(anvil::demo::writeLogs(QString::fromStdString(logs)));
    return 0;
}
