#include "widgets/weight_rows.h"

#include "shell/session.h"
#include "theme/theme.h"
#include "widgets/plain_text.h"
#include <QHBoxLayout>
#include <QLabel>
#include <QSlider>
#include <QToolButton>
#include <QVBoxLayout>
#include <cmath>

namespace anvil::app {

namespace {

constexpr int finest = 10; ///< steps of a slider to one of weight

} // namespace

WeightRows::WeightRows(QWidget* parent) : QWidget(parent) {
    m_layout = new QVBoxLayout(this);
    m_layout->setContentsMargins(0, 0, 0, 0);
    m_layout->setSpacing(6);
}

void WeightRows::show(const pages::Weights& weights) {
    const int rows = static_cast<int>(weights.rows.size());
    while (m_layout->count() > rows) {
        auto* item = m_layout->takeAt(m_layout->count() - 1);
        item->widget()->hide();
        item->widget()->deleteLater();
        delete item;
    }
    while (m_layout->count() < rows)
        m_layout->addWidget(makeRow(m_layout->count()));
    double most = 0;
    for (const auto& row : weights.rows)
        most = std::max(most, row.weight);
    m_filling = true;
    for (int i = 0; i < rows; ++i) {
        const auto& row = weights.rows[static_cast<std::size_t>(i)];
        auto* box = m_layout->itemAt(i)->widget();
        box->findChild<QLabel*>("weightTitle")->setText(qs(row.title));
        box->findChild<QLabel*>("weightShare")->setText(qs(row.share));
        auto* slider = box->findChild<QSlider*>();
        slider->setAccessibleName(tr("Weight of %1").arg(qs(row.title)));
        slider->setAccessibleDescription(qs(row.share));
        box->findChild<QToolButton*>()->setAccessibleName(tr("Take %1 off the card").arg(qs(row.title)));
        if (slider->isSliderDown()) continue;
        slider->setMaximum(static_cast<int>(std::ceil(1.5 * std::max(10.0, most))) * finest); // room to go up
        slider->setValue(static_cast<int>(std::lround(row.weight * finest)));
    }
    m_filling = false;
}

std::vector<double> WeightRows::weights() const {
    std::vector<double> out;
    for (int i = 0; i < m_layout->count(); ++i)
        out.push_back(m_layout->itemAt(i)->widget()->findChild<QSlider*>()->value() /
                      static_cast<double>(finest));
    return out;
}

QWidget* WeightRows::makeRow(int which) {
    auto* box = new QWidget;
    auto* layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    auto* head = new QHBoxLayout;
    auto* title = plainLabel();
    title->setObjectName("weightTitle");
    title->setWordWrap(true);
    head->addWidget(title, 1);
    auto* share = plainLabel();
    share->setObjectName("weightShare");
    head->addWidget(share);
    auto* off = new QToolButton;
    off->setText(QStringLiteral("×"));
    off->setAutoRaise(true);
    setTip(off, tr("Take it off the card"));
    head->addWidget(off);
    layout->addLayout(head);
    auto* slider = new QSlider(Qt::Horizontal);
    slider->setPageStep(finest);
    slider->setSingleStep(finest / 2);
    layout->addWidget(slider);
    connect(off, &QToolButton::clicked, this, [this, which] { emit removed(which); });
    connect(slider, &QSlider::valueChanged, this, [this, which, slider] {
        if (m_filling) return;
        emit dragged();
        if (!slider->isSliderDown()) emit weighed(which); // by key or wheel
    });
    connect(slider, &QSlider::sliderReleased, this, [this, which] { emit weighed(which); });
    return box;
}

} // namespace anvil::app
