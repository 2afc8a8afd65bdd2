// The readings of one piece, a column a dimension: several are averaged.
#pragma once

#include "shell/session.h"
#include "widgets/row_editor.h"
#include <QWidget>

class QLabel;

namespace anvil::app {

class ReadingsList : public QWidget {
    Q_OBJECT
public:
    explicit ReadingsList(Session& session, QWidget* parent = nullptr);
    /// The piece whose readings are typed; hidden for one nothing is measured at, or for none.
    void showPiece(const domain::Specimen* piece);

private:
    void save();
    Session& m_session;
    Id m_piece = 0;
    QLabel* m_head;
    RowEditor* m_rows;
};

} // namespace anvil::app
