// Pieces: made from the plan with labels of their own, measured against what was wanted, placed, labelled.
#pragma once

#include "widgets/panel.h"

class QComboBox;
class QHBoxLayout;
class QPushButton;
class QTableWidget;
class QTableWidgetItem;

namespace anvil::app {

class ReadingsList;

class PiecesPanel : public Panel {
    Q_OBJECT
public:
    explicit PiecesPanel(Session& session, QWidget* parent = nullptr);
    bool writeLabels(const QString& path);

private:
    QWidget* makeMakeRow();
    QLayout* makeAskRow();
    QWidget* makeMeasureRow();
    QWidget* makeMoveRow();
    void addLabels(QLayout* row);
    void hideEmptyColumns();
    QString tipOf(const domain::Measured& measured) const;
    void fill() override;
    void fillRow(int row, const domain::Specimen& piece);
    void selected(int row);
    void showSelection();
    void showReadings();
    void edited(int row, int column);
    void measuredEdited(const domain::Specimen& piece, const std::string& name, const QString& text);
    void addDimension();
    void paste();
    static constexpr int pieceRole = Qt::UserRole, pullRole = Qt::UserRole + 1;
    /// What a column shows: a field of the piece, a dimension, or something worked out.
    struct PieceColumn {
        enum class Kind {
            label,
            option,
            condition,
            state,
            dimension,
            area,
            text,
            place,
            input
        } kind = Kind::text;
        QString head, key; ///< the dimension's name, or the field of the specimen
        const methods::Input* input = nullptr;
    };
    std::vector<PieceColumn> columnsOf(const domain::StudyData& data) const;
    /// What stands in a cell, to be given to the table.
    QTableWidgetItem* cellOf(const PieceColumn& column, const domain::Specimen& piece,
                             const QString& state) const;
    QTableWidgetItem* dimensionCell(const domain::Specimen& piece, const QString& name) const;
    static bool isTyped(const PieceColumn& column, const domain::Specimen& piece);

    std::vector<PieceColumn> m_columns;
    QTableWidget* m_table;
    ReadingsList* m_readings;
    QComboBox *m_option, *m_condition, *m_code;
    QLineEdit *m_batch, *m_scheme, *m_dimension, *m_nominal, *m_tolerance;
    QPushButton *m_make, *m_askReadings, *m_allColumns;
    QWidget* m_makeRow;
};

} // namespace anvil::app
