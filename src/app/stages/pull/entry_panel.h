// What is entered where there is no curve: the form of the study's method, for the piece that is next.
#pragma once

#include "widgets/panel.h"
#include <QDateTime>
#include <anvil/domain/model.h>
#include <anvil/methods/method.h>
#include <anvil/plan/turn.h>

class QComboBox;
class QGridLayout;
class QPushButton;

namespace anvil::app {

class UnitQuestion;

class PictureView;

class RowEditor;

class EntryPanel : public Panel {
    Q_OBJECT
public:
    explicit EntryPanel(Session& session, QWidget* parent = nullptr);

private:
    struct Field {
        const methods::Input* input;
        QLineEdit* edit;
        QString key; ///< of the input, with its leg
    };
    QLayout* makeForm();
    void fill() override;
    void drawSketch();
    void makeForm(const methods::Method& method);
    QLineEdit* addLine(int row, const QString& key, const QString& title, const QString& hint, bool needed);
    /// Enter in a field goes on to the next one; in an empty one, when all that is needed is there, it keeps.
    void entered(const QLineEdit* edit);
    void keep();
    /// A picture to measure on, for the field of this key or for any.
    void measureOn(const QString& path, const QString& key);
    void choosePicture();
    bool eventFilter(QObject* watched, QEvent* event) override;
    /// Fields that are usually the same for the next piece stay; the first empty one is next.
    void clearForNext();
    void focusFirst(); ///< the first field that is empty
    /// What the steps of a rating mean.
    void showScale(const domain::StudyData* data);
    void saveWords();
    QLabel *m_piece, *m_about, *m_scale;
    QLineEdit* m_note = nullptr;
    RowEditor* m_words;
    QWidget* m_form;
    PictureView* m_picture;
    QGridLayout* m_grid;
    QComboBox* m_broke;
    std::vector<Field> m_fields;
    const methods::Method* m_method = nullptr;
    int m_legs = 0; ///< lines for as many
    plan::Turn m_turn;
    UnitQuestion* m_question;
    std::map<QString, QString> m_accepted; ///< what was asked about and is meant so, by key
    /// What a field is typed in: its input's quantity, or what the display shows that it is read off.
    quantity::Dimension typedIn(const methods::Input& input) const;
    Expected<quantity::Entry> entryOf(const Field& field, const quantity::Unit* unit) const;
    /// The unit of a bare number in a field: that of the field before it in the form which says one.
    const quantity::Unit* unitBefore(const QLineEdit* edit) const;
    bool asks(); ///< something that was typed is asked about first
    Id m_next = 0;
    struct Taken {
        QString name;
        QByteArray bytes;
        QDateTime madeAt;
        methods::PictureMarks marks;
    };
    std::vector<Taken> m_taken; ///< pictures that will be kept with the pull that is being entered
    QPushButton* m_measure;
};

} // namespace anvil::app
