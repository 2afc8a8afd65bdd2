#include "shell/earlier_index.h"

#include "shell/preferences.h"
#include <QFile>
#include <anvil/work/earlier_index.h>

namespace anvil::app::earlier_index {

bool isOn() { return preferences::keepsEarlier(); }

void setOn(bool on) {
    preferences::setKeepsEarlier(on);
    if (!on) QFile::remove(path());
}

QString path() { return preferences::besideSettings(QStringLiteral("earlier.tsv")); }

void remember(work::OpenProject& project) {
    if (isOn()) work::rememberResults(path(), project);
}

std::vector<results::Earlier> all(const QString& besides) {
    return isOn() ? work::rememberedResults(path(), besides) : std::vector<results::Earlier>{};
}

} // namespace anvil::app::earlier_index
