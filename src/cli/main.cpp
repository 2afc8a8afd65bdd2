#include "run.h"

#include <QGuiApplication>
#include <anvil/quantity/digits.h>
#include <iostream>

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) // reports need fonts, never a display
        qputenv("QT_QPA_PLATFORM", "offscreen");
    qInstallMessageHandler([](QtMsgType type, const QMessageLogContext&, const QString& text) {
        if (type == QtCriticalMsg || type == QtFatalMsg) // one line on stderr is promised, and it is ours
            std::cerr << text.toStdString() << "\n";
    });
    const QGuiApplication application(argc, argv);
    anvil::quantity::usePoints();
    return anvil::cli::run(argc, argv);
}
