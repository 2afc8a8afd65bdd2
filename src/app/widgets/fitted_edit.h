// A field inside a sentence: as wide as what stands in it.
#pragma once

#include <QLineEdit>

namespace anvil::app {

class FittedEdit : public QLineEdit {
    Q_OBJECT
public:
    FittedEdit(const char* name, const QString& hint, int widest = 320);
    void setHint(const QString& hint);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return sizeHint(); }

private:
    int m_widest;
};

} // namespace anvil::app
