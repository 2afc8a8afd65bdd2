#include "stages/report/report_stage.h"
#include <anvil/pages/page.h>
#include <anvil/pages/write.h>

#include "theme/theme.h"
#include "widgets/flow_layout.h"
#include "widgets/plain_text.h"
#include <QCheckBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QPaintEvent>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <anvil/project/telling_commands.h>
#include <anvil/project/write_file.h>

namespace anvil::app {
namespace {
constexpr int between = 16;
}

void PagesView::setSheets(std::vector<pages::Sheet> sheets) {
    m_sheets = std::move(sheets);
    fit();
    update();
}

double PagesView::scale() const { return std::min(1.2, (width() - 2.0 * between) / pages::sheetWidth); }

void PagesView::fit() {
    setMinimumHeight(
        static_cast<int>(static_cast<double>(m_sheets.size()) * (pages::sheetHeight * scale() + between)) +
        between);
}

void PagesView::resizeEvent(QResizeEvent*) { fit(); }

void PagesView::paintEvent(QPaintEvent* event) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double s = scale(), x = (width() - pages::sheetWidth * s) / 2;
    for (std::size_t i = 0; i < m_sheets.size(); ++i) {
        const QRectF page(x, between + static_cast<double>(i) * (pages::sheetHeight * s + between),
                          pages::sheetWidth * s, pages::sheetHeight * s);
        if (!page.intersects(event->rect())) continue;
        painter.fillRect(page, Qt::white);
        painter.setPen(theme().line);
        painter.drawRect(page);
        painter.save();
        painter.translate(page.topLeft());
        painter.scale(s, s);
        pages::paintSheet(painter, m_sheets[i]);
        painter.restore();
    }
}

ReportStage::ReportStage(Session& session, QWidget* parent) : Panel(session, parent) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(12, 10, 12, 10);
    auto* top = new QHBoxLayout;
    m_sentence = plainLabel();
    m_sentence->setObjectName("sentence");
    m_sentence->setWordWrap(true);
    m_html = new QPushButton(icon("file-text"), tr("Save as HTML…"));
    m_html->setObjectName("saveHtml");
    m_pdf = new QPushButton(icon("printer", true), tr("Save as PDF…"));
    m_pdf->setObjectName("primary");
    m_publish = new QPushButton(tr("Mark as published"));
    setTip(m_publish, tr("Keeps what is shown now: a value that changes later stands as a correction"));
    top->addWidget(m_sentence, 1);
    top->addWidget(m_publish);
    top->addWidget(m_html);
    top->addWidget(m_pdf);
    layout->addLayout(top);
    m_ticks = new QWidget;
    m_ticks->setObjectName("reportPages");
    m_ticks->setAccessibleName(tr("Pages of the verdict in the report"));
    new FlowLayout(m_ticks);
    layout->addWidget(m_ticks);
    connect(m_publish, &QPushButton::clicked, this, &ReportStage::publish);
    m_pages = new PagesView;
    m_scroll = new QScrollArea;
    m_scroll->setObjectName("reportScroll");
    m_scroll->setWidget(m_pages);
    m_scroll->setWidgetResizable(true);
    m_scroll->setAccessibleName(tr("The report, page by page"));
    m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    layout->addWidget(m_scroll, 1);
    connect(m_html, &QPushButton::clicked, this, [this] {
        const auto path = QFileDialog::getSaveFileName(this, tr("Save the report"), suggested("html"),
                                                       tr("Web page (*.html)"));
        if (!path.isEmpty()) writeHtml(path);
    });
    connect(m_pdf, &QPushButton::clicked, this, [this] {
        const auto path =
            QFileDialog::getSaveFileName(this, tr("Save the report"), suggested("pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) writePdf(path);
    });
    follow();
}

QString ReportStage::suggested(const QString& ending) const {
    const QFileInfo project(m_session.project()->file().path());
    return project.absolutePath() + "/" + qs(m_session.study()->study.title).toLower().replace(' ', '-') +
           "." + ending;
}

pages::Page ReportStage::page() const { return pages::report(m_session.source(), {m_session.units()}); }

bool ReportStage::writeHtml(const QString& path) {
    if (!m_session.tell(project::writeFile(path, QByteArray::fromStdString(pages::toHtml(page())))))
        return false;
    m_session.say(tr("The report is in %1.").arg(path));
    return true;
}

bool ReportStage::writePdf(const QString& path) {
    if (!m_session.tell(pages::writePdf(page(), path))) return false;
    m_session.say(tr("The report is in %1.").arg(path));
    return true;
}

void ReportStage::publish() {
    if (!m_session.project()) return;
    if (m_session.tell(project::publish(*m_session.project(), m_session.studyId(),
                                        m_session.now().toString(Qt::ISODate).toStdString())))
        m_session.say(
            tr("Kept as published. What is changed from now on stands in the report as a correction."));
}

/// A box for each page that has something to say.
void ReportStage::fillTicks() {
    auto* layout = m_ticks->layout();
    while (auto* item = layout->takeAt(0)) {
        item->widget()->hide();
        item->widget()->deleteLater();
        delete item;
    }
    const auto* data = m_session.study();
    m_ticks->setVisible(data != nullptr);
    if (!data) return;
    const auto source = m_session.source();
    const auto& leftOut = data->study.telling.leftOut;
    for (const auto& entry : pages::registry()) {
        if (!pages::reportOffers(entry.key) || !entry.offered(source, {m_session.units()})) continue;
        auto* box = new QCheckBox(qs(entry.title));
        box->setChecked(std::find(leftOut.begin(), leftOut.end(), entry.key) == leftOut.end());
        box->setEnabled(!m_session.readOnly());
        connect(box, &QCheckBox::clicked, this, [this, key = std::string(entry.key)](bool on) {
            m_session.tell(project::setInReport(*m_session.project(), m_session.studyId(), key, on));
        });
        layout->addWidget(box);
    }
}

void ReportStage::fill() {
    const auto* data = m_session.study();
    m_html->setVisible(data != nullptr);
    m_pdf->setVisible(data != nullptr);
    m_scroll->setVisible(data != nullptr);
    m_sentence->setText(data ? tr("This is the report as it stands; it follows every change.")
                             : tr("There is nothing to report yet: import some logger files first."));
    m_publish->setVisible(data != nullptr && !m_session.readOnly());
    fillTicks();
    if (data) m_pages->setSheets(pages::paginate(page()));
}

} // namespace anvil::app
