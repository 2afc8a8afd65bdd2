// What is entered where there is no curve: the form of the study's method, for the piece that is next.
#pragma once

#include "widgets/panel.h"
#include <anvil/study/entries.h>
#include <set>

class QComboBox;
class QGridLayout;

namespace anvil::app {

class PictureView;

class EntryPanel : public Panel {
    Q_OBJECT
public:
    explicit EntryPanel(Session& session, QWidget* parent = nullptr);

private:
    void fill() override;
    void makeForm(study::EntryKind kind);
    void keep();
    /// What the steps of a rating mean.
    void showScale(const study::StudyData* data);
    void saveWords();
    QLabel *m_piece, *m_about, *m_scale;
    QLineEdit* m_words;
    QWidget* m_form;
    PictureView* m_picture;
    QGridLayout* m_grid;
    QComboBox* m_broke;
    std::vector<std::pair<std::string, QLineEdit*>> m_fields;
    study::EntryKind m_kind = study::EntryKind::curve;
    std::set<Id> m_skipped;
    Id m_next = 0;
};

} // namespace anvil::app
