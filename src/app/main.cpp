#include "shell/main_window.h"
#include "shell/preferences.h"
#include "shell/rig_guard.h"
#include "theme/theme.h"

#include <QApplication>
#include <QEvent>
#include <QTimer>
#include <anvil/link/last_words.h>
#include <anvil/quantity/digits.h>

namespace {

/// Ends the program once its window has been painted; for measuring how long that takes.
class QuitWhenPainted : public QObject {
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() == QEvent::Paint) QTimer::singleShot(0, qApp, &QCoreApplication::quit);
        return QObject::eventFilter(watched, event);
    }
};

} // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    anvil::quantity::usePoints();
    QApplication::setApplicationName("Jaunty Anvil");
    QApplication::setOrganizationName("Jaunty Anvil");
    const int percent = anvil::app::preferences::textSize();
    anvil::app::setTextScale(percent > 0 ? percent / 100.0 : anvil::app::desktopTextScale());
    anvil::app::applyTheme(application,
                           static_cast<anvil::app::Appearance>(anvil::app::preferences::appearance()));
    anvil::link::installCrashHandler();
    anvil::app::MainWindow window;
    window.guard().watchSignals();
    auto arguments = QApplication::arguments().mid(1);
    QuitWhenPainted quitter;
    if (arguments.removeAll("--quit-when-painted") > 0) window.installEventFilter(&quitter);
    for (qsizetype i = 0; i < arguments.size(); ++i)
        if (arguments[i].startsWith("--now=")) { // the demo plays on a day of its own
            window.session().setNow(QDateTime::fromString(arguments.takeAt(i--).mid(6), Qt::ISODate));
            window.session().keepClock();
        }
    if (!arguments.isEmpty()) window.openPath(arguments.first());
    window.show();
    return QApplication::exec();
}
