#include "shell/main_window.h"
#include "theme/theme.h"

#include <QApplication>
#include <QSettings>

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName("Jaunty Anvil");
    QApplication::setOrganizationName("Jaunty Anvil");
    anvil::app::applyTheme(application, static_cast<anvil::app::Appearance>(QSettings().value("appearance", 2).toInt()));
    anvil::app::MainWindow window;
    if (argc > 1)
        window.openPath(QString::fromLocal8Bit(argv[1]));
    window.show();
    return QApplication::exec();
}
