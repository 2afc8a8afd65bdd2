// Things that are weighed against each other: a slider each, and a way to take it off.
#pragma once

#include <QWidget>
#include <anvil/pages/block.h>

class QVBoxLayout;

namespace anvil::app {

class WeightRows : public QWidget {
    Q_OBJECT
public:
    explicit WeightRows(QWidget* parent = nullptr);
    /// Shows them; a slider that is being dragged stays where it is held.
    void show(const pages::Weights& weights);
    /// As the sliders stand.
    std::vector<double> weights() const;

signals:
    void dragged();          ///< a slider moves
    void weighed(int which); ///< it has come to rest
    void removed(int which);

private:
    QWidget* makeRow(int which);
    QVBoxLayout* m_layout;
    bool m_filling = false;
};

} // namespace anvil::app
