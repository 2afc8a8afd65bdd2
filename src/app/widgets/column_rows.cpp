#include "widgets/column_rows.h"

#include "shell/session.h"

namespace anvil::app {

std::vector<QStringList> columnRows(std::span<const rig::LineColumn> columns) {
    std::vector<QStringList> out;
    for (const auto& c : columns)
        out.push_back(c.role == rig::Role::none
                          ? QStringList{QStringLiteral("-"), {}, {}}
                          : QStringList{qs(c.name.empty() ? std::string(rig::key(c.role)) : c.name),
                                        qs(c.unit), qs(c.question)});
    return out;
}

std::vector<rig::ColumnText> columnTexts(const RowEditor& list) {
    std::vector<rig::ColumnText> out;
    for (const auto& row : list.rows())
        out.push_back({row[0].toStdString(), row[1].toStdString(), row[2].toStdString()});
    return out;
}

} // namespace anvil::app
