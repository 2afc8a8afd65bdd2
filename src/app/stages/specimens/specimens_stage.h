// Specimens: pieces made from the plan, measured and labelled; their preparation in time; what the plan eats.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTabWidget;
class QTableWidget;
class QTimer;

namespace anvil::app {

class SpecimensStage : public QWidget {
    Q_OBJECT
public:
    explicit SpecimensStage(Session& session, QWidget* parent = nullptr);
    /// Writes the label sheet; false and a message when it cannot.
    bool writeLabels(const QString& path);
    bool writeCalendar(const QString& path);
    bool writeStock(const QString& path);

private:
    QWidget* makePieces();
    QWidget* makePreparation();
    QWidget* makeShopping();
    void refresh();
    void fillPieces();
    void fillPreparation();
    void fillShopping();
    void follow();
    void pieceEdited(int row, int column);
    void addDimension();
    void recipeEdited();
    void checkDue();
    QStringList dimensions() const;

    Session& m_session;
    bool m_filling = false;
    QString m_told; ///< what was last said to be due
    QLabel *m_sentence, *m_prepSentence, *m_stockSentence;
    QTabWidget* m_tabs;
    QTableWidget *m_table, *m_recipe, *m_steps, *m_stock;
    QComboBox *m_option, *m_condition;
    QLineEdit *m_batch, *m_dimension, *m_nominal, *m_tolerance;
    QPushButton *m_make, *m_begin;
    QWidget* m_makeRow;
    QTimer* m_timer;
};

} // namespace anvil::app
