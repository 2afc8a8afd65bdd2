#include <anvil/work/rig_commands.h>

#include "done.h"

namespace anvil::work {
Expected<Id> saveRig(OpenProject& project, const rig::Setup& setup) {
    if (setup.name.empty()) return fail("A rig needs a name.");
    const auto name = QString::fromStdString(setup.name);
    const auto json = QString::fromStdString(rig::toJson(setup));
    int version = 0;
    const auto kept = project.file().setups();
    if (!kept) return tl::unexpected(kept.error());
    for (const auto& row : *kept)
        if (row.rig == name) {
            version = row.version;
            if (row.json == json) return row.id;
        }
    Id made = 0;
    auto entry = project.run(
        OpenProject::tr("Rig \"%1\", version %2").arg(name).arg(version + 1), [&](store::Writer& w) {
            made =
                w.addSetup({0, name, version + 1, QDateTime::currentDateTime().toString(Qt::ISODate), json});
        });
    if (!entry) return entry;
    return made;
}

} // namespace anvil::work
