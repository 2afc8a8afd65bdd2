// What could be done next: a sentence each, with its actions beside it.
#pragma once

#include <QWidget>
#include <anvil/pages/block.h>

class QVBoxLayout;

namespace anvil::app {

class OfferRows : public QWidget {
    Q_OBJECT
public:
    explicit OfferRows(QWidget* parent = nullptr);
    void show(const pages::Offers& offers);
    using QWidget::show;

signals:
    void wanted(const pages::Action& action);

private:
    QWidget* rowOf(const pages::Offer& offer, bool first);
    QVBoxLayout* m_layout;
    bool m_unfolded = false;
};

} // namespace anvil::app
