// Method and safety: how it is tested, what is needed of it, and the cautions that stay with the study.
#pragma once

#include "shell/session.h"
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPlainTextEdit;

namespace anvil::app {

class PictureView;

class MethodPanel : public QWidget {
    Q_OBJECT
public:
    explicit MethodPanel(Session& session, QWidget* parent = nullptr);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void refresh();
    void saveTargets();
    void saveCautions();
    Session& m_session;
    bool m_filling = false;
    QComboBox *m_method, *m_direction;
    QLabel *m_about, *m_card;
    PictureView* m_picture;
    QLineEdit *m_part, *m_need, *m_ceiling;
    QPlainTextEdit* m_cautions;
};

} // namespace anvil::app
