// Measuring on a picture: what is known in it, what is marked on it, and where the numbers go.
#pragma once

#include "widgets/marked_picture.h"
#include <QDialog>
#include <anvil/project/picture_commands.h>
#include <anvil/quantity/units.h>
#include <map>

class QButtonGroup;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace anvil::app {

/// A field that may take a number.
struct PictureTarget {
    QString key, title;
    quantity::Dimension dimension = quantity::Dimension::length;
};

std::vector<PictureTarget> pictureTargets(const std::vector<project::MeasuredField>& fields);

class PictureDialog : public QDialog {
    Q_OBJECT
public:
    /// `wanted`: the target that is offered first; empty: any.
    PictureDialog(const Photo& picture, const QString& name, const methods::PictureMarks& marks,
                  std::vector<PictureTarget> targets, const QString& wanted, const quantity::Units& units,
                  QWidget* parent);
    const methods::PictureMarks& marks() const { return m_picture->marks(); }
    /// What was put into fields, by their keys, as it would be typed.
    const std::map<QString, QString>& given() const { return m_given; }

protected:
    /// Return ends what is typed or outlined, never the dialog.
    void keyPressEvent(QKeyEvent* event) override;

private:
    QWidget* makeKnown();
    QWidget* makeTools();
    QWidget* makeResults();
    void readKnown();
    void show();
    void showResults();
    void showTargets();
    void sayNext();
    void put();
    std::optional<methods::PictureMeasure> chosen() const;
    const quantity::Unit& unitOf(quantity::Dimension dimension) const;
    MarkedPicture* m_picture;
    QLabel *m_next, *m_heightTitle, *m_wrong;
    QLineEdit *m_length, *m_height, *m_doubt, *m_click;
    QButtonGroup* m_tools;
    QTableWidget* m_table;
    QComboBox* m_target;
    QPushButton *m_put, *m_remove;
    std::vector<PictureTarget> m_targets;
    QString m_wanted;
    quantity::Units m_units;
    std::map<QString, QString> m_given;
    bool m_filling = false;
};

} // namespace anvil::app
