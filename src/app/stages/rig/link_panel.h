// Connection: where the rig is reached, what arrives, and what its columns mean.
#pragma once

#include "widgets/panel.h"
#include <anvil/link/speed_finder.h>
#include <memory>

class QComboBox;
class QPlainTextEdit;
class QPushButton;
class QTableWidget;
class QHBoxLayout;
class QVBoxLayout;

namespace anvil::app {

class SeenLine;

class RowEditor;

class LinkPanel : public Panel {
    Q_OBJECT
public:
    explicit LinkPanel(Session& session, QWidget* parent = nullptr);

private:
    void makeQuestions(QVBoxLayout* layout);
    void makeLines(QHBoxLayout* columns);
    void makeColumns(QHBoxLayout* columns);
    void connectAll();
    void fill() override;
    void tick();
    void guess();
    void save();
    std::string freeName() const; ///< for a rig that nobody has named
    void saveColumns();
    void saveQueries();
    void showPorts();
    /// Listens at the usual speeds; with questions it asks each of them. The tester has agreed to that.
    void findSpeed(const QString& port, const QList<QByteArray>& questions);
    void doneFinding();
    QLineEdit *m_name, *m_address, *m_rate, *m_forceQuery, *m_travelQuery;
    RowEditor* m_moreQueries;
    QComboBox* m_protocol;
    QPushButton *m_connect, *m_guess, *m_find;
    SeenLine* m_seen;
    std::unique_ptr<link::SpeedFinder> m_finder;
    QString m_finding; ///< what the finder is at; empty: nothing
    QLabel *m_state, *m_value, *m_queries, *m_further, *m_meaning;
    QPlainTextEdit* m_lines;
    QTableWidget* m_columns;
};

} // namespace anvil::app
